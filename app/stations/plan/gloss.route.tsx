import { acting } from "~/kit/form/in-words.server";
import { Suspense, lazy, useMemo } from "react";
import { KeptForm } from "~/kit/draft/draft-form";
import { data, useFetcher } from "react-router";
import { z } from "zod";
import { MATTE_RULES } from "#core/models/gloss/matte-knowledge";
import { show } from "#core/kernel/units/format";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { checkStandInTile, takeStandInGloss } from "#server/devices/take-gloss";
import { getJob } from "#server/repos/job-repo";
import { listPanels } from "#server/repos/panel-repo";
import { loadMatteShelf } from "#server/views/matte-view";
import { GlossModel } from "./gloss-model";
import { answerForm, textOf } from "~/kit/form/answer";
import { glossAngle, glossForm, glossMeterForm, matteCheckForm, matteMixForm } from "~/kit/form/gloss-readings";
import { guardedAction } from "~/kit/form/guarded-action";
import { readPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { PlanTabs } from "./tabs";
import { OwnInput } from "~/kit/ui/field";
import { GlossReading } from "./gloss-reading";
import { wantedWords } from "./gloss.words";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gloss.route";
import { usePanel } from "~/kit/panel/use-panel";
import type { FaceAsked } from "~/cards/matte-faces";
import { glossReads, vehicleRead } from "#core/panel/gloss-read";
import { wantedGloss } from "#core/panel/neighbour";
import { loadPlanAhead } from "#server/views/plan-ahead-view";
import { panelOr404 } from "~/kit/http/panel.server";

// Only matte jobs ask for it; it follows the document.
const MatteDesk = lazy(() => import("~/cards/matte.desk").then((m) => ({ default: m.MatteDesk })));

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [view, shelf, panels] = await Promise.all([panelOr404(ctx, jobId, panelId), loadMatteShelf(ctx), listPanels(ctx.db, jobId)]);
  const faces = panels.map((p) => ({ name: p.name, tilt_rad: p.tilt_rad, sides: p.sides ?? 1, revisionId: p.productRevisionId }));
  const { clear, bySheet_m, again } = loadPlanAhead(view, ctx.now_ms());
  return { ...shelf, faces, film_m: clear?.clear_m ?? bySheet_m, again_m3: again.toMix_m3 };
}

export const action = acting(async ({ request, params: { jobId, panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { by } = await readPrefs(request);
  const clientKey = textOf(form, "formKey") || null;
  switch (textOf(form, "intent")) {
    case "gloss":
      return answerForm(form, glossForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "gloss", body, by, clientKey }),
        message: "Gloss stored",
      }));
    case "meter":
      return answerForm(form, glossMeterForm, async (v) => ({
        entryId: await takeStandInGloss(ctx, { ...v, panelId, matte: (await getJob(ctx.db, jobId))?.finish === "matte", by }),
        message: "Read with the stand-in meter: simulated",
      }));
    case "tile":
      return answerForm(form, z.object({ angle: glossAngle }), async ({ angle }) => ({ message: await checkStandInTile(ctx, angle) }));
    case "take":
      return answerForm(form, matteMixForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "matteMix", body, by, clientKey }),
        message: "Taken: it stands in the mix",
      }));
    case "check":
      return answerForm(form, matteCheckForm, async (body) => ({
        entryId: await recordEntry(ctx, { panelId, kind: "matteCheck", body, by }),
        message: "Check list stored",
      }));
    default:
      throw data("Not understood", { status: 400 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

const VERTICAL_FROM_RAD = Math.PI / 4;

export default function PanelGloss({ loaderData: { cards, products, levels, faces: allFaces, film_m, again_m3 } }: Route.ComponentProps) {
  const { view, base } = usePanel();
  const { state, job, panel, product } = view;
  const matte = job.finish === "matte" || product.sheet.kind === "matte clear";
  const { targetGloss_GU } = job.brief;
  const wanted = wantedGloss(state, targetGloss_GU);
  const vehicle = vehicleRead(glossReads(state.gloss));
  const fetcher = useFetcher<typeof action>();
  const faces = useMemo(
    () =>
      allFaces
        .filter((f) => f.revisionId === panel.productRevisionId)
        .flatMap((f): FaceAsked[] => {
          const orientation = f.tilt_rad > VERTICAL_FROM_RAD ? "vertical" : "horizontal";
          return f.sides === 2
            ? (["back", "front"] as const).map((side) => ({ name: `${f.name}, ${side}`, orientation }))
            : [{ name: f.name, orientation }];
        }),
    [allFaces, panel.productRevisionId],
  );
  const ordered = [product.sheet.name, ...products.filter((p) => p !== product.sheet.name)].filter((p) => products.includes(p));
  return (
    <>
      <PlanTabs base={base} />
      {matte ? (
        <Suspense>
          <MatteDesk
            key={wanted?.GU ?? "none"}
            cards={cards}
            products={ordered}
            levelsOf={(p) => levels[p] ?? []}
            target_GU={wanted?.GU ?? null}
            targetNote={wantedWords(wanted, { vehicle, brief_GU: targetGloss_GU })}
            colourCode={job.brief.colourCode}
            faces={faces}
            film_m={film_m}
            taken={state.matteMix?.body.share ?? null}
            onTake={(mix) =>
              void fetcher.submit(
                {
                  intent: "take",
                  formKey: `${view.formKey}-take`,
                  share: String(mix.share),
                  target: String(mix.target_GU),
                  low: mix.low === null ? "" : String(mix.low),
                  high: mix.high === null ? "" : String(mix.high),
                  from: mix.from,
                },
                { method: "post" },
              )
            }
            orientation={panel.tilt_rad > VERTICAL_FROM_RAD ? "vertical" : "horizontal"}
          />
        </Suspense>
      ) : (
        <h2 className="max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight">
          {vehicle
            ? `The vehicle reads ${vehicle.summary.middle_GU.toFixed(1)} GU at 60°.`
            : "Read the vehicle’s own gloss beside the repair."}
        </h2>
      )}
      <GlossReading />
      {!matte && <GlossModel />}
      {matte && <MatteCheck done={state.matteCheck?.body.rules ?? []} />}
      {matte && <MatteAfter volume_m3={again_m3} coats={panel.coatsPlanned * (panel.sides ?? 1)} />}
    </>
  );
}

/** What may be done to matte when it is on, and what a fault in it costs. Common practice. */
function MatteAfter({ volume_m3, coats }: { volume_m3: number; coats: number }) {
  const units = useUnits();
  return (
    <section className="mt-8" aria-labelledby="after-title">
      <h3 id="after-title" className="text-lg font-semibold">
        When it is on
      </h3>
      <ul className="mt-2 list-disc space-y-1 pl-5">
        <li>
          A nib, a run or a mark means this part again: {coats} coats, {show("volume", volume_m3, units).text} {units.volume} ready to
          spray, a card and the wait.
        </li>
        <li>Faint handling marks come off with glass cleaner on a soft cloth.</li>
        <li>A neighbour that looks dull beside it can be freshened with a matte cleaner, on a hidden place first.</li>
      </ul>
    </section>
  );
}

/** Rules of matte, ticked before the gun is filled. */
function MatteCheck({ done }: { done: readonly string[] }) {
  const fetcher = useFetcher<typeof action>();
  const open = MATTE_RULES.length - done.length;
  return (
    <section className="mt-8" aria-labelledby="rules-title">
      <h3 id="rules-title" className="text-lg font-semibold">
        Before spraying matte{open > 0 ? `: ${open} to tick` : ": all ticked"}
      </h3>
      <KeptForm fetcher={fetcher} place="rules" key={done.join()}>
        <input type="hidden" name="intent" value="check" />
        <ul className="mt-2 grid border-t border-hair md:grid-cols-2 md:gap-x-10">
          {MATTE_RULES.map((r) => (
            <li key={r.id} className="border-b border-hair">
              <label className="flex min-h-14 items-center gap-3 py-1.5">
                <OwnInput type="checkbox" name="rules" value={r.id} defaultChecked={done.includes(r.id)} className="size-6 shrink-0" />
                <span>
                  {r.rule} <span className="block text-[13px] text-ink2">{r.why}</span>
                </span>
              </label>
            </li>
          ))}
        </ul>
        <button className="press mt-3">Store the check list</button>
      </KeptForm>
    </section>
  );
}
