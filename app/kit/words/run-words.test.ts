import fc from "fast-check";
import { calibrateRuns, calibratedChance } from "#core/models/flow/run-calibration";
import { chanceWord } from "#core/models/flow/run-chance";
import { coatMayRun, runTold } from "./flow-words";

/** A shop where a sag of 10 mm runs nearly always and one of 1 mm hardly ever: 40 told results. */
const logs = Array.from({ length: 40 }, (_, i) => {
  const sag_mm = 1 + (i % 10);
  return { sagLocal_m: sag_mm * 1e-3, ran: sag_mm > 6 || (sag_mm > 4 && i % 3 === 0), peelChance: 0.1, peeled: false };
});
const calibration = calibrateRuns(logs);

test("before the shop has results enough a coat's run is a word and no figure", () => {
  const word = (runChance: number) => coatMayRun(2, { runChance, sagLocal_m: 5e-3 }, null).text;
  expect(word(0.01)).toBe("unlikely");
  expect(word(0.99)).toBe("coat 2 likely runs");
  for (const chance of [0, 0.2, 0.5, 0.8, 1]) expect(word(chance)).not.toMatch(/\d+ %|in 100/);
});

test("once it has, the same words come with the shop's own percentage, whatever the model alone would say", () => {
  const told = coatMayRun(2, { runChance: 0.01, sagLocal_m: 9e-3 }, calibration);
  expect(told.text).toMatch(/^coat 2 likely runs, .+ here$/);
  expect(told.tag).toBe("stop");
  expect(coatMayRun(2, { runChance: 0.99, sagLocal_m: 1e-3 }, calibration).text).toMatch(/^unlikely, .+ here$/);
});

test("flow window, course, coat plan and house ways say the same of one coat", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1e-4, max: 2e-2, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.boolean(),
      (sagLocal_m, chance, own) => {
        const known = own ? calibration : null;
        const alone = runTold({ chance, sagLocal_m }, known);
        const among = coatMayRun(3, { runChance: chance, sagLocal_m }, known);
        expect(among.tag).toBe(alone.tag);
        const p = own ? calibratedChance(calibration, sagLocal_m) : chance;
        expect(among.text.startsWith("unlikely")).toBe(chanceWord(p) === "unlikely");
        if (own) expect(among.text).toContain(alone.big);
      },
    ),
  );
});
