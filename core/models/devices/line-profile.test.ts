import fc from "fast-check";
import { LONGEST_LINE, createLineSplitter, numbersIn, proposedValues, readLine, siOf } from "./line";
import { type LineProfile, lineProfileBody } from "./line-profile";

const gauge = (over: Partial<LineProfile> = {}): LineProfile =>
  lineProfileBody.parse({ name: "Gauge", kind: "gauge", baudRate: 9600, values: { film: { nth: 1, unit: "µm" } }, ...over });

// Invented lines, as instruments of each kind are commonly seen to print; common practice, no source.
test.each([
  ["  131 um", { kind: "gauge" as const, film: 131e-6 }],
  ["TOTAL 5.16 mil Fe", { kind: "gauge" as const, film: 131.064e-6 }],
  ["ST,GS,+  812.35 g", { kind: "scale" as const, mass: 0.81235 }],
  ["T 21,5 C RH 48,2 %", { kind: "climate" as const, air: 294.65, humidity: 0.482 }],
])("%s is read as it is meant, by what is proposed", (line, { kind, ...wanted }) => {
  const values = proposedValues(kind, line);
  const read = readLine(gauge({ kind, values }), line)!;
  for (const [what, si] of Object.entries(wanted)) expect(read[what as "film"]).toBeCloseTo(si, 9);
  expect(Object.keys(read).sort()).toEqual(Object.keys(wanted).sort());
});

test("law: whatever stands around it, the number that was tapped is read in its unit", () => {
  const words = fc.stringMatching(/^[A-Za-z ,;:=]{0,12}$/);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(words, fc.integer({ min: 0, max: 99_999 }), fc.constantFrom(".", ",")), { minLength: 1, maxLength: 5 }),
      words,
      fc.nat(),
      (parts, end, pick) => {
        const line = `${parts.map(([word, n, point]) => `${word} ${Math.floor(n / 10)}${point}${n % 10}`).join(" ")} ${end}`;
        const nth = (pick % parts.length) + 1;
        for (const [unit, scale] of Object.entries({ µm: 1e-6, mil: 25.4e-6, mm: 1e-3 })) {
          const read = readLine(gauge({ values: { film: { nth, unit } } }), line);
          if (line.length > LONGEST_LINE) expect(read).toBeNull();
          else expect(read!.film).toBeCloseTo((parts[nth - 1]![1] / 10) * scale, 12);
        }
      },
    ),
  );
});

test("a minus is a sign only before a number, not between two", () => {
  expect(numbersIn("A-7 2-3 -4 - 5.5 +6").map((n) => n.value)).toEqual([7, 2, 3, -4, -5.5, 6]);
});

test("law: lines are the same however their pieces come, and with whatever ends", () => {
  const text = fc.stringMatching(/^[A-Za-z0-9 .,]{1,30}$/).filter((t) => t.trim() !== "");
  fc.assert(
    fc.property(
      fc.array(text, { maxLength: 8 }),
      fc.constantFrom("\r\n", "\n", "\r"),
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 60 }),
      (lines, end, cuts) => {
        const all = lines.map((l) => l + end).join("");
        const push = createLineSplitter();
        const got: string[] = [];
        for (let at = 0, i = 0; at < all.length; i++) {
          const next = at + cuts[i % cuts.length]!;
          got.push(...push(all.slice(at, next)));
          at = next;
        }
        expect(got).toEqual(lines.map((l) => l.trim()));
      },
    ),
  );
});

test("what is no line of an instrument is dropped up to its end, and the next is read", () => {
  const push = createLineSplitter();
  expect(push("x".repeat(500))).toEqual([]);
  expect(push("y\n131 um\n")).toEqual(["131 um"]);
});

test("only lines that hold the text are read; one without its number is none", () => {
  const only = gauge({ holds: "TOTAL" });
  expect(readLine(only, "BASE 12 um")).toBeNull();
  expect(readLine(only, "TOTAL 131 um")).toEqual({ film: expect.closeTo(131e-6, 12) as number });
  expect(readLine(gauge({ values: { film: { nth: 3, unit: "µm" } } }), "131 um")).toBeNull();
});

test("a profile that lacks what its kind tells is refused at that value; a unit that it does not have too", () => {
  const refused = (over: object) =>
    lineProfileBody
      .safeParse({ name: "x", kind: "climate", baudRate: 9600, values: {}, ...over })
      .error!.issues.map((i) => i.path.join("."));
  expect(refused({})).toEqual(["values.air", "values.humidity"]);
  expect(refused({ kind: "gauge", values: { film: { nth: 1, unit: "kg" } } })).toEqual(["values.film"]);
  expect(() => siOf("film", 1, "kg")).toThrow(RangeError);
  expect(() => siOf("film", NaN, "µm")).toThrow(RangeError);
});
