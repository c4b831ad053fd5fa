import { potLifeAt } from "../models/product/sheet";
import { airAt } from "./air-log";
import type { CoatsAsked } from "./coats-ahead";
import { airOf } from "./next-wait";

/** How long a pot mixed now lives, in the air as it was logged. @throws RangeError */
export const potLifeNow = ({ sheet, facts, now_ms }: Pick<CoatsAsked, "sheet" | "facts" | "now_ms">): number =>
  potLifeAt(sheet, airAt(airOf(facts), now_ms)).time_s;
