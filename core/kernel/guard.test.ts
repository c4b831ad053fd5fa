import { requireInteger, requireNumber, requireNumbers } from "#core/kernel/guard";

test("a number inside its bounds is returned as it is", () => {
  expect(requireNumber("thickness_m", 5e-5, { above: 0, max: 1 })).toBe(5e-5);
});

test.each([NaN, Infinity, -Infinity])("%p is refused with the name of the argument", (bad) => {
  expect(() => requireNumber("thickness_m", bad)).toThrow(new RangeError(`thickness_m must be finite, got ${bad}`));
});

test("the message names every bound and the value", () => {
  expect(() => requireNumber("overlap", 0.95, { min: 0, max: 0.9 })).toThrow("overlap must be finite and >= 0 and <= 0.9, got 0.95");
  expect(() => requireNumber("p", 1, { above: 0, below: 1 })).toThrow("p must be finite and > 0 and < 1, got 1");
});

test("whole numbers and lists are checked member by member", () => {
  expect(() => requireInteger("coats", 2.5)).toThrow("coats must be a whole number, got 2.5");
  expect(() => requireNumbers("readings", [1, NaN])).toThrow("readings[1] must be finite, got NaN");
  expect(() => requireNumbers("readings", [])).toThrow("at least 1 members, got 0");
});
