import { maskWords } from "./mask-words";

const MIN = 60_000;
const NOW = Date.UTC(2026, 4, 6, 12);

test("the mask stays on until the booth's air has changed often enough, and no longer is said than it takes", () => {
  expect(maskWords(NOW - 2 * MIN, 60, NOW)).toMatch(/^Mask on until .*60 air changes an hour the mist needs 5 min/);
  expect(maskWords(NOW - 6 * MIN, 60, NOW)).toBeNull();
  expect(maskWords(NOW - 30 * MIN, 6, NOW)).toMatch(/46 min/);
});
test("where nobody said how often, the rule of five is told; with no coat, or hours after, nothing", () => {
  expect(maskWords(NOW - 2 * MIN, null, NOW)).toContain("five times");
  expect(maskWords(null, 60, NOW)).toBeNull();
  expect(maskWords(NOW - 200 * MIN, null, NOW)).toBeNull();
});
