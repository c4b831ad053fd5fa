import { MEND_CARDS, MEND_CARD_IDS, type MendCardId, type MendStep, mendRuns } from "./mend-cards";

const MIN = 60_000;
const log = (card: MendCardId, ...steps: [step: number, at_min: number][]) =>
  steps.map(([step, at_min]) => ({ card, step, at_ms: at_min * MIN }));

test("every card says when, what is needed, and each step its reason; waits and hurries are minutes, not days, but for a night", () => {
  for (const id of MEND_CARD_IDS) {
    const card = MEND_CARDS[id];
    expect(card.steps.length).toBeGreaterThanOrEqual(3);
    for (const s of card.steps as readonly MendStep[]) {
      expect(s.do.length).toBeGreaterThan(10);
      expect(s.why.length).toBeGreaterThan(10);
      for (const t of [s.wait_s, s.within_s]) if (t !== undefined) expect(t).toBeLessThanOrEqual(24 * 3600);
    }
  }
});

test("a card goes on step by step; its wait runs from the step before", () => {
  const [run] = mendRuns(log("dirtInBase", [0, 0], [1, 11]));
  expect(run).toMatchObject({ card: "dirtInBase", done: 2, from_ms: null });
  expect(run!.step).toBe(MEND_CARDS.dirtInBase.steps[2]);
  expect(mendRuns(log("dirtInBase", [0, 5]))[0]!.from_ms).toBe(15 * MIN);
});

test("what has to be done hot says until when", () => {
  expect(mendRuns(log("dirtInClear", [0, 0], [1, 1]))[0]!.until_ms).toBe(6 * MIN);
});

test("a first step logged again begins the card anew; a finished one has no step", () => {
  const all = MEND_CARDS.cratersInBase.steps.map((_, i): [number, number] => [i, i * 10]);
  expect(mendRuns(log("cratersInBase", ...all))[0]!.step).toBeNull();
  expect(mendRuns(log("cratersInBase", ...all, [0, 100]))[0]).toMatchObject({ done: 1, begun_ms: 100 * MIN });
  expect(mendRuns([])).toEqual([]);
});

test("the trade's figures stand in the cards: P1000 or finer, three to four light coats, dust coats, half strength at low pressure", () => {
  const text = (id: MendCardId) => JSON.stringify(MEND_CARDS[id]);
  expect(text("dirtInBase")).toMatch(/P1000 or finer/);
  expect(MEND_CARDS.dirtInBase.steps.filter((s) => s.do.includes("light coat"))).toHaveLength(3);
  expect(MEND_CARDS.cratersInBase.steps.filter((s) => s.do.includes("dust coat"))).toHaveLength(3);
  expect(text("poorBlend")).toMatch(/one to one/);
  expect(text("cratersInClear")).toMatch(/additive/);
});
