import { Check, Circle, CircleDot } from "lucide-react";
import { Link, useFetcher, useSearchParams } from "react-router";
import { MEND_CARDS, MEND_CARD_IDS, type MendCardId, type MendRun, type MendStep } from "#core/models/prep/mend-cards";
import { showSpan, showWait } from "#core/kernel/units/format";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { useNow } from "~/kit/shell/now";
import { FieldErrors } from "~/kit/ui/field";
import { InUnits } from "~/kit/ui/in-units";
import { Tag } from "~/kit/ui/tag";
import { mendSentence } from "./mend.words";

/** One card large, the others to choose from. */
export function MendDesk() {
  const { view } = usePanel();
  const now_ms = useNow();
  const [search] = useSearchParams();
  const { mends } = view.state;
  const asked = MEND_CARD_IDS.find((id) => id === search.get("card"));
  const running = mends.find((m) => m.step !== null) ?? null;
  const open = asked ?? running?.card ?? null;
  const run = open && (mends.find((m) => m.card === open) ?? null);
  const said = mendSentence(open, run, now_ms);
  return (
    <>
      <h2
        className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
        data-testid="mend-sentence"
        aria-live="polite"
      >
        {said.main} <em className="text-glow-ink not-italic">{said.rest}</em>
      </h2>
      <div className="mt-4 grid items-start gap-x-10 gap-y-8 lg:grid-cols-[1.4fr_1fr]">
        {open ? (
          <Card card={open} run={run} now_ms={now_ms} />
        ) : (
          <p className="max-w-[50ch] text-ink2">
            Most faults are smallest while they are wet. Choose what you see; the card says what to do, in which order, and how long to
            wait.
          </p>
        )}
        <nav aria-label="Cards">
          <ul className="border-t border-hair">
            {MEND_CARD_IDS.map((id) => {
              const own = mends.find((m) => m.card === id);
              return (
                <li key={id} className="border-b border-hair">
                  <Link
                    to={`?card=${id}`}
                    preventScrollReset
                    aria-current={id === open ? "true" : undefined}
                    className="flex min-h-14 items-center justify-between gap-3 py-1.5 aria-[current]:font-bold"
                  >
                    <span>
                      {MEND_CARDS[id].name}
                      {open === null && <span className="block text-[13px] font-normal text-ink2">{MEND_CARDS[id].when}</span>}
                    </span>
                    {own && <Tag kind={own.step ? "caution" : "good"}>{own.step ? "under way" : "done"}</Tag>}
                  </Link>
                </li>
              );
            })}
          </ul>
        </nav>
      </div>
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Common practice of the trade; the product&rsquo;s own sheet comes first. Supplied air, or what the safety data sheet and your local
        rules require; gloves for solvents.
      </p>
    </>
  );
}

const MARK = { done: Check, now: CircleDot, later: Circle } as const;

function Card({ card, run, now_ms }: { card: MendCardId; run: MendRun | null; now_ms: number }) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const { name, need, steps, ...rest }: { name: string; when: string; need: string; steps: readonly MendStep[]; caution?: string } =
    MEND_CARDS[card];
  const at = run?.step ? run.done : run ? steps.length : 0;
  const wait_s = run?.from_ms !== null && run?.from_ms !== undefined ? (run.from_ms - now_ms) / 1000 : 0;
  const send = (step: number) =>
    void fetcher.submit({ intent: "step", card, step: String(step), formKey: `${view.formKey}-mend-${card}-${step}` }, { method: "post" });
  const busy = fetcher.state !== "idle";
  return (
    <section aria-labelledby="card-title" data-testid="mend-card">
      <h3 id="card-title" className="text-xl font-semibold">
        {name}
      </h3>
      <p className="text-ink2">At hand: {need}.</p>
      {rest.caution && <p className="mt-1 font-medium text-amber-ink">{rest.caution}</p>}
      <ol className="mt-3 border-t border-hair" data-figures>
        {steps.map((s, i) => {
          const state = i < at ? "done" : i === at ? "now" : "later";
          const Icon = MARK[state];
          return (
            <li key={s.do} className="grid grid-cols-[24px_1fr] gap-x-3 border-b border-hair py-2.5" data-state={state}>
              <Icon size={18} aria-hidden className={state === "done" ? "text-glow-ink" : state === "now" ? "text-ink" : "text-ink2"} />
              <span className={state === "later" ? "text-ink2" : ""}>
                <span className="sr-only">{state}: </span>
                <span className={state === "now" ? "text-[18px] font-bold" : ""}>
                  <InUnits>{s.do}</InUnits>
                </span>
                <span className="block text-[13px] text-ink2">
                  {[
                    state === "now" ? s.why : "",
                    s.wait_s !== undefined ? `then ${showWait(s.wait_s)}` : "",
                    s.within_s !== undefined ? `within ${showWait(s.within_s)}` : "",
                  ]
                    .filter(Boolean)
                    .join("; ")}
                </span>
                {state === "now" && (
                  <span className="mt-2 flex flex-wrap items-center gap-3">
                    <button type="button" className="press" data-kind="main" disabled={busy || wait_s > 0} onClick={() => send(i)}>
                      {wait_s > 0 ? `Wait ${showSpan(wait_s)}` : "Done"}
                      <span className="sr-only">: {s.do}</span>
                    </button>
                    {wait_s > 0 && (
                      <button type="button" className="press" data-kind="quiet" disabled={busy} onClick={() => send(i)}>
                        Done all the same
                      </button>
                    )}
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      {run && !run.step && (
        <p className="mt-3">
          All done. Over mended places lay half a coat of clear first: they die back otherwise.{" "}
          <button type="button" className="press" data-kind="quiet" disabled={busy} onClick={() => send(0)}>
            Begin it again
          </button>
        </p>
      )}
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </section>
  );
}
