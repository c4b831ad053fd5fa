import fc from "fast-check";
import type { LedgerEntry } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import { testLedger } from "#core/panel/testing/test-ledger";

const ids = (entries: readonly LedgerEntry[]) => livingEntries(entries).map((e) => e.id);

describe("which entries count", () => {
  test("a correction replaces, a strike removes, striking the strike brings it back; nothing is lost", () => {
    const { entries, add } = testLedger();
    const first = add("note", { text: "one" });
    const second = add("note", { text: "two" }, { supersedes: first });
    expect(ids(entries)).toEqual([second]);
    const strike = add("strike", { reason: "undo" }, { supersedes: second });
    expect(ids(entries)).toEqual([first]);
    add("strike", { reason: "undo" }, { supersedes: strike });
    expect(ids(entries)).toEqual([second]);
    expect(entries).toHaveLength(4);
  });

  test("corrected twice, one survives: the newest", () => {
    const { entries, add } = testLedger();
    const e1 = add("note", { text: "131" });
    const e2 = add("note", { text: "13.1" }, { supersedes: e1 });
    const e3 = add("note", { text: "5.2" }, { supersedes: e2 });
    expect(ids(entries)).toEqual([e3]); // once: e1 and e3
    add("strike", { reason: "" }, { supersedes: e3 });
    expect(ids(entries)).toEqual([e2]);
  });

  test("taken out whole, no version comes back; put back, the newest does", () => {
    const { entries, add } = testLedger();
    const e1 = add("note", { text: "one" });
    const e2 = add("note", { text: "two" }, { supersedes: e1 });
    const strike = add("strike", { reason: "", whole: true }, { supersedes: e2 });
    expect(ids(entries)).toEqual([]);
    add("strike", { reason: "" }, { supersedes: strike });
    expect(ids(entries)).toEqual([e2]);
  });

  test("a correction stands where the corrected entry stood", () => {
    const { entries, add } = testLedger();
    const e1 = add("note", { text: "typed wrong" });
    const between = add("note", { text: "between" });
    const e2 = add("note", { text: "put right" }, { supersedes: e1 });
    expect(ids(entries)).toEqual([e2, between]);
    expect(livingEntries(entries)[0]!.seq).toBe(1);
  });
});

/** What a painter may do to a ledger: write, correct, take out (one version or all), undo the last taking out. */
const deeds = fc.array(
  fc.record({ deed: fc.constantFrom("write", "correct", "strike", "whole", "undo"), at: fc.nat({ max: 30 }) } as const),
  { maxLength: 30 },
);

function ledgerOf(list: readonly { deed: "write" | "correct" | "strike" | "whole" | "undo"; at: number }[]) {
  const { entries, add } = testLedger();
  const root = new Map<string, string>();
  const put = (supersedes: string | null) => {
    const id = add("note", { text: "x" }, { supersedes });
    root.set(id, supersedes ? root.get(supersedes)! : id);
  };
  for (const { deed, at } of list) {
    const living = livingEntries(entries);
    const target = living[at % Math.max(1, living.length)];
    const strike = entries.findLast((e) => e.kind === "strike" && !entries.some((s) => s.supersedes === e.id));
    if (deed === "write" || !target) put(null);
    else if (deed === "correct") put(target.id);
    else if (deed === "undo" && strike) add("strike", { reason: "" }, { supersedes: strike.id });
    else if (deed !== "undo") add("strike", { reason: "", whole: deed === "whole" }, { supersedes: target.id });
  }
  return { entries, add, root };
}

describe("laws, over ledgers as painters may make them", () => {
  test("of each chain at most one counts, and it keeps the chain's place", () => {
    fc.assert(
      fc.property(deeds, (list) => {
        const { entries, root } = ledgerOf(list);
        const living = livingEntries(entries);
        const roots = living.map((e) => root.get(e.id)!);
        expect(new Set(roots).size).toBe(roots.length);
        expect(living.map((e) => e.seq)).toEqual(roots.map((r) => entries.find((e) => e.id === r)!.seq));
        expect([...living].sort((a, b) => a.seq - b.seq)).toEqual(living);
      }),
    );
  });

  test("strike, then undo, changes nothing; for one version and for all", () => {
    fc.assert(
      fc.property(deeds, fc.nat({ max: 30 }), fc.boolean(), (list, at, whole) => {
        const { entries, add } = ledgerOf(list);
        const before = ids(entries);
        if (before.length === 0) return;
        const strike = add("strike", { reason: "", whole }, { supersedes: before[at % before.length]! });
        add("strike", { reason: "undo" }, { supersedes: strike });
        expect(ids(entries)).toEqual(before);
      }),
    );
  });
});
