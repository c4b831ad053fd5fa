import { fromSi } from "./convert";
import { type Quantity, type UnitPreferences, preferredUnit, unitDef } from "./quantities";

export interface Shown {
  text: string;
  unit: string;
}

const MINUS = "−";
const fixed = (x: number, digits: number) => {
  const s = Math.abs(x).toFixed(digits);
  return x < 0 && Number(s) !== 0 ? MINUS + s : s;
};

/** A number in the shop's unit with a sensible count of decimals. Missing figures show as a dash, never as zero. */
export function show(quantity: Quantity, si: number | null | undefined, prefs: UnitPreferences, digits?: number): Shown {
  const unit = preferredUnit(quantity, prefs);
  if (si === null || si === undefined || !Number.isFinite(si)) return { text: "–", unit };
  return { text: fixed(fromSi(quantity, si, unit), digits ?? unitDef(quantity, unit).digits), unit };
}

/** ± means the same on every page and paper: 95 % (k = 2), said once at its foot. */
export const COVERAGE = 2;

/**
 * Value with its 95 % interval from a standard uncertainty, both rounded at the interval's first figure (two when it starts with 1).
 * @example showWithUncertainty("film", 50e-6, 2.1e-6, METRIC) // { text: "50 ± 4", unit: "µm" }
 */
export function showWithUncertainty(quantity: Quantity, si: number, u_si: number, prefs: UnitPreferences): Shown {
  const unit = preferredUnit(quantity, prefs);
  if (!Number.isFinite(si) || !Number.isFinite(u_si)) return show(quantity, si, prefs);
  const u = (COVERAGE * u_si) / unitDef(quantity, unit).scale;
  const digits = uncertaintyDigits(u);
  return { text: `${fixed(fromSi(quantity, si, unit), digits)} ± ${fixed(u, digits)}`, unit };
}

function uncertaintyDigits(u: number): number {
  if (!(u > 0)) return 0;
  const exponent = Math.floor(Math.log10(u));
  const leading = u / 10 ** exponent;
  return Math.max(0, -exponent + (leading < 1.95 ? 1 : 0));
}

/** A film in whole µm or tenths of a mil: as fine as a painter works. */
export function showFilm(si: number, prefs: UnitPreferences): Shown {
  return show("film", si, prefs, prefs.film === "µm" ? 0 : 1);
}

/** A chance in the words of the shop: "1 in 40". Rarer than 1 in 100 is never said: nothing has shown that it is. */
export function showChance(p: number): string {
  if (!Number.isFinite(p)) return "not known";
  if (p < 0.01) return "less than 1 in 100";
  if (p > 0.995) return "almost certain";
  if (p > 0.2) return `${Math.round(p * 100)} in 100`;
  const n = 1 / p;
  return `1 in ${n < 20 ? Math.round(n) : Math.round(n / 5) * 5}`;
}

/** A wait to plan with, no finer than minutes: "57 min", "6 h 15", "75 d". */
export function showWait(seconds: number): string {
  const minutes = Math.round(Math.max(0, seconds) / 60);
  return minutes < 60 ? `${minutes} min` : showSpan(minutes * 60);
}

/** Time of day, "14:05", of a moment counted from the shop's midnight; it goes round after a day. */
export function showTimeOfDay(seconds: number): string {
  const DAY_MIN = 1440;
  const minutes = ((Math.round(seconds / 60) % DAY_MIN) + DAY_MIN) % DAY_MIN;
  return `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
}

/** Clock text: "4:10" below an hour, "1 h 02" below two days, then days. Negative spans count up from zero. */
export function showSpan(seconds: number): string {
  const s = Math.max(0, Math.round(Math.abs(seconds)));
  if (s < 3600) return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
  if (s < 48 * 3600) return `${Math.floor(s / 3600)} h ${String(Math.floor((s % 3600) / 60)).padStart(2, "0")}`;
  return `${Math.floor(s / 86400)} d`;
}
