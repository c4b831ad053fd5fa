import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { SHAPE_KINDS, panelShape } from "#core/kernel/geometry/shapes";
import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { type Region, shopRegion } from "#server/repos/shop-repo";
import { partName } from "./part-name";
import { REGIONS, shapeInRegion } from "./region";

const OTHER: Record<Region, RegExp> = {
  british: /\b(hood|fender|trunk|windshield|quarter panel)\b/i,
  american: /\b(bonnet|wing|boot|windscreen|rear quarter)\b/i,
};

test.each(Object.keys(REGIONS) as Region[])("no part and no place of a part has the other region's word, %s", (region) => {
  for (const kind of SHAPE_KINDS) {
    const shape = shapeInRegion(panelShape(kind, { width_m: 1, height_m: 0.8 }), region);
    const said = [partName(kind, region), ...shape.sides, placeInWords([0.02, 0.02], shape), placeInWords([0.98, 0.4], shape)];
    for (const words of said) expect(words).not.toMatch(OTHER[region]);
  }
});

test("the shop chooses; until it has, its film unit does; the paper goes with it", () => {
  expect(shopRegion({ region: null, units: METRIC })).toBe("british");
  expect(shopRegion({ region: null, units: IMPERIAL })).toBe("american");
  expect(shopRegion({ region: "british", units: IMPERIAL })).toBe("british");
  expect(shapeInRegion(panelShape("bonnet", { width_m: 1.4, height_m: 1.2 }), "american").sides[0]).toBe("windshield edge");
  expect([REGIONS.british.paper.name, REGIONS.american.paper.name]).toEqual(["A4", "LETTER"]);
});
