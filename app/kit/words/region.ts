import type { ShapeKind } from "#core/kernel/geometry/shapes";
import type { ShopSettings } from "#server/repos/shop-repo";

/** Where the shop's words for parts and its paper come from; its units are chosen by themselves. */
export type Region = NonNullable<ShopSettings["region"]>;

interface RegionWords {
  name: string;
  /** Names of parts that differ from the British ones that the shapes carry. */
  parts: Partial<Record<ShapeKind, string>>;
  /** Words inside the names of a part's sides. */
  sides: Readonly<Record<string, string>>;
  /** As the PDF library names it, and in points. */
  paper: { name: "A4" | "LETTER"; width: number; height: number };
}

export const REGIONS: Record<Region, RegionWords> = {
  british: {
    name: "British: bonnet, wing, boot lid, windscreen; A4",
    parts: {},
    sides: {},
    paper: { name: "A4", width: 595.28, height: 841.89 },
  },
  american: {
    name: "American: hood, fender, trunk lid, windshield; Letter",
    parts: { bonnet: "Hood", wing: "Fender", quarter: "Quarter panel", bootLid: "Trunk lid" },
    sides: { windscreen: "windshield" },
    paper: { name: "LETTER", width: 612, height: 792 },
  },
};

/** The shop's own choice; a shop that reads mil and has not chosen speaks American. */
export const regionOf = ({ region, units }: Pick<ShopSettings, "region" | "units">): Region =>
  region ?? (units.film === "mil" ? "american" : "british");

/** A shape with its sides named as the region does; places in words follow from them. */
export function shapeInRegion<S extends { sides: readonly [string, string, string, string] }>(shape: S, region: Region): S {
  const { sides } = REGIONS[region];
  const [top, right, bottom, left] = shape.sides.map((side) => side.replace(/[a-z]+/g, (word) => sides[word] ?? word));
  return { ...shape, sides: [top!, right!, bottom!, left!] };
}
