import type { ProductSheet } from "../product/sheet";
import { clearSummary } from "./clear-summary";
import { type PanelBrief, type PanelState, type ShopFilm, type Spot, derivePanel, thinsPanel } from "./derive-panel";
import { type LedgerEntry, livingEntries } from "./entry";
import { PHASES } from "./kinds";

/** Clear of a panel after one thing that was done to it. */
export interface FilmMoment {
  at_ms: number;
  kind: "coat" | "read" | "step";
  /** "Coat 2", "after sanding", "P1500 medium". */
  what: string;
  simulated: boolean;
  /** By the coats and the forecast of every step alone, as if nothing had been read. */
  predicted: { clear_m: number; u_m: number } | null;
  /** By the readings so far, less what was taken off since. */
  measured: { clear_m: number; u_m: number; how: NonNullable<Spot["clear"]>["how"]; spots: number } | null;
  /** The same at each spot. */
  spots: Record<string, NonNullable<Spot["clear"]>>;
}

/** Readings this close together are one visit. */
const VISIT_MS = 30 * 60_000;

/**
 * Film after every event of a panel, oldest first: the ledger replayed to each coat, visit with the gauge and step of the work.
 * What has been struck out or corrected is shown as it stands now.
 */
export function filmHistory(brief: PanelBrief, sheet: ProductSheet, ledger: readonly LedgerEntry[], shop?: ShopFilm): FilmMoment[] {
  const entries = livingEntries(ledger);
  const moments: FilmMoment[] = [];
  entries.forEach((entry, i) => {
    if (entry.kind !== "coat" && entry.kind !== "reading" && entry.kind !== "step") return;
    if (entry.kind === "reading" && entry.body.phase === "before") return;
    if (entry.kind === "reading" && continues(entry, entries.slice(i + 1))) return; // the visit goes on: its last reading stands for it
    const state = derivePanel(brief, sheet, entries.slice(0, i + 1), shop);
    moments.push({
      at_ms: entry.at_ms,
      kind: entry.kind === "reading" ? "read" : entry.kind,
      what: entry.kind === "coat" ? `Coat ${entry.body.number}` : entry.kind === "step" ? entry.body.name : PHASES[entry.body.phase],
      simulated: entry.simulated,
      predicted: predictedOf(state, entries.slice(0, i + 1)),
      measured: measuredOf(state),
      spots: Object.fromEntries(state.spots.flatMap((s) => (s.clear ? [[s.name, s.clear]] : []))),
    });
  });
  return moments;
}

/** Whether the next event of the panel is another reading of the same visit. */
function continues(entry: LedgerEntry & { kind: "reading" }, rest: readonly LedgerEntry[]): boolean {
  const next = rest.find((e) => e.kind === "coat" || e.kind === "reading" || e.kind === "step");
  return next?.kind === "reading" && next.body.phase === entry.body.phase && next.at_ms - entry.at_ms < VISIT_MS;
}

function predictedOf(state: PanelState, entries: readonly LedgerEntry[]): FilmMoment["predicted"] {
  if (!state.predictedClear) return null;
  const steps = entries.flatMap((e) => (e.kind === "step" && thinsPanel(e) ? [e] : []));
  return {
    clear_m: state.predictedClear.clear_m - steps.reduce((a, s) => a + s.body.removal_m, 0),
    u_m: Math.hypot(state.predictedClear.u_m, ...steps.map((s) => s.body.u_m)),
  };
}

function measuredOf(state: PanelState): FilmMoment["measured"] {
  const summary = clearSummary(state);
  if (!summary) return null;
  const ways = state.spots.flatMap((s) => (s.clear ? [s.clear.how] : []));
  const how = summary.inferred ? "inferred" : ways.includes("measured less removal") ? "measured less removal" : "measured";
  return { clear_m: summary.mean_m, u_m: summary.u_spot_m, how, spots: summary.count };
}
