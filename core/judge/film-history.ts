import type { PanelBrief } from "../panel/brief";
import type { ProductSheet } from "../models/product/sheet";
import type { ShopFilm } from "../panel/builds";
import { type LedgerEntry, ownEntries } from "../record/entry";
import { PHASES } from "../record/kinds";
import { livingEntries } from "../record/timeline";
import { type PanelState, accountPanel } from "./account";
import type { HowKnown } from "./how-known";

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
  measured: { clear_m: number; u_m: number; how: HowKnown; spots: number } | null;
  /** The same at each spot. */
  spots: Record<string, NonNullable<PanelState["spots"][number]["clear"]>>;
}

/** Readings this close together are one visit. */
const VISIT_MS = 30 * 60_000;

/**
 * Film after every event of a panel, oldest first: the ledger replayed to each coat, visit with the gauge and step of the work.
 * What has been struck out or corrected is shown as it stands now.
 */
export function filmHistory(brief: PanelBrief, sheet: ProductSheet, ledger: readonly LedgerEntry[], shop?: ShopFilm): FilmMoment[] {
  const all = livingEntries(ledger);
  const entries = ownEntries(all);
  const moments: FilmMoment[] = [];
  entries.forEach((entry, i) => {
    if (!movesFilm(entry)) return;
    if (entry.kind === "reading" && entry.body.phase === "before") return;
    if (entry.kind === "reading" && continues(entry, entries.slice(i + 1))) return; // the visit goes on: its last reading stands for it
    const state = accountPanel(
      brief,
      sheet,
      all.filter((e) => e.seq <= entry.seq),
      shop,
    );
    moments.push({
      at_ms: entry.at_ms,
      kind: entry.kind === "reading" ? "read" : entry.kind === "coat" ? "coat" : "step",
      what: momentName(entry),
      simulated: entry.simulated,
      predicted: state.expectedClear,
      measured: measuredOf(state),
      spots: Object.fromEntries(state.spots.flatMap((s) => (s.clear ? [[s.name, s.clear]] : []))),
    });
  });
  return moments;
}

/** Whether the next event of the panel is another reading of the same visit. */
function continues(entry: LedgerEntry & { kind: "reading" }, rest: readonly LedgerEntry[]): boolean {
  const next = rest.find(movesFilm);
  return next?.kind === "reading" && next.body.phase === entry.body.phase && next.at_ms - entry.at_ms < VISIT_MS;
}

function measuredOf({ film }: PanelState): FilmMoment["measured"] {
  return film.mean && film.how ? { clear_m: film.mean.clear_m, u_m: film.mean.u_m, how: film.how, spots: film.spots } : null;
}

type FilmEntry = LedgerEntry & { kind: "coat" | "reading" | "step" | "flatten" };

/** What lays film, takes some off, or reads it. */
const movesFilm = (e: LedgerEntry): e is FilmEntry =>
  e.kind === "coat" || e.kind === "reading" || e.kind === "step" || e.kind === "flatten";

function momentName(e: FilmEntry): string {
  switch (e.kind) {
    case "coat":
      return `Coat ${e.body.number}${e.body.side === "back" ? ", back" : ""}`;
    case "step":
      return e.body.name;
    case "flatten":
      return `Sanded flat, P${e.body.grit}`;
    default:
      return PHASES[e.body.phase];
  }
}
