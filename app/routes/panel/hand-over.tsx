import { data, useFetcher } from "react-router";
import { format } from "date-fns";
import { z } from "zod";
import { clearSummary, removedAtSpots } from "#core/ledger/clear-summary";
import { correctionSchool } from "#core/correction/schools";
import { placeInWords } from "#core/panel/shapes";
import { show, showChance, showWithUncertainty } from "#core/units/format";
import { FINISHES, houseWay } from "#core/ways/house-ways";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/context";
import { loadLedgerLines, loadPanelView } from "#server/views/panel-view";
import { answerForm, textOf } from "~/forms/answer";
import { guardedAction } from "~/lib/guarded-action";
import { readPrefs } from "~/lib/prefs.server";
import { useRoot, useUnits } from "~/lib/use-root";
import { PanelDrawing } from "~/panel/panel-drawing";
import { Tag } from "~/ui/tag";
import { VERDICT_WORDS } from "~/words/verdict";
import type { Route } from "./+types/hand-over";
import { usePanel } from "./layout";

export async function loader({ params }: Route.LoaderArgs) {
  const ctx = await serverContext();
  return { log: await loadLedgerLines(ctx, params.panelId), today: format(ctx.now_ms(), "d MMMM yyyy") };
}

export async function action({ request, params: { jobId, panelId } }: Route.ActionArgs) {
  const ctx = await serverContext();
  const view = await loadPanelView(ctx, jobId, panelId);
  if (!view) throw data("This panel is not in the file.", { status: 404 });
  const { by } = await readPrefs(request);
  const form = await request.formData();
  return answerForm(form, z.object({ note: z.string().trim().max(400).default("") }), async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "handOver", body, by, clientKey: textOf(form, "formKey") || null }),
    message: "Handed over",
  }));
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export default function HandOver({ loaderData: { today, log } }: Route.ComponentProps) {
  const { view } = usePanel();
  const { shop } = useRoot();
  const units = useUnits();
  const fetcher = useFetcher<typeof action>();
  const {
    job,
    panel,
    product,
    state,
    floor_m,
    panel: { shape },
  } = view;
  const clear = clearSummary(state);
  const removed = removedAtSpots(state);
  const film = (m: number, u: number) => `${showWithUncertainty("film", m, u, units).text} ${units.film}`;
  const plan = state.plan?.body;
  const digits = units.film === "µm" ? 0 : 1;
  return (
    <article className="max-w-[860px]">
      <div className="no-print mb-5 flex flex-wrap items-center gap-3">
        <h2 className="mr-auto text-[31px] leading-[1.12] font-semibold tracking-tight">
          {state.handedOver ? "Handed over." : clear ? "What the customer gets." : "Not measured yet."}
        </h2>
        <button type="button" className="press" onClick={() => window.print()}>
          Print
        </button>
        <a className="press" href={`/do/panels/${panel.id}/readings.csv`} download>
          Readings as CSV
        </a>
      </div>
      <header className="flex flex-wrap justify-between gap-4 border-y border-hair py-4">
        <div>
          <p className="text-lg font-semibold">
            {job.vehicle}, {panel.name}
          </p>
          <p className="text-ink2">
            {job.colourName} · {FINISHES[job.finish]} · {houseWay(job.wayId).name}
          </p>
        </div>
        <p className="text-right">
          {shop.name}
          <span className="block text-ink2">{today}</span>
        </p>
      </header>
      <div className="grid gap-8 py-5 sm:grid-cols-[1.1fr_1fr] print:grid-cols-2">
        <PanelDrawing
          shape={shape}
          spots={state.spots.map((s) => ({
            name: s.name,
            at: s.at,
            text: s.clear ? show("film", s.clear.clear_m, units, digits).text : s.name,
            state: "read" as const,
          }))}
          label={`${panel.name}: clear at ${clear?.count ?? 0} spots in ${units.film}`}
        />
        <dl className="grid grid-cols-[auto_1fr] content-start [&>dd]:pl-4 [&>*]:border-b [&>*]:border-hair [&>*]:py-2 [&>dd]:text-right [&>dd]:font-medium [&>dt]:text-ink2">
          <dt>Clear</dt>
          <dd>
            {product.sheet.name}, {state.coats.length} of {panel.coatsPlanned} coats
          </dd>
          <dt>Film of clear, mean</dt>
          <dd>{clear ? film(clear.mean_m, clear.u_spot_m) : "not measured"}</dd>
          <dt>Thinnest spot read</dt>
          <dd>
            {clear ? `${film(clear.thinnest.clear_m, clear.thinnest.u_m)}, ${placeInWords(clear.thinnest.at, shape)}` : "not measured"}
          </dd>
          <dt>Floor kept to</dt>
          <dd>
            {show("film", floor_m, units).text} {units.film}
          </dd>
          <dt>How it was found</dt>
          <dd>{clear ? (clear.inferred ? "inferred from the total, not measured" : "after clear less before clear") : "–"}</dd>
          <dt>Defects noted</dt>
          <dd>{state.defects.length ? state.defects.map((d) => d.body.kind).join(", ") : "none"}</dd>
          <dt>Corrected by</dt>
          <dd>
            {plan ? `${correctionSchool(plan.schoolId).name}, ${state.stepsDone.length} of ${plan.steps.length} steps` : "not corrected"}
          </dd>
          {plan && (
            <>
              <dt>Taken off, forecast</dt>
              <dd>{film(plan.removal_m, plan.u_removal_m)}</dd>
              <dt>Verdict when planned</dt>
              <dd>
                {VERDICT_WORDS[plan.verdict].word}; cutting through {showChance(plan.cutChance ?? NaN)}
              </dd>
            </>
          )}
          {removed.length > 0 && (
            <>
              <dt>Taken off, measured</dt>
              <dd>{removed.map((r) => `${r.name}: ${film(r.removal_m, r.u_m)}`).join("; ")}</dd>
            </>
          )}
        </dl>
      </div>
      {state.simulated && (
        <p className="pb-3">
          <Tag kind="simulated">Some readings are simulated, not of a real panel</Tag>
        </p>
      )}
      <p className="border-t border-hair py-3 text-[13px] text-ink2">
        ± is one standard uncertainty at a spot. No wax for 60 to 90 days (common practice; the product’s sheet goes first). Film figures
        are worked out from gauge readings; they are no guarantee.
      </p>
      {state.handedOver ? (
        state.handedOver.body.note && <p>{state.handedOver.body.note}</p>
      ) : (
        <fetcher.Form method="post" className="no-print mt-3 flex flex-wrap items-end gap-3">
          <input type="hidden" name="formKey" value={`${view.formKey}-over`} />
          <label className="min-w-60 flex-1">
            <span className="small-label mb-1 block">Note for the customer or the next painter</span>
            <input name="note" className="field" maxLength={400} />
          </label>
          <button className="press" data-kind="main">
            Hand over
          </button>
        </fetcher.Form>
      )}
      <details className="no-print mt-8">
        <summary className="min-h-11 cursor-pointer content-center font-semibold">The panel’s ledger, {log.length} entries</summary>
        <ul className="border-t border-hair text-sm">
          {log.map((e) => (
            <li key={e.id} className="flex gap-4 border-b border-hair py-1.5">
              <span className="w-28 shrink-0 text-ink2">{e.at}</span>
              <span className={e.superseded ? "line-through" : ""}>{e.kind === "handOver" ? "hand over" : e.kind}</span>
              <span className="text-ink2">
                {e.by}
                {e.simulated && ", simulated"}
                {e.superseded && ", taken out or corrected"}
              </span>
            </li>
          ))}
        </ul>
      </details>
    </article>
  );
}
