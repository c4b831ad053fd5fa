import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { type Path, type PathValue, useForm } from "react-hook-form";
import { useLocation } from "react-router";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { useUnits } from "~/kit/root/use-root";
import { useBeforePaint } from "~/kit/root/before-paint";
import {
  type FieldQuantity,
  type FieldValue,
  type Kept,
  awaitKept,
  filledInOn,
  onVersion,
  readKept,
  sameField,
  shownIn,
  tabStorage,
  touched,
  uponVersion,
  writeKept,
} from "./kept";

export type Values = Record<string, FieldValue>;
/** What a field that begins so may become: any text, either tick, any list. */
type Wide<T> = T extends string ? string : T extends boolean ? boolean : T extends readonly (infer R)[] ? readonly R[] : T;
export type Widened<S> = { [K in keyof S]: Wide<S[K]> };

/** A form as somebody types it: kept for this tab until it is stored. */
export interface Draft<V extends Values = Values> {
  /** Every field as it is now; the same object as long as nothing else is typed. */
  typed: V;
  /** A value, or what becomes of the newest one: a list may change twice before it is drawn again. */
  set: <K extends keyof V & string>(name: K, value: V[K] | ((now: V[K]) => V[K])) => void;
  /** Name, value and change of a text field. */
  field: (name: keyof V & string) => { name: string; value: string; onChange: (e: { target: { value: string } }) => void };
  /** What was typed was found again, from before a reload or another page. */
  left: boolean;
  /** Nothing is half-typed any more: it is given up. */
  clear: () => void;
  /** The version of what it was filled in on; undefined where the form has none. */
  version: string | undefined;
  /** Stands upon another version from now on: what stands there was shown. */
  standUpon: (version: string) => void;
  /** What is kept of it in this tab; once something sent is stored, that is forgotten and the fields show what stands there. */
  kept: { key: string; fields: () => Kept; forget: (sent: Kept) => void; show: () => void };
}

/** What is kept of one form on this page, in this tab. */
export function useKept(place: string) {
  const key = `${useLocation().pathname} ${place}`;
  const kept = useRef<{ key: string; fields: Kept }>({ key: "", fields: {} });
  /** What a tab that is just closing left here may be free only after this one has looked. */
  const [freed, setFreed] = useState(0);
  useEffect(
    () =>
      awaitKept(key, () => {
        kept.current = { key: "", fields: {} };
        setFreed((n) => n + 1);
      }),
    [key],
  );
  const fields = useCallback(() => {
    if (kept.current.key !== key) kept.current = { key, fields: readKept(tabStorage(), key) };
    return kept.current.fields;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- freed: it is read again
  }, [key, freed]);
  const keep = useCallback(
    (next: Kept) => {
      kept.current = { key, fields: next };
      if (writeKept(tabStorage(), key, next) || Object.keys(next).length === 0) unkept.delete(key);
      else warnOnLeaving(key);
    },
    [key],
  );
  /** What was not touched since a moment is no longer kept. */
  const forget = useCallback(
    (then: Kept) => keep(Object.fromEntries(Object.entries(fields()).filter(([name, field]) => !sameField(then[name], field)))),
    [fields, keep],
  );
  return { key, fields, keep, forget };
}

/**
 * What is typed into a form or a desk. It outlives a reload, going back, an error, a switch of units (converted from what was typed, so that
 * switching back gives the same text) and other people's entries; fields nobody has touched follow their start.
 * @param place name of the form on its page @param start what the fields begin with, in the units now shown
 * @param quantities of the fields whose unit stands beside them
 * @param version of what the start shows: a form sends the one it was filled in on, so that nothing changed meanwhile is overwritten
 */
export function useDraft<S extends Values>(
  place: string,
  start: S,
  quantities: { [K in keyof S]?: FieldQuantity } = {},
  version?: string,
): Draft<Widened<S>> {
  type V = Widened<S>;
  const units = useUnits();
  const { key, fields, keep, forget } = useKept(place);
  const startText = JSON.stringify(start);
  const form = useForm<V>({ defaultValues: start as never });
  const [left, setLeft] = useState(false);
  const [, again] = useReducer((n: number) => n + 1, 0);
  const quantityOf = useRef(quantities);

  /** For which start and units the form's values stand; nothing before the browser has taken over. */
  const [settled, setSettled] = useState<{ key: string; startText: string; units: UnitPreferences } | null>(null);
  const valuesNow = useCallback(() => {
    const now = JSON.parse(startText) as V;
    for (const [name, field] of Object.entries(fields())) if (name in now) Object.assign(now, { [name]: shownIn(field, units) });
    return now;
  }, [fields, startText, units]);

  useBeforePaint(() => {
    setLeft(touched(fields()).length > 0);
    form.reset(valuesNow());
    setSettled({ key, startText, units });
  }, [form, key, fields, startText, units, valuesNow]);

  const set = useCallback(
    (name: string, given: FieldValue | ((now: never) => FieldValue)) => {
      const value = typeof given === "function" ? given(valuesNow()[name] as never) : given;
      keep(onVersion({ ...fields(), [name]: { value, units, quantity: quantityOf.current[name] } }, version));
      form.setValue(name as Path<V>, value as PathValue<V, Path<V>>);
      again();
    },
    [form, keep, fields, units, valuesNow, version],
  );
  const show = useCallback(() => {
    setLeft(false);
    form.reset(valuesNow());
    again();
  }, [form, valuesNow]);
  /** Given up is what stands here now, all of it. */
  const clear = useCallback(() => {
    forget(fields());
    show();
  }, [forget, fields, show]);
  const standUpon = useCallback(
    (now: string) => {
      keep(uponVersion(fields(), now));
      again();
    },
    [fields, keep],
  );
  // A switch of units must not show, even for one frame, a figure of the old unit beside the new one.
  const stale = settled !== null && (settled.units !== units || settled.startText !== startText || settled.key !== key);
  const typedText = JSON.stringify(stale ? valuesNow() : { ...start, ...form.getValues() });
  const typed = useMemo(() => JSON.parse(typedText) as V, [typedText]);
  return {
    typed,
    set,
    field: (name) => ({ name, value: textOf(typed[name]), onChange: (e) => set(name, e.target.value) }),
    left,
    clear,
    version: version === undefined ? undefined : ((settled && filledInOn(fields())) ?? version),
    standUpon,
    kept: { key, fields, forget, show },
  };
}

const textOf = (value: FieldValue | undefined): string => (typeof value === "string" ? value : "");

/** Drafts that the browser does not keep for this tab: while there is one, leaving would lose it, and it asks. */
const unkept = new Set<string>();
let listens = false;
function warnOnLeaving(key: string): void {
  unkept.add(key);
  if (listens) return;
  listens = true;
  addEventListener("beforeunload", (e) => {
    if (unkept.size > 0) e.preventDefault();
  });
}
