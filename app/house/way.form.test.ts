import { HOUSE_WAYS, houseWay } from "#core/models/ways/house-ways";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { coatField, readWay, wayTyped } from "./way.form";

const METRIC: UnitPreferences = { film: "µm", length: "mm", temperature: "°C", pressure: "bar", volume: "ml" };
const AMERICAN: UnitPreferences = { film: "mil", length: "in", temperature: "°F", pressure: "psi", volume: "fl oz" };

const sent = (id: string, units = METRIC, over: Record<string, unknown> = {}) => {
  const { coats, ...rest } = wayTyped(houseWay(id), units);
  const lists = Object.fromEntries(
    (Object.keys(coats[0]!) as (keyof (typeof coats)[number])[]).map((f) => [coatField(f), coats.map((c) => c[f])]),
  );
  return readWay({ ...rest, ...lists, ...over }, units);
};

test.each([METRIC, AMERICAN])("every way comes back from its own fields as it went in, in any units (%#)", (units) => {
  for (const way of HOUSE_WAYS) {
    const read = sent(way.id, units);
    if (!read.success) throw new Error(`${way.id}: ${JSON.stringify(read.errors)}`);
    expect(read.data.coats.map((c) => [c.role, c.zone, c.sandAfter])).toEqual(way.coats.map((c) => [c.role, c.zone, c.sandAfter]));
    read.data.coats.forEach((c, i) => {
      expect(c.speedFactor).toBeCloseTo(way.coats[i]!.speedFactor, 3);
      expect(Math.abs(c.pressureShift_Pa - way.coats[i]!.pressureShift_Pa)).toBeLessThan(1000);
    });
    expect(read.data.flatten.removal_m).toBeCloseTo(way.flatten.removal_m, 6);
    expect(read.data).toMatchObject({ finish: way.finish, trigger: way.trigger, airBeforeHeat_s: way.airBeforeHeat_s });
  }
});

test("what is wrong is said at its own field, coat by coat", () => {
  const read = sent("two-full", METRIC, { name: " ", [coatField("speed")]: ["100", "5"], lastPaper: "60" });
  expect(read.success).toBe(false);
  expect(read.success ? {} : read.errors).toMatchObject({
    name: ["Give the way a name"],
    [`${coatField("speed")}-1`]: [expect.stringMatching(/^Between 40/)],
    lastPaper: ["At least 400"],
  });
});

test("nothing is sanded after a last coat, whatever was sent", () => {
  const read = sent("two-full", METRIC, { [coatField("sand")]: ["yes", "yes"] });
  expect(read.success && read.data.coats.map((c) => c.sandAfter)).toEqual([true, false]);
});
