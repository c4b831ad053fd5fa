import { productSheet } from "../product/sheet-schema";
import { parseRatio } from "../product/ratio";
import type { SecondPart } from "../product/roles";
import { TEST_SHEET } from "../../panel/testing/test-ledger";
import { type MixInput, mixPlan } from "./mix-plan";

const HARDENER = { name: "Hardener T", kind: "hardener", speed: "medium" } as unknown as NonNullable<MixInput["hardener"]>;
const REDUCER = { name: "Reducer T", kind: "reducer", speed: "medium" } as unknown as NonNullable<MixInput["thinner"]>;

/** Parts of a litre, ml, by name. */
function recipe(kind: string, ratio: string, { reducer = 0, second = null as SecondPart | null, matting = null as number | null } = {}) {
  const sheet = productSheet.parse({ ...TEST_SHEET, name: `The ${kind}`, kind, ratio, secondPart: second, density_kg_m3: null });
  const parsed = parseRatio(ratio);
  if (!parsed.ok) throw new Error(parsed.message);
  const { parts, amount } = mixPlan({
    sheet,
    hardener: HARDENER,
    thinner: REDUCER,
    ratio: parsed.parts,
    reducer,
    meaning: "activated",
    areas: [{ area_m2: 1, bothSides: false }],
    coats: 1,
    dryFilm_m: 30e-6,
    transfer: 0.65,
    waste: 0,
    dead_m3: 0,
    temperature_K: 293.15,
    blend:
      matting === null ? undefined : { other: { ...sheet, name: "The gloss clear", kind: "clear" }, matting: "product", share: matting },
    gun: { fan_m: 0.25, overlap: 0.5, handSpeed_m_s: 0.34 },
  });
  return parts.map((p) => [p.name, Math.round((1000 * p.volume_m3) / amount.ready_m3)] as const);
}

// A litre of each by hand; what stands second is common practice by kind, no source, unless the sheet says.
test.each([
  [
    "base",
    "1:1",
    {},
    [
      ["The base", 500],
      ["Reducer T", 500],
    ],
  ],
  [
    "base",
    "1:1",
    { reducer: 0.1 },
    [
      ["The base", 455],
      ["Reducer T", 545],
    ],
  ],
  [
    "base",
    "2:1:0.1",
    {},
    [
      ["The base", 645],
      ["Reducer T", 323],
      ["additive", 32],
    ],
  ],
  [
    "base",
    "10:1",
    { second: "hardener" },
    [
      ["The base", 909],
      ["Hardener T", 91],
    ],
  ],
  ["blender", "1", {}, [["The blender", 1000]]],
  [
    "blender",
    "1:1",
    {},
    [
      ["The blender", 500],
      ["Reducer T", 500],
    ],
  ],
  [
    "sealer",
    "4:1:1",
    {},
    [
      ["The sealer", 667],
      ["Hardener T", 167],
      ["Reducer T", 167],
    ],
  ],
  [
    "sealer",
    "4:1",
    { reducer: 0.25 },
    [
      ["The sealer", 640],
      ["Hardener T", 160],
      ["Reducer T", 200],
    ],
  ],
  [
    "primer",
    "5:1",
    { reducer: 0.1 },
    [
      ["The primer", 758],
      ["Hardener T", 152],
      ["Reducer T", 91],
    ],
  ],
  [
    "primer",
    "1:1",
    { second: "reducer" },
    [
      ["The primer", 500],
      ["Reducer T", 500],
    ],
  ],
  [
    "matte clear",
    "2:1",
    { reducer: 0.1 },
    [
      ["The matte clear", 606],
      ["Hardener T", 303],
      ["Reducer T", 91],
    ],
  ],
  [
    "matte clear",
    "2:1",
    { matting: 0.55 },
    [
      ["The matte clear", 367],
      ["The gloss clear", 300],
      ["Hardener T", 333],
    ],
  ],
  [
    "matte clear",
    "3:1",
    { matting: 0.2, reducer: 0.1 },
    [
      ["The matte clear", 136],
      ["The gloss clear", 545],
      ["Hardener T", 227],
      ["Reducer T", 91],
    ],
  ],
  [
    "single stage",
    "2:1",
    { reducer: 0.1 },
    [
      ["The single stage", 606],
      ["Hardener T", 303],
      ["Reducer T", 91],
    ],
  ],
  [
    "single stage",
    "8:1:2",
    {},
    [
      ["The single stage", 727],
      ["Hardener T", 91],
      ["Reducer T", 182],
    ],
  ],
  [
    "clear",
    "3:1:1",
    {},
    [
      ["The clear", 600],
      ["Hardener T", 200],
      ["Reducer T", 200],
    ],
  ],
] as const)("a litre of %s at %s, %o", (kind, ratio, more, parts) => {
  expect(recipe(kind, ratio, more)).toEqual(parts);
});

test("no hardener goes into what its sheet mixes without one, whatever stands on the shelf", () => {
  for (const kind of ["base", "blender"]) expect(recipe(kind, "1:1").some(([name]) => name === HARDENER.name)).toBe(false);
});
