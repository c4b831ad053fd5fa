import { panelShape } from "../../kernel/geometry/shapes";
import { houseWay } from "../../models/ways/house-ways";
import type { HouseWay } from "../../models/ways/way";
import type { PanelBrief, Substrate } from "../../panel/brief";
import { derivePanel } from "../../panel/derive-panel";
import { TEST_SHEET, testLedger } from "../../panel/testing/test-ledger";
import type { CoatsAsked } from "../coats-ahead";

export type TestLedger = ReturnType<typeof testLedger>;

const door = panelShape("door", { width_m: 1.1, height_m: 0.75 });
const MINUTE_MS = 60_000;

interface Asking {
  way: HouseWay;
  coats: number;
  sides: 1 | 2;
  tilt_rad: number;
  substrate: Substrate;
  shape: PanelBrief["shape"];
  sheet: typeof TEST_SHEET;
  start: CoatsAsked["start"];
  /** So long after the ledger's newest entry it is looked at. */
  later_min: number;
}

/** For tests: a door with a ledger of one's own, as its coats are asked for. */
export function askedOf(fill: (l: TestLedger) => void = () => undefined, o: Partial<Asking> = {}): CoatsAsked {
  const {
    way = houseWay("two-full"),
    coats = 2,
    sides = 1,
    tilt_rad = Math.PI / 2,
    substrate = "refinish",
    shape = door,
    sheet = TEST_SHEET,
  } = o;
  const l = testLedger();
  fill(l);
  const brief: PanelBrief = { shape, tilt_rad, substrate, coatsPlanned: coats, sides };
  const now_ms = (l.entries.at(-1)?.at_ms ?? 0) + (o.later_min ?? 1) * MINUTE_MS;
  return { brief, sheet, way, facts: derivePanel(brief, sheet, l.entries), now_ms, ...(o.start ? { start: o.start } : {}) };
}
