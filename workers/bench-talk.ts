import type { BenchSetting } from "#core/practice/bench-setting";
import type { Debrief } from "#core/practice/debrief";
import type { Fibre } from "#core/practice/fibre";
import type { CoatOfHand } from "#core/practice/hand";
import type { Nib } from "#core/practice/job/cured";
import type { JobJudged, JobSaid } from "#core/practice/job/judged";
import type { JobTool } from "#core/practice/job/sanding";
import type { PlaceOnPanel } from "#core/models/panel-film/over-part";
import type { Touch } from "#core/practice/touch";
import type { Look } from "#core/models/panel-film/seen";

/** Moments of a hand, five figures each: time, place, distance, trigger. */
export const MOMENT = 5;

/** What the page says to the worker that has the bench. */
export type ToBench =
  | { say: "take"; setting: BenchSetting; laid: number; look: Look; coats: readonly CoatOfHand[]; goesOn: boolean; unseen: boolean }
  | { say: "coat"; coat: Pick<CoatOfHand, "gun" | "reducer" | "turned"> }
  /** So the gun went since the last time; a picture is wanted where the last one has come. */
  | { say: "hand"; moments: Float64Array; picture: boolean }
  | { say: "on" }
  /** Time goes by; what falls on the coat meanwhile is by chance of a seed. */
  | { say: "wait"; most_s: number; seed: number }
  | { say: "lift" }
  | { say: "stop" }
  | { say: "look"; look: Look }
  | { say: "debrief"; look: Look }
  | ToJob;
/** What a panel that goes hard is asked: dust and gauge by chance of a seed; a reading, some sanding, and what is said of it against what is true. */
export type ToJob =
  | { say: "harden"; seed: number }
  | { say: "read"; at: PlaceOnPanel }
  | { say: "sand"; tool: JobTool; at: PlaceOnPanel; seconds: number }
  | { say: "judge"; said: JobSaid; floor_m: number; look: Look };

/** The film below the gun, or where it was last. */
export interface FilmHere {
  /** What has set, and what moves, wet. */
  fixed_m: number;
  mobile_m: number;
}

/** A fibre that fell on a coat, and what became of it. */
export interface FibreTold {
  coat: number;
  falls_s: number;
  height_m: number;
  /** The pit that it would have left as soon as it fell, dry. */
  best_m: number;
  /** Null: it was left. */
  lifted: { after_s: number; pit_m: number } | null;
}

export interface BenchSeen {
  bitmap: ImageBitmap;
  /** Material used, and how far anything has slid. */
  used_m3: number;
  slid_m: number;
  /** A finger on the tape beside the newest coat. */
  touch: Touch | null;
  here: FilmHere;
}

/** What the worker says to the page. */
export type FromBench =
  | ({ say: "seen" } & BenchSeen)
  | { say: "ready" }
  | { say: "waited"; seconds: number; rests: boolean; lies: Fibre | null }
  | { say: "lifted"; told: FibreTold | null }
  | { say: "working"; share: number }
  | { say: "debriefed"; debrief: Debrief; coats: CoatOfHand[]; fibres: FibreTold[]; film: ImageBitmap }
  | FromJob
  | { say: "failed"; message: string };
export type FromJob =
  | { say: "hard"; nibs: readonly Nib[] }
  /** Null beside the part. */
  | { say: "reading"; at: PlaceOnPanel; film_m: number | null }
  /** The nibs that still stand out. */
  | { say: "sanded"; nibs: readonly Nib[]; seconds: number }
  | { say: "judged"; judged: JobJudged; debrief: Debrief; coats: CoatOfHand[]; film: ImageBitmap; belief: ImageBitmap | null };
