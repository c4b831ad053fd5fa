import { acting } from "~/kit/form/in-words.server";
import { KeptForm } from "~/kit/draft/draft-form";
import { useEffect, useState } from "react";
import { data, useFetcher } from "react-router";
import { noGaugeReads } from "#core/panel/brief";
import { inRange } from "#core/kernel/guard";
import { type GritChain, gritChain } from "#core/models/prep/grit-chain";
import { BASE_OPEN_S, UNDER_STEPS, USUAL_FILM_M, type UnderField, omissions, underSteps } from "#core/models/prep/under-clear";
import { show, showFilm, showWait } from "#core/kernel/units/format";
import { recordEntry } from "#server/commands/record-entry";
import { serverContext } from "#server/running";
import { answerForm, textOf } from "~/kit/form/answer";
import { baseLaid_ms } from "#core/panel/base-laid";
import { COLOUR_COATS } from "#core/models/prep/colour-coats";
import { colourWait } from "#core/course/colour-wait";
import { coatVolumes } from "#core/models/ways/way-volumes";
import { nextAsked } from "#core/coat/asked";
import { handGun } from "#core/coat/next-coat";
import { panelOr404 } from "~/kit/http/panel.server";
import { ColourLog, type ColourReckoned } from "./colour-log";
import { colourForm, underForm } from "./prep.form";
import { guardedAction } from "~/kit/form/guarded-action";
import { formPrefs } from "~/kit/http/prefs.server";
import { useUnits } from "~/kit/root/use-root";
import { SprayTabs } from "./tabs";
import { useNow } from "~/kit/shell/now";
import { Field, FieldErrors } from "~/kit/ui/field";
import { StrikeButton } from "~/kit/shell/strike-button";
import { Tag } from "~/kit/ui/tag";
import { formOf } from "~/kit/http/body.server";
import type { Route } from "./+types/below.route";
import { usePanel } from "~/kit/panel/use-panel";
import { InUnits } from "~/kit/ui/in-units";

const MS = 1000;

/** Whether the papers below the base follow each other, by the rule of the correction ladder. */
function chainWords({ steps, fault, last }: GritChain, wanted: number): string {
  const papers = steps.map((s) => `P${s.grit}`).join(" → ");
  if (fault?.what === "coarser")
    return `${papers}: P${fault.to} after P${fault.from} goes back to a coarser paper; finish again from there.`;
  if (fault) return `${papers}: P${fault.to} wants ${fault.passes} passes to clear P${fault.from}; one between is quicker, and surer.`;
  const short = last < wanted ? ` This way wants P${wanted} below the base.` : "";
  return `${papers}: each clears the one before.${short}`;
}

export const action = acting(async ({ request, params: { panelId } }: Route.ActionArgs) => {
  const ctx = await serverContext();
  const form = await formOf(request);
  const { units, by } = await formPrefs(request, form);
  if (textOf(form, "intent") === "colour")
    return answerForm(form, colourForm, async ({ coat }) => ({
      entryId: await recordEntry(ctx, { panelId, kind: "colourCoat", body: { coat }, by, clientKey: textOf(form, "formKey") || null }),
      message: `${COLOUR_COATS[coat].name}: logged, its flash runs`,
    }));
  if (textOf(form, "intent") !== "under") throw data("Not understood", { status: 400 });
  return answerForm(form, underForm(units), async (body) => ({
    entryId: await recordEntry(ctx, { panelId, kind: "under", body, by }),
    message: `${UNDER_STEPS.find((s) => s.id === body.step)!.name}: logged`,
  }));
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => guardedAction(serverAction);

export async function loader({ params: { jobId, panelId } }: Route.LoaderArgs): Promise<ColourReckoned & { chain: GritChain | null }> {
  const view = await panelOr404(await serverContext(), jobId, panelId);
  const { state, panel, job } = view;
  const wait = colourWait(state);
  const [one] = coatVolumes(job.way, { outline: panel.shape.outline, gun: handGun(nextAsked(view)).settings, coats: 1 });
  return {
    wait: wait && { colour_ms: wait.colour_ms, clear_ms: wait.clear_ms },
    coat_m3: one!.volume_m3,
    chain: inRange(() => gritChain(papersOf(state.under))) ?? null,
  };
}

/** Papers that were sanded with below the base, in their order. */
const papersOf = (log: readonly { body: { step: string; grit: number | null } }[]): number[] =>
  log.flatMap((u) => (u.body.step === "sand" && u.body.grit !== null ? [u.body.grit] : []));

/** What lies below the clear, step by step, because it sets the clear's ceiling. */
export default function Below({ loaderData: { chain, ...colour } }: Route.ComponentProps) {
  const { view, base } = usePanel();
  const units = useUnits();
  const now_ms = useNow();
  const log = view.state.under;
  const [open, setOpen] = useState<string | null>(null);
  const plastic = noGaugeReads(view.panel.substrate);
  const missing = omissions(
    log.map((u) => u.body),
    plastic,
  );
  const baseAt_ms = baseLaid_ms(view.state);
  const age_s = baseAt_ms === null ? null : (now_ms - baseAt_ms) / MS;
  const started = view.state.coats.length > 0;
  return (
    <>
      <SprayTabs base={base} />
      <h2 className="min-h-[2.24em] max-w-[26em] text-[31px] leading-[1.12] font-semibold tracking-tight" data-testid="below-sentence">
        {age_s !== null && age_s > BASE_OPEN_S ? (
          <>
            The base is {showWait(age_s)} old. <em className="text-amber-ink not-italic">Scuff it, or see its sheet, before clear.</em>
          </>
        ) : missing.length === 0 ? (
          <>
            What lies below is logged. <em className="text-glow-ink not-italic">Clear can be as smooth as that.</em>
          </>
        ) : (
          <>
            Clear is never smoother than what is below it.{" "}
            <em className="text-amber-ink not-italic">Not logged: {missing.map((m) => m.name.toLowerCase()).join(", ")}.</em>
          </>
        )}
      </h2>
      {started && missing.length > 0 && (
        <p className="mt-1 max-w-[70ch] text-ink2">
          Clear is on. What is not logged here counts as not known when a fault is traced later, not as left out.
        </p>
      )}
      {chain && (
        <p className={`mt-2 max-w-[70ch] ${chain.fault ? "font-medium text-amber-ink" : "text-ink2"}`} data-testid="grit-chain">
          {chainWords(chain, view.job.way.lastPaper)}
        </p>
      )}
      <ColourLog {...colour} />
      <ul className="mt-6 border-t border-hair">
        {underSteps(plastic).map((s) => {
          const entries = log.filter((u) => u.body.step === s.id);
          return (
            <li key={s.id} className="border-b border-hair py-2" data-testid={`under-${s.id}`}>
              <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1">
                <div className="min-w-0 flex-1 basis-72">
                  <b className="font-semibold">{s.name}</b>{" "}
                  <span className="text-ink2">
                    <InUnits>{s.id === "sand" ? s.ask.replace("the way's last paper", `P${view.job.way.lastPaper}`) : s.ask}</InUnits>
                  </span>
                  <span className="block text-[13px] text-ink2">Why: {s.why}.</span>
                </div>
                {entries.map((e) => (
                  <span key={e.id} className="flex items-center gap-2">
                    <Tag kind="good">{summary(e.body)}</Tag>
                    <StrikeButton entryId={e.id} what={s.name.toLowerCase()} />
                  </span>
                ))}
                <button type="button" className="press" aria-expanded={open === s.id} onClick={() => setOpen(open === s.id ? null : s.id)}>
                  {entries.length > 0 ? "Once more" : "Log it"}
                  <span className="sr-only"> {s.name}</span>
                </button>
              </div>
              {open === s.id && <StepForm step={s} onDone={() => setOpen(null)} />}
            </li>
          );
        })}
      </ul>
      {age_s !== null && age_s <= BASE_OPEN_S && (
        <p className="mt-3 text-ink2">Base {showWait(age_s)} old; common practice scuffs after 24 h. Its own sheet comes first.</p>
      )}
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Gloves for solvents, eye protection, ventilation. Films typed here are the painter&rsquo;s word; where none is typed a usual film
        stands in the section and is called inferred. Readings before clear settle it.
      </p>
    </>
  );

  function summary(b: (typeof log)[number]["body"]): string {
    const parts = [
      b.grit !== null ? `P${b.grit}` : null,
      b.coats !== null ? `${b.coats} coats` : null,
      b.film_m !== null ? `${showFilm(b.film_m, units).text} ${units.film}` : null,
      b.pressure_Pa !== null ? `${show("pressure", b.pressure_Pa, units).text} ${units.pressure}` : null,
      b.reach_m !== null ? `${show("length", b.reach_m, units).text} ${units.length}` : null,
      b.note || null,
    ].filter(Boolean);
    return parts.length > 0 ? parts.join(", ") : "done";
  }
}

function StepForm({ step, onDone }: { step: (typeof UNDER_STEPS)[number]; onDone: () => void }) {
  const units = useUnits();
  const fetcher = useFetcher<typeof action>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const done = fetcher.state === "idle" && fetcher.data?.ok === true;
  useEffect(() => {
    if (done) onDone();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the answer has come
  }, [done]);
  const asks: readonly UnderField[] = step.asks;
  const usual = USUAL_FILM_M[step.id];
  const fields: Record<UnderField, { label: string; unit?: string; hint?: string }> = {
    grit: { label: "Last grit", hint: "P number" },
    coats: { label: "Coats" },
    film: { label: "Film in all", unit: units.film, ...(usual ? { hint: `empty: usual ${showFilm(usual[0], units).text}` } : {}) },
    pressure: { label: "Pressure", unit: units.pressure },
    reach: { label: step.id === "strip" ? "Beyond the edge" : "Blend reach", unit: units.length },
  };
  return (
    <KeptForm fetcher={fetcher} place={`below ${step.id}`} className="mt-2 flex flex-wrap items-start gap-3">
      <input type="hidden" name="intent" value="under" />
      <input type="hidden" name="step" value={step.id} />
      {asks.map((a) => (
        <Field key={a} className="w-36" inputMode="decimal" name={a} errors={errors[a]} {...fields[a]} />
      ))}
      <Field className="min-w-48 flex-1" label="Note" name="note" errors={errors.note} />
      <button className="press sm:mt-[23px]" data-kind="main" disabled={fetcher.state !== "idle"}>
        Done
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}
