import fc from "fast-check";
import type { LedgerEntry } from "../record/entry";
import { workedOut } from "./in-the-way";
import { testLedger } from "./testing/test-ledger";

/** Notes that may not stand beside each other; a note alone may be one too many. */
const ledgerOf = (count: number): LedgerEntry[] => {
  const { entries, add } = testLedger();
  for (let i = 0; i < count; i++) add("note", { text: String(i) });
  return entries;
};
const workWith = (forbidden: readonly (readonly number[])[]) => (ledger: readonly LedgerEntry[]) => {
  const there = new Set(ledger.map((e) => Number(e.id.slice(1))));
  const hit = forbidden.find((set) => set.every((i) => there.has(i)));
  if (hit) throw new RangeError(`not with ${hit.join(" and ")}`);
  return [...there];
};
const left = (found: { inTheWay: readonly { entry: LedgerEntry }[] }) => found.inTheWay.map((e) => Number(e.entry.id.slice(1)));

test("a ledger that can be worked with is worked with as it is", () => {
  const ledger = ledgerOf(5);
  const found = workedOut(ledger, workWith([]));
  expect(found).toEqual({ value: [0, 1, 2, 3, 4], ledger, inTheWay: [] });
});

test("each entry that fails by itself is named, with what the model said, and no other is left out", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), fc.uniqueArray(fc.nat(39), { maxLength: 12 }), (count, bad) => {
      const found = workedOut(ledgerOf(count), workWith(bad.map((i) => [i])));
      const there = bad.filter((i) => i < count).sort((a, b) => a - b);
      expect(left(found)).toEqual(there);
      expect(found.value).toEqual([...Array(count).keys()].filter((i) => !there.includes(i)));
      expect(found.inTheWay.map((e) => e.why)).toEqual(there.map((i) => `not with ${i}`));
    }),
  );
});

test("of entries that fail together the last is left out, and whatever there is can be worked out", () => {
  expect(left(workedOut(ledgerOf(9), workWith([[2, 6]])))).toEqual([6]);
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.array(fc.uniqueArray(fc.nat(29), { minLength: 1, maxLength: 3 }), { maxLength: 60 }),
      (count, sets) => {
        const work = workWith(sets);
        const found = workedOut(ledgerOf(count), work);
        expect(work(found.ledger)).toEqual(found.value);
        expect(found.value.length + found.inTheWay.length).toBe(count);
        expect(left(found)).toEqual([...left(found)].sort((a, b) => a - b));
      },
    ),
  );
});

test("what was taken out already is in nobody's way; what a strike of it says is kept", () => {
  const { entries, add } = testLedger();
  const wrong = add("note", { text: "wrong" });
  add("strike", { reason: "undo" }, { supersedes: wrong });
  add("note", { text: "right" });
  const work = (ledger: readonly LedgerEntry[]) => {
    if (ledger.some((e) => e.kind === "note" && e.body.text === "wrong" && !ledger.some((s) => s.supersedes === e.id)))
      throw new RangeError("wrong");
    return ledger.length;
  };
  expect(workedOut(entries, work)).toMatchObject({ value: 3, inTheWay: [] });
});

test("where no entry is at fault the error is told", () => {
  const broken = () => {
    throw new RangeError("the sheet");
  };
  expect(() => workedOut(ledgerOf(3), broken)).toThrow("the sheet");
  expect(() => workedOut([], broken)).toThrow("the sheet");
});
