import { format, isSameDay } from "date-fns";

/** A time as it is told: today by its hour, else with its day. */
export const whenText = (at_ms: number, now_ms: number): string => format(at_ms, isSameDay(at_ms, now_ms) ? "HH:mm" : "d MMM HH:mm");
