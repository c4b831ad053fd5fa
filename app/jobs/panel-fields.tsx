import type { Draft } from "~/kit/draft/use-draft";
import type { ProductSheet } from "#core/models/product/sheet";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { boundingBox } from "#core/kernel/geometry/geometry";
import { type PanelBrief, SUBSTRATES } from "#core/panel/brief";
import { type PanelShape, SHAPES, SHAPE_KINDS, type ShapeKind, ownShape, panelShape } from "#core/kernel/geometry/shapes";
import { parseQuantity } from "#core/kernel/units/parse";
import { USUALLY_HANGS } from "#core/panel/usual-hang";
import { initial } from "~/kit/form/initial";
import { parseCorners } from "./corners";
import { useUnits } from "~/kit/root/use-root";
import { useRegion } from "~/kit/words/use-region";
import { partName } from "~/kit/words/part-name";
import { Field, SelectField, TextArea } from "~/kit/ui/field";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import type { Region } from "#server/repos/shop-repo";

export interface ProductChoice {
  revisionId: string;
  name: string;
  coats: number;
  matte: boolean;
}
export const productChoice = ({ revisionId, sheet }: { revisionId: string; sheet: ProductSheet }): ProductChoice => ({
  revisionId,
  name: sheet.name,
  coats: sheet.coats,
  matte: sheet.kind === "matte clear",
});
/** The clear that is offered for a finish: a matte one for matte, else a gloss one; any where the shelf has no other. */
export const productFor = (products: readonly ProductChoice[], finish: string): string =>
  (products.find((p) => p.matte === (finish === "matte")) ?? products[0])?.revisionId ?? "";

const FIRST_CORNERS_M = [
  [0, 0],
  [0.6, 0.05],
  [0.55, 0.4],
  [0, 0.4],
];
const usualSize = (kind: ShapeKind, units: UnitPreferences) => {
  const [width, height] = SHAPES[kind].size_m;
  return { width: initial("length", width, units), height: initial("length", height, units) };
};

/** Corners as they are typed: one a line, x and y. */
const cornersText = (points: readonly (readonly number[])[], units: UnitPreferences) =>
  points.map((p) => p.map((m) => initial("length", m, units)).join(" ")).join("\n");

/** What a new panel's fields begin with. */
export const panelStart = (units: UnitPreferences, products: readonly ProductChoice[], coats: number) => ({
  shape: "bonnet",
  panelName: "",
  ...usualSize("bonnet", units),
  corners: cornersText(FIRST_CORNERS_M, units),
  orientation: "horizontal",
  angle: "45",
  substrate: "unknown",
  sides: "1",
  productRevisionId: products[0]?.revisionId ?? "",
  coatsPlanned: String(coats),
  count: "1",
});
/** What the fields of a panel that is there begin with. */
export function panelStartOf(panel: PanelBrief & { name: string; productRevisionId: string }, units: UnitPreferences) {
  const { x0, y0, x1, y1 } = boundingBox(panel.shape.outline);
  const degrees = Math.round((panel.tilt_rad * 180) / Math.PI);
  const own = panel.shape.kind === "own";
  return {
    shape: panel.shape.kind as string,
    panelName: panel.name,
    width: initial("length", x1 - x0, units),
    height: initial("length", y1 - y0, units),
    corners: own ? cornersText(panel.shape.outline, units) : "",
    orientation: degrees === 90 ? "vertical" : degrees === 0 ? "horizontal" : "angle",
    angle: String(degrees),
    substrate: panel.substrate as string,
    sides: String(panel.sides ?? 1),
    productRevisionId: panel.productRevisionId,
    coatsPlanned: String(panel.coatsPlanned),
    count: "1",
  };
}
export const PANEL_QUANTITIES = { width: "length", height: "length", corners: "length" } as const;
/** A draft that has a panel's fields, beside others or not. */
export type PanelDraft = Pick<Draft<ReturnType<typeof panelStart>>, "typed" | "set" | "field">;

interface PanelFieldsProps {
  draft: PanelDraft;
  /** Something is placed on it: shape and size are not asked for. */
  outlineStays?: boolean;
  /** Several alike may be made at once. */
  several?: boolean;
  errors: Record<string, string[]>;
  products: readonly ProductChoice[];
}

/** What makes a panel: shape, size, how it hangs, what lies below, product and coats. Used for a new job and for a further panel. */
export function PanelFields({ draft, errors, products, outlineStays = false, several = false }: PanelFieldsProps) {
  const units = useUnits();
  const region = useRegion();
  const { typed } = draft;
  const kind = typed.shape as ShapeKind | "own";
  const { orientation } = typed;
  const shape = previewShape();
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
      <div className="grid grid-cols-2 gap-x-4 gap-y-4 self-start">
        {outlineStays && <input type="hidden" name="outline" value="stays" />}
        <ShapeField {...{ outlineStays, kind, errors, draft, region }} />
        <Field
          label="Call it"
          {...draft.field("panelName")}
          placeholder={kind === "own" ? "Own shape" : partName(kind, region)}
          errors={errors.panelName}
        />
        <input type="hidden" name="usualName" value={kind === "own" ? "" : partName(kind, region)} />
        <Field
          className={kind === "own" || outlineStays ? "hidden" : ""}
          label="Width"
          unit={units.length}
          {...draft.field("width")}
          errors={errors.width}
        />
        <Field
          className={kind === "own" || outlineStays ? "hidden" : ""}
          label="Height"
          unit={units.length}
          {...draft.field("height")}
          errors={errors.height}
        />
        {kind === "own" && !outlineStays && (
          <TextArea
            className="col-span-2"
            label={`Corners, one a line: x y in ${units.length}`}
            rows={5}
            {...draft.field("corners")}
            errors={errors.corners}
          />
        )}
        <SelectField label="How it hangs" {...draft.field("orientation")} errors={errors.orientation}>
          <option value="vertical">Vertical</option>
          <option value="horizontal">Horizontal</option>
          <option value="angle">At an angle</option>
        </SelectField>
        <Field
          className={orientation === "angle" ? "" : "hidden"}
          label="Angle from level"
          unit="°"
          {...draft.field("angle")}
          errors={errors.angle}
        />
        <SelectField className="col-span-2" label="What lies below" {...draft.field("substrate")} errors={errors.substrate}>
          {Object.entries(SUBSTRATES).map(([k, s]) => (
            <option key={k} value={k}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <ProductField {...{ draft, errors, products }} />
        <SelectField label="Faces" {...draft.field("sides")} errors={errors.sides}>
          <option value="1">one</option>
          <option value="2">both, the back first</option>
        </SelectField>
        <Field label="Coats" {...draft.field("coatsPlanned")} inputMode="numeric" errors={errors.coatsPlanned} />
        {several && <Field label="How many alike" {...draft.field("count")} inputMode="numeric" errors={errors.count} />}
      </div>
      <Preview {...{ shape, kind, outlineStays, draft }} />
    </div>
  );

  function previewShape(): PanelShape | null {
    try {
      if (kind === "own") {
        const parsed = parseCorners(typed.corners, units);
        return parsed.ok ? ownShape(parsed.corners) : null;
      }
      const [w, h] = [parseQuantity("length", typed.width, units.length), parseQuantity("length", typed.height, units.length)];
      return w.ok && h.ok ? panelShape(kind, { width_m: w.si, height_m: h.si }) : null;
    } catch {
      return null; // an outline on the way to being complete
    }
  }
}

/** What it is finished with. */
function ProductField({
  draft,
  errors,
  products,
}: {
  draft: PanelDraft;
  errors: Record<string, string[]>;
  products: readonly ProductChoice[];
}) {
  return (
    <SelectField
      className="col-span-2"
      label="Clear from the shelf"
      {...draft.field("productRevisionId")}
      errors={errors.productRevisionId}
      hint={products.length === 0 ? "The shelf is empty: put the product's sheet there first." : ""}
    >
      {products.map((p) => (
        <option key={p.revisionId} value={p.revisionId}>
          {p.name}
        </option>
      ))}
    </SelectField>
  );
}

/** Which part it is; its usual size, and how it usually hangs, come with it. */
export function chooseShape(draft: Pick<PanelDraft, "set">, next: ShapeKind | "own", units: UnitPreferences): void {
  draft.set("shape", next);
  if (next === "own") return;
  const usual = usualSize(next, units);
  draft.set("width", usual.width);
  draft.set("height", usual.height);
  draft.set("orientation", USUALLY_HANGS[next]);
}

/** The choice of it from a list. */
function ShapeField({
  outlineStays,
  kind,
  errors,
  draft,
  region,
}: {
  outlineStays: boolean;
  kind: ShapeKind | "own";
  errors: Record<string, string[]>;
  draft: PanelDraft;
  region: Region;
}) {
  const units = useUnits();
  return (
    <SelectField
      className={outlineStays ? "hidden" : ""}
      disabled={outlineStays}
      label="Shape"
      name="shape"
      value={kind}
      errors={errors.shape}
      onChange={(e) => chooseShape(draft, e.target.value as ShapeKind | "own", units)}
    >
      {SHAPE_KINDS.map((k) => (
        <option key={k} value={k}>
          {partName(k, region)}
        </option>
      ))}
      <option value="own">Own outline</option>
    </SelectField>
  );
}

/** The panel as it was entered. */
function Preview({
  shape,
  kind,
  outlineStays,
  draft,
}: {
  shape: PanelShape | null;
  kind: ShapeKind | "own";
  outlineStays: boolean;
  draft: PanelDraft;
}) {
  const units = useUnits();
  const { typed } = draft;
  return (
    <div>
      {shape ? (
        <>
          <PanelDrawing
            shape={shape}
            label="The panel as entered"
            {...(kind === "own" && !outlineStays
              ? {
                  onPlace: (at) => draft.set("corners", `${typed.corners.trimEnd()}\n${cornersText([at], units)}`),
                }
              : {})}
          />
          {kind === "own" && !outlineStays && (
            <p className="text-center text-[13px] text-ink2">Tap inside to add a corner, or type below.</p>
          )}
        </>
      ) : (
        <p className="grid h-full place-content-center text-ink2">The drawing appears when the outline is complete.</p>
      )}
    </div>
  );
}
