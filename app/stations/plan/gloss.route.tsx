import { acting } from "~/kit/form/in-words.server";
import { Suspense, lazy, useMemo } from "react";
import { KeptForm } from "~/kit/draft/draft-form";
import { data, useFetcher } from "react-router";
import { z } from "zod";
import { GLOSS_ANGLES, type GlossAngle, angleToRead } from "#core/models/gloss/fresnel-gloss";
import { glossSummary } from "#core/models/gloss/gloss-statistics";
import { MATTE_RULES } from "#core/models/gloss/matte-knowledge";
import { show, showWithUncertainty } from "#core/kernel/units/format";
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
import { StandIn } from "~/kit/shell/stand-in";
import { Field, FieldErrors, SelectField, OwnInput } from "~/kit/ui/field";
import { Figure } from "~/kit/ui/figure";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { glossWorking } from "./gloss.words";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/gloss.route";
import { usePanel } from "~/kit/panel/use-panel";
import type { FaceAsked } from "~/cards/matte-faces";
import { planFigures } from "#core/models/ways/plan-figures";
import { handGun } from "#core/panel/next-coat";

// Only matte jobs ask for it; it follows the document.
const MatteDesk = lazy(() => import("~/cards/matte.desk").then((m) => ({ default: m.MatteDesk })));

export async function loader({ params: { jobId } }: Route.LoaderArgs) {
  const ctx = await serverContext();
  const [shelf, panels] = await Promise.all([loadMatteShelf(ctx), listPanels(ctx.db, jobId)]);
  const faces = panels.map((p) => ({ name: p.name, tilt_rad: p.tilt_rad, sides: p.sides ?? 1, revisionId: p.productRevisionId }));
  return { ...shelf, faces };
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

const ROLES = { target: "the vehicle beside the repair", part: "the sprayed part" } as const;
const VERTICAL_FROM_RAD = Math.PI / 4;

export default function PanelGloss({ loaderData: { cards, products, levels, faces: allFaces } }: Route.ComponentProps) {
  const { view, base } = usePanel();
  const { state, job, panel, product } = view;
  const units = useUnits();
  const groups = (["target", "part"] as const).flatMap((role) =>
    GLOSS_ANGLES.flatMap((angle) => {
      const entries = state.gloss.filter((g) => g.body.role === role && g.body.angle === angle);
      const values = entries.flatMap((e) => e.body.readings.map((r) => r.gloss_GU));
      return values.length
        ? [{ role, angle, entries, summary: glossSummary(angle, values), simulated: entries.some((e) => e.simulated) }]
        : [];
    }),
  );
  const target = groups.find((g) => g.role === "target" && g.angle === 60);
  const advice = target && angleToRead(target.summary.mean_GU);
  const matte = job.finish === "matte" || product.sheet.kind === "matte clear";
  const { targetGloss_GU } = job.brief;
  const wanted_GU = targetGloss_GU ?? target?.summary.mean_GU ?? null;
  const read =
    target &&
    `the vehicle reads ${target.summary.mean_GU.toFixed(1)} GU, ${target.summary.n} readings${target.simulated ? ", simulated" : ""}`;
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
  const again = useMemo(() => {
    const gun = handGun(state, job.way).settings;
    const { sheet } = product;
    const { coatsPlanned, sides } = panel;
    return planFigures({ sheet, way: job.way, coats: coatsPlanned, outline: panel.shape.outline, sides, gun, floor_m: 0 });
  }, [state, job.way, product, panel]);
  const ordered = [product.sheet.name, ...products.filter((p) => p !== product.sheet.name)].filter((p) => products.includes(p));
  return (
    <>
      <PlanTabs base={base} />
      {matte ? (
        <Suspense>
          <MatteDesk
            key={wanted_GU ?? "none"}
            cards={cards}
            products={ordered}
            levelsOf={(p) => levels[p] ?? []}
            target_GU={wanted_GU}
            targetNote={[
              targetGloss_GU === null ? "" : "as the brief wants it",
              read ?? (targetGloss_GU === null ? "read the vehicle near the repair" : ""),
            ]
              .filter(Boolean)
              .join("; ")}
            colourCode={job.brief.colourCode}
            faces={faces}
            film_m={(again.dryMin_m + again.dryMax_m) / 2}
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
          {target ? `The vehicle reads ${target.summary.mean_GU.toFixed(1)} GU at 60°.` : "Read the vehicle’s own gloss beside the repair."}
        </h2>
      )}
      <div className="mt-8 grid gap-x-10 gap-y-8 xl:grid-cols-[1fr_1.1fr]">
        <section aria-labelledby="read-title">
          <h3 id="read-title" className="mb-2 text-lg font-semibold">
            Read gloss
          </h3>
          <ReadGloss formKey={`${view.formKey}-gloss`} />
          {advice && (
            <p className="mt-3 text-[13px] text-ink2">
              Which angle: {advice.angle}°, because {advice.why}.
            </p>
          )}
        </section>
        <section aria-label="Gloss read" className="space-y-4">
          {groups.length === 0 && <p className="text-ink2">Nothing read yet.</p>}
          {groups.map((g) => (
            <div key={g.role + g.angle} className="border-b border-hair pb-3">
              <div className="flex flex-wrap items-center gap-2">
                <Figure
                  size="middle"
                  label={`at ${g.angle}°, ${ROLES[g.role]}`}
                  shown={showWithUncertainty("gloss", g.summary.mean_GU, g.summary.u_GU, units)}
                  note={`${g.summary.n} readings, ${show("gloss", g.summary.lowest_GU, units).text} to ${show("gloss", g.summary.highest_GU, units).text}: ${g.summary.words}`}
                  working={glossWorking(g.summary, units)}
                />
                {g.simulated && <Tag kind="simulated">simulated</Tag>}
                {!g.summary.uniform && <Tag kind="caution">patchy</Tag>}
                {g.entries.map((e) => (
                  <StrikeButton key={e.id} entryId={e.id} what={`gloss at ${g.angle}°`} />
                ))}
              </div>
            </div>
          ))}
        </section>
      </div>
      {!matte && <GlossModel />}
      {matte && <MatteCheck done={state.matteCheck?.body.rules ?? []} />}
      {matte && <MatteAfter volume_m3={again.volume_m3} coats={panel.coatsPlanned * (panel.sides ?? 1)} />}
    </>
  );
}

function ReadGloss({ formKey }: { formKey: string }) {
  const fetcher = useFetcher<typeof action>();
  const errors = fetcher.data?.errors ?? {};
  return (
    <KeptForm fetcher={fetcher} place="gloss" className="grid grid-cols-2 items-start gap-3">
      <input type="hidden" name="formKey" value={`${formKey}-${fetcher.data?.done ?? ""}`} />
      <SelectField label="Of" name="role">
        <option value="target">the vehicle, near the repair</option>
        <option value="part">the sprayed part</option>
      </SelectField>
      <SelectField label="Angle" name="angle" defaultValue="60">
        {GLOSS_ANGLES.map((a: GlossAngle) => (
          <option key={a} value={a}>
            {a}°
          </option>
        ))}
      </SelectField>
      <Field label="Place" name="place" placeholder="upper edge" errors={errors.place} />
      <Field label="Readings" unit="GU, spaces between" name="readings" errors={errors.readings} />
      <button className="press" data-kind="main" name="intent" value="gloss">
        Store readings
      </button>
      <StandIn>
        <button className="press" name="intent" value="meter">
          Take 5 with the stand-in meter
        </button>
        <button className="press" data-kind="quiet" name="intent" value="tile">
          Check the meter on its tile
        </button>
      </StandIn>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
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
