import { IMPERIAL, METRIC } from "#core/kernel/units/quantities";
import { aroundWords } from "./around.words";

test("what is done around a step is said in the shop's own units, each with its reason", () => {
  const blend = (units: typeof METRIC) => aroundWords({ what: "blendOut", beyond_m: 0.12 }, units).what;
  expect(blend(METRIC)).toMatch(/about 120 mm beyond/);
  expect(blend(IMPERIAL)).toMatch(/4\.7 in beyond.*psi/);
  expect(aroundWords({ what: "wetter", more: 0.05, reducer: 0.125 }, IMPERIAL).what).toMatch(/5 % more reducer.*12\.5 % in all/);
});

test("a blend and a butt are told apart", () => {
  const edge = (e: "blend" | "butt") => aroundWords({ what: "colourEdge", edge: e }, METRIC);
  expect(edge("blend").what).toMatch(/^Blend/);
  expect(edge("butt").why).toMatch(/gap/);
});
