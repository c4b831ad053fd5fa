import { potLifeAt } from "../models/product/sheet";
import type { CoatsAsked } from "./coats-ahead";
import { airNow } from "./next-wait";

/** How long a pot mixed now lives, in the air as it was logged. @throws RangeError */
export const potLifeNow = (asked: Pick<CoatsAsked, "sheet" | "facts" | "now_ms">): number => potLifeAt(asked.sheet, airNow(asked)).time_s;
