import { isSameDay, lightFormat, startOfDay } from "date-fns";

const MONTH = new Intl.DateTimeFormat("en-US", { month: "short" });

/** A day by its number and its month: "26 Nov". */
const dayText = (at_ms: number): string => `${lightFormat(at_ms, "d")} ${MONTH.format(at_ms)}`;

/** The same with its year. */
export const yearDayText = (at_ms: number): string => `${dayText(at_ms)} ${lightFormat(at_ms, "yyyy")}`;

/** With its hour. */
export const hourText = (at_ms: number): string => `${dayText(at_ms)} ${lightFormat(at_ms, "HH:mm")}`;

/** A time as it is told: today by its hour, else with its day. */
export const whenText = (at_ms: number, now_ms: number): string =>
  isSameDay(at_ms, now_ms) ? lightFormat(at_ms, "HH:mm") : hourText(at_ms);

/** A time on an axis, beside others: by its hour, midnight by the day that begins. */
export const tickText = (at_ms: number): string => (startOfDay(at_ms).getTime() === at_ms ? dayText(at_ms) : lightFormat(at_ms, "HH:mm"));

/** So many of something: “1 entry”, “3 entries”. */
export const counted = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;
