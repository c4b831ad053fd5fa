import type { ShapeKind } from "#core/kernel/geometry/shapes";
import type { Region } from "#server/repos/shop-repo";
import type { PanelView } from "#server/views/panel-view";

type Sides = readonly [string, string, string, string];
/** A sheet as the PDF library names it, and in points. */
export interface Paper {
  name: "A4" | "LETTER";
  width: number;
  height: number;
}

interface RegionWords {
  name: string;
  /** Names of parts that differ from the British ones that the shapes carry. */
  parts: Partial<Record<ShapeKind, string>>;
  /** Words inside the names of a part's sides. */
  sides: Readonly<Record<string, string>>;
  paper: Paper;
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

/** A shape with its sides named as the region does; places in words follow from them. */
export function shapeInRegion<S extends { sides: Sides }>(shape: S, region: Region): S {
  const { sides } = REGIONS[region];
  const [top, right, bottom, left] = shape.sides.map((side) => side.replace(/[a-z]+/g, (word) => sides[word] ?? word));
  return { ...shape, sides: [top!, right!, bottom!, left!] };
}

/** A panel's view with its sides named as its shop does: for what is read, never for what is stored. */
export const viewInRegion = (view: PanelView): PanelView => ({
  ...view,
  panel: { ...view.panel, shape: shapeInRegion(view.panel.shape, view.region) },
});
