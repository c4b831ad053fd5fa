import { Suspense, lazy, useMemo } from "react";
import { KeptForm } from "~/kit/draft/draft-form";
import { useFetcher } from "react-router";
import { MATTE_RULES } from "#core/models/gloss/matte-knowledge";
import { show } from "#core/kernel/units/format";
import { GlossModel } from "./gloss-model";
import { useUnits } from "~/kit/root/use-root";
import { PlanTabs } from "./tabs";
import { OwnInput } from "~/kit/ui/field";
import { GlossReading } from "./gloss-reading";
import { wantedWords } from "./gloss.words";
import type { Route } from "./+types/gloss.route";
import { usePanel } from "~/kit/panel/use-panel";
import type { FaceAsked } from "~/cards/matte-faces";
import { glossReads, vehicleRead } from "#core/panel/gloss-read";
import { wantedGloss } from "#core/panel/neighbour";
import type { FormAnswer } from "~/kit/form/answer";

// Only matte jobs ask for it; it follows the document.
const MatteDesk = lazy(() => import("~/cards/matte.desk").then((m) => ({ default: m.MatteDesk })));

const VERTICAL_FROM_RAD = Math.PI / 4;

export function PanelGlossDesk({
  loaderData: { cards, products, levels, faces: allFaces, film_m, again_m3 },
}: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const { state, job, panel, product } = view;
  const matte = job.finish === "matte" || product.sheet.kind === "matte clear";
  const { targetGloss_GU } = job.brief;
  const wanted = wantedGloss(state, targetGloss_GU);
  const vehicle = vehicleRead(glossReads(state.gloss));
  const fetcher = useFetcher<FormAnswer>();
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
            rowKey={`${view.formKey}-row`}
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
        <h2 className="max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight">
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
  const fetcher = useFetcher<FormAnswer>();
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
