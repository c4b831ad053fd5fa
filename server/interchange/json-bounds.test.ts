import fc from "fast-check";
import { beyondBounds } from "./json-bounds";

const bytes = (text: string) => new TextEncoder().encode(text);

/** The same by the parser itself. */
function measured(value: unknown): { depth: number; things: number } {
  if (typeof value !== "object" || value === null) return { depth: 0, things: 0 };
  const inner = Object.values(value).map(measured);
  return {
    depth: 1 + Math.max(0, ...inner.map((i) => i.depth)),
    things: 1 + Math.max(0, inner.length - 1) + inner.reduce((a, i) => a + i.things, 0),
  };
}

test("depth and count are those of what the parser would make, whatever stands in its strings", () => {
  fc.assert(
    fc.property(fc.json({ maxDepth: 5 }), (text) => {
      const { depth, things } = measured(JSON.parse(text));
      expect(beyondBounds(bytes(text), { depth, things })).toBeNull();
      if (depth > 0) expect(beyondBounds(bytes(text), { depth: depth - 1, things })).toContain("deep");
      if (things > 0) expect(beyondBounds(bytes(text), { depth, things: things - 1 })).toContain("things");
    }),
  );
});

test("a string with brackets, quotes and backslashes is one string", () => {
  const text = JSON.stringify({ a: '[[[[{{{{,,,,\\"\\', b: "\\" });
  expect(beyondBounds(bytes(text), { depth: 1, things: 2 })).toBeNull();
  expect(beyondBounds(bytes('"never closed [[[['), { depth: 0, things: 0 })).toBeNull();
});

test("millions of empty objects and a deep nest are told before anything is made of them", () => {
  expect(beyondBounds(bytes(`{"photos":[${"{},".repeat(2_000_000)}{}]}`))).toBe("It holds more than 3,000,000 things");
  expect(beyondBounds(bytes("[".repeat(1000)))).toBe("It is nested more than 24 deep");
});
