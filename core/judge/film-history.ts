import { inRange } from "../kernel/guard";
import type { PanelBrief } from "../panel/brief";
import type { ProductSheet } from "../models/product/sheet";
import type { ShopFilm } from "../panel/shop-film";
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

/** Moments told before, by what of the ledger they stand on. */
export interface KeptMoments {
  get(upTo: string): FilmMoment | undefined;
  set(upTo: string, moment: FilmMoment): void;
}

/**
 * Film after every event of a panel, oldest first: the ledger replayed to each coat, visit with the gauge and step of the work.
 * What has been struck out or corrected is shown as it stands now.
 * @param kept moments of this very panel, sheet and shop: one whose ledger up to then has not changed is not worked out again
 */
export function filmHistory(
  brief: PanelBrief,
  sheet: ProductSheet,
  ledger: readonly LedgerEntry[],
  shop?: ShopFilm,
  kept: KeptMoments = new Map(),
): FilmMoment[] {
  const all = livingEntries(ledger);
  const entries = ownEntries(all);
  const upTo = upToEach(all);
  const moments: FilmMoment[] = [];
  entries.forEach((entry, i) => {
    if (!movesFilm(entry)) return;
    if (entry.kind === "reading" && entry.body.phase === "before") return;
    if (entry.kind === "reading" && continues(entry, entries.slice(i + 1))) return; // the visit goes on: its last reading stands for it
    const known = kept.get(upTo.get(entry)!);
    if (known) return void moments.push(known);
    // What can be worked out now may not have been then: a reading that was put right by the next one. The event is told without a figure.
    const state = inRange(() =>
      accountPanel(
        brief,
        sheet,
        all.filter((e) => e.seq <= entry.seq),
        shop,
      ),
    );
    const moment: FilmMoment = {
      at_ms: entry.at_ms,
      kind: entry.kind === "reading" ? "read" : entry.kind === "coat" ? "coat" : "step",
      what: momentName(entry),
      simulated: entry.simulated,
      predicted: state?.expectedClear ?? null,
      measured: state && measuredOf(state),
      spots: Object.fromEntries((state?.spots ?? []).flatMap((s) => (s.clear ? [[s.name, s.clear]] : []))),
    };
    kept.set(upTo.get(entry)!, moment);
    moments.push(moment);
  });
  return moments;
}

/** What a ledger is up to each of its entries, told from any other: two running sums over the ids, whose bodies never change, and their places. */
function upToEach(entries: readonly LedgerEntry[]): Map<LedgerEntry, string> {
  const told = new Map<LedgerEntry, string>();
  let [a, b] = [5381, 52711];
  entries.forEach((entry, n) => {
    for (const letter of `${entry.id} ${entry.seq} `) {
      const code = letter.charCodeAt(0);
      a = (Math.imul(a, 33) ^ code) >>> 0;
      b = (Math.imul(b, 31) + code) >>> 0;
    }
    told.set(entry, `${n} ${entry.id} ${a} ${b}`);
  });
  return told;
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
