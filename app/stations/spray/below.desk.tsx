import { baseLaid_ms } from "#core/panel/base-laid";
import { noGaugeReads } from "#core/panel/brief";
import { showWait } from "#core/kernel/units/format";
import { BASE_OPEN_S, omissions } from "#core/models/prep/under-clear";
import { usePanel } from "~/kit/panel/use-panel";
import { useNow } from "~/kit/shell/now";
import type { Route } from "./+types/below.route";
import { BelowSteps } from "./below-steps";
import { ITSELF } from "~/kit/words/through-words";
import { chainWords } from "./below.words";
import { LayersDesk } from "./layers.desk";
import { SprayTabs } from "./tabs";

const MS = 1000;

/** What lies below the clear, step by step, because it sets the clear's ceiling. */
export function BelowDesk({ loaderData: { chain, layers, products } }: Pick<Route.ComponentProps, "loaderData">) {
  const { view, base } = usePanel();
  const now_ms = useNow();
  const log = view.state.under;
  const missing = omissions(
    log.map((u) => u.body),
    { plastic: noGaugeReads(view.panel.substrate), coloured: view.state.coloured },
  );
  const baseAt_ms = baseLaid_ms(view.state);
  const age_s = baseAt_ms === null ? null : (now_ms - baseAt_ms) / MS;
  const started = view.state.coats.length > 0;
  return (
    <>
      <SprayTabs base={base} />
      <h2
        className="min-h-[2.24em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
        data-testid="below-sentence"
      >
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
      {view.state.coloured && <p className="mt-2 max-w-[70ch] text-ink2">{ITSELF}</p>}
      <LayersDesk layers={layers} products={products} />
      <BelowSteps />
      {age_s !== null && age_s <= BASE_OPEN_S && (
        <p className="mt-3 text-ink2">Base {showWait(age_s)} old; common practice scuffs after 24 h. Its own sheet comes first.</p>
      )}
      <p className="mt-6 max-w-[75ch] text-[13px] text-ink2">
        Gloves for solvents, eye protection, ventilation. Films typed here are the painter&rsquo;s word; where none is typed a usual film
        stands in the section and is called inferred. Readings before clear settle it.
      </p>
    </>
  );
}
