import { inRange } from "../kernel/guard";
import type { ProductSheet } from "../models/product/sheet";
import type { HouseWay } from "../models/ways/way";
import { volumeOfCoat } from "../models/ways/way-volumes";
import type { BodyOf } from "../record/bodies";
import type { EntryOf } from "../record/entry";
import type { PanelBrief } from "./brief";

/** One pot over all it was for: what is in it, how long it lives, and which coats came out of it. */
export interface PotState {
  entry: EntryOf<"mix">;
  until_ms: number;
  /** Coats of this panel and of others, oldest first; null: how much is not known. */
  taken: { coatId: string; panelId: string; number: number; at_ms: number; volume_m3: number | null }[];
  /** What should be left: the pot less what is known to have gone through the gun. */
  left_m3: number;
}

/**
 * Pots with their coats. A coat that names none, or one that was put right since, came out of the newest pot that lived when it was sprayed; one that
 * names a pot of something else, or on another panel one that does not serve this, came out of that.
 * @param others pots of other products @param volumeOf what a coat took; null: nobody knows
 */
export function potsOf(
  mixes: readonly EntryOf<"mix">[],
  coats: readonly EntryOf<"coat">[],
  {
    others = [],
    volumeOf = (c) => c.body.volume_m3,
  }: { others?: readonly EntryOf<"mix">[]; volumeOf?: (coat: EntryOf<"coat">) => number | null } = {},
): PotState[] {
  const elsewhere = new Set<string | null>(others.map((m) => m.id));
  const untilOf = (m: EntryOf<"mix">) => m.at_ms + 1000 * m.body.potLife_s;
  const named = new Set(mixes.flatMap((m) => [m.id, m.supersedes]));
  const potOf = (c: EntryOf<"coat">) => {
    if (c.elsewhere && c.body.potId !== null && !named.has(c.body.potId)) return undefined;
    return mixes.find((m) => m.id === c.body.potId) ?? mixes.findLast((m) => m.at_ms <= c.at_ms && c.at_ms <= untilOf(m));
  };
  return mixes.map((entry) => {
    const taken = coats
      .filter((c) => !elsewhere.has(c.body.potId) && potOf(c) === entry)
      .map((c) => ({ coatId: c.id, panelId: c.panelId, number: c.body.number, at_ms: c.at_ms, volume_m3: volumeOf(c) }));
    const left_m3 = Math.max(0, entry.body.volume_m3 - taken.reduce((a, t) => a + (t.volume_m3 ?? 0), 0));
    return { entry, until_ms: untilOf(entry), taken, left_m3 };
  });
}

/** The newest pot that still lives and has something in it; null: none. */
export const potInHand = (pots: readonly PotState[], now_ms: number): PotState | null =>
  pots.findLast((p) => p.until_ms > now_ms && p.left_m3 > 0) ?? null;

/**
 * What is known of a coat's pot when it is logged: the one that lives, and what the coat takes by its strokes; nothing where no pot lives, its settings
 * are not told, or the strokes are beyond sense.
 */
export const outOfPot = (
  pots: readonly PotState[],
  now_ms: number,
  { brief, way, sprayed }: { brief: Pick<PanelBrief, "shape" | "rows">; way: Pick<HouseWay, "trigger">; sprayed: CoatSprayed | null },
): { potId: string | null; volume_m3: number | null } => ({
  potId: potInHand(pots, now_ms)?.entry.id ?? null,
  volume_m3: sprayed && sprayedVolume(brief, way, sprayed),
});

/** Whether a pot is of this product: those of an older version do not say, and are of the panel's own. */
export const isOf = ({ body }: EntryOf<"mix">, sheet: Pick<ProductSheet, "name">): boolean =>
  body.product === "" || body.product === sheet.name;

/** More than any coat takes: beyond it the strokes were no strokes. */
const MOST_COAT_M3 = 0.1;

/** What of a coat its volume is told from. */
export type CoatSprayed = Pick<BodyOf<"coat">, "settings" | "zone" | "number">;

/** What a coat takes out of its pot by its strokes over the part; null where the settings are beyond sense. */
export function sprayedVolume(
  { shape, rows }: Pick<PanelBrief, "shape" | "rows">,
  { trigger }: Pick<HouseWay, "trigger">,
  { settings, zone, number }: CoatSprayed,
): number | null {
  const volume_m3 = inRange(() => volumeOfCoat(shape.outline, settings, { zone, trigger, rows, number }).volume_m3);
  return volume_m3 !== null && volume_m3 <= MOST_COAT_M3 ? volume_m3 : null;
}
