import { parseQuantity } from "#core/kernel/units/parse";
import { type Quantity, type UnitPreferences, preferredUnit } from "#core/kernel/units/quantities";
import { initial } from "~/kit/form/initial";
import { type OutlivingStorage, outliving } from "./outliving";

/** A row of a list that is typed, by field. */
export type RowValue = Record<string, string | boolean>;
/** What a field holds: text, a tick, the ticked ones of a group, or rows. */
export type FieldValue = string | boolean | readonly string[] | readonly RowValue[];
/** The quantity of a field whose unit stands beside it; of rows, by their fields. */
export type FieldQuantity = Quantity | Readonly<Record<string, Quantity>>;
/** A field as somebody left it: the very text, and the units in which it was typed. */
export interface KeptField {
  value: FieldValue;
  units?: UnitPreferences | undefined;
  quantity?: FieldQuantity | undefined;
}
export type Kept = Record<string, KeptField>;
/** Whether a field was left the same: what is read again from the tab's storage is the same as what was put there. */
export const sameField = (a: KeptField | undefined, b: KeptField): boolean => JSON.stringify(a) === JSON.stringify(b);
/** Beside the fields: the version of what they were filled in on, from the first touch until it is stored. */
const FILLED_IN_ON = "filled in on";
export const filledInOn = (kept: Kept): string | undefined => {
  const value = kept[FILLED_IN_ON]?.value;
  return typeof value === "string" ? value : undefined;
};
/** Fields that were filled in on a version: the first one stays. */
export const onVersion = (kept: Kept, version: string | undefined): Kept =>
  version === undefined || FILLED_IN_ON in kept ? kept : { ...kept, [FILLED_IN_ON]: { value: version } };
/** The same fields upon what stands there now. */
export const uponVersion = (kept: Kept, version: string): Kept => ({ ...kept, [FILLED_IN_ON]: { value: version } });
/** Fields that somebody has touched. */
export const touched = (kept: Kept): [string, KeptField][] => Object.entries(kept).filter(([name]) => name !== FILLED_IN_ON);
/** Where half-typed forms wait: the browser's session storage, or a test's. */
export type DraftStorage = Pick<Storage, "getItem" | "setItem" | "removeItem">;

const PREFIX = "half-typed ";

/** One text from a unit into another; what is no number, or names its unit itself, stays as it was typed. Several figures may stand in it. */
function converted(text: string, quantity: Quantity, from: string, units: UnitPreferences): string {
  if (preferredUnit(quantity, units) === from || !/^[\s\d.,+-]+$/.test(text)) return text;
  return text
    .split(/(\s+)(?=[\d+-])/)
    .map((piece) => {
      const parsed = parseQuantity(quantity, piece, from);
      return parsed.ok ? initial(quantity, parsed.si, units) : piece;
    })
    .join("");
}

/** A field's value in the units now shown. */
export function shownIn({ value, units: typedIn, quantity }: KeptField, units: UnitPreferences): FieldValue {
  if (quantity === undefined || typedIn === undefined) return value;
  if (typeof quantity === "string")
    return typeof value === "string" ? converted(value, quantity, preferredUnit(quantity, typedIn), units) : value;
  if (!Array.isArray(value)) return value;
  return (value as readonly RowValue[]).map((row) =>
    Object.fromEntries(
      Object.entries(row).map(([name, cell]) => {
        const of = quantity[name];
        return [name, of && typeof cell === "string" ? converted(cell, of, preferredUnit(of, typedIn), units) : cell];
      }),
    ),
  );
}

/** What waits under a key; nothing where there is nothing, or nothing of ours. */
export function readKept(storage: DraftStorage | null, key: string): Kept {
  let found: unknown;
  try {
    found = JSON.parse(storage?.getItem(PREFIX + key) ?? "{}");
  } catch {
    return {};
  }
  if (typeof found !== "object" || found === null || Array.isArray(found)) return {};
  return Object.fromEntries(
    Object.entries(found as Record<string, unknown>).filter(
      (e): e is [string, KeptField] => typeof e[1] === "object" && e[1] !== null && "value" in e[1],
    ),
  );
}

/** Keeps what is typed, or forgets it when nothing is. @returns false where the browser keeps nothing */
export function writeKept(storage: DraftStorage | null, key: string, kept: Kept): boolean {
  if (!storage) return false;
  try {
    if (Object.keys(kept).length > 0) storage.setItem(PREFIX + key, JSON.stringify(kept));
    else storage.removeItem(PREFIX + key);
    return true;
  } catch {
    return false;
  }
}

let ofTab: OutlivingStorage | null = null;
/** The storage of this tab; null on the server and where it is switched off. */
export function tabStorage(): OutlivingStorage | null {
  try {
    if (typeof window !== "undefined") ofTab ??= outliving(window.sessionStorage, window.localStorage, window);
    return ofTab;
  } catch {
    return null;
  }
}

/** Calls once what a tab that was just closed left under a key is there to be read. @returns what ends the waiting */
export const awaitKept = (key: string, come: () => void): (() => void) | undefined => tabStorage()?.awaits(PREFIX + key, come);
