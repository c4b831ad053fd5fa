import { useState } from "react";
import { SUBSTRATES } from "#core/ledger/derive-panel";
import { type PanelShape, SHAPES, SHAPE_KINDS, type ShapeKind, ownShape, panelShape } from "#core/panel/shapes";
import { parseQuantity } from "#core/units/parse";
import { initial } from "~/forms/initial";
import { parseCorners } from "~/forms/corners";
import { useUnits } from "~/lib/use-root";
import { Field, FieldErrors, SelectField } from "~/ui/field";
import { PanelDrawing } from "./panel-drawing";

interface ProductChoice {
  revisionId: string;
  name: string;
  coats: number;
}

/** What makes a panel: shape, size, how it hangs, what lies below, product and coats. Used for a new job and for a further panel. */
export function PanelFields({
  errors,
  products,
  coats,
}: {
  errors: Record<string, string[]>;
  products: readonly ProductChoice[];
  coats: number;
}) {
  const units = useUnits();
  const [kind, setKind] = useState<ShapeKind | "own">("bonnet");
  const [size, setSize] = useState<{ width: string; height: string }>(() => usualSize("bonnet"));
  const [corners, setCorners] = useState(() =>
    [
      [0, 0],
      [0.6, 0.05],
      [0.55, 0.4],
      [0, 0.4],
    ]
      .map((p) => p.map((m) => initial("length", m, units)).join(" "))
      .join("\n"),
  );
  const [orientation, setOrientation] = useState("horizontal");
  function usualSize(k: ShapeKind) {
    const [width, height] = SHAPES[k].size_m;
    return { width: initial("length", width, units), height: initial("length", height, units) };
  }
  const shape = previewShape();
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
      <div className="grid grid-cols-2 gap-x-4 gap-y-4 self-start">
        <SelectField
          label="Shape"
          name="shape"
          value={kind}
          errors={errors.shape}
          onChange={(e) => {
            const next = e.target.value as ShapeKind | "own";
            setKind(next);
            if (next !== "own") setSize(usualSize(next));
          }}
        >
          {SHAPE_KINDS.map((k) => (
            <option key={k} value={k}>
              {SHAPES[k].name}
            </option>
          ))}
          <option value="own">Own outline</option>
        </SelectField>
        <Field label="Call it" name="panelName" placeholder={kind === "own" ? "Own shape" : SHAPES[kind].name} errors={errors.panelName} />
        <Field
          className={kind === "own" ? "hidden" : ""}
          label="Width"
          unit={units.length}
          name="width"
          value={size.width}
          onChange={(e) => setSize((s) => ({ ...s, width: e.target.value }))}
          errors={errors.width}
        />
        <Field
          className={kind === "own" ? "hidden" : ""}
          label="Height"
          unit={units.length}
          name="height"
          value={size.height}
          onChange={(e) => setSize((s) => ({ ...s, height: e.target.value }))}
          errors={errors.height}
        />
        {kind === "own" && (
          <div className="col-span-2">
            <label className="small-label mb-1 block" htmlFor="corners">
              Corners, one a line: x y in {units.length}
            </label>
            <textarea
              id="corners"
              name="corners"
              rows={5}
              className="field font-medium"
              value={corners}
              onChange={(e) => setCorners(e.target.value)}
              aria-invalid={errors.corners ? true : undefined}
            />
            <FieldErrors errors={errors.corners} />
          </div>
        )}
        <SelectField
          label="How it hangs"
          name="orientation"
          value={orientation}
          onChange={(e) => setOrientation(e.target.value)}
          errors={errors.orientation}
        >
          <option value="vertical">Vertical</option>
          <option value="horizontal">Horizontal</option>
          <option value="angle">At an angle</option>
        </SelectField>
        <Field
          className={orientation === "angle" ? "" : "hidden"}
          label="Angle from level"
          unit="°"
          name="angle"
          defaultValue="45"
          errors={errors.angle}
        />
        <SelectField className="col-span-2" label="What lies below" name="substrate" defaultValue="unknown" errors={errors.substrate}>
          {Object.entries(SUBSTRATES).map(([k, s]) => (
            <option key={k} value={k}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <SelectField
          className="col-span-2"
          label="Clear from the shelf"
          name="productRevisionId"
          errors={errors.productRevisionId}
          hint={products.length === 0 ? "The shelf is empty: put the product's sheet there first." : ""}
        >
          {products.map((p) => (
            <option key={p.revisionId} value={p.revisionId}>
              {p.name}
            </option>
          ))}
        </SelectField>
        <Field
          key={coats}
          label="Coats"
          name="coatsPlanned"
          inputMode="numeric"
          defaultValue={String(coats)}
          errors={errors.coatsPlanned}
        />
      </div>
      <div>
        {shape ? (
          <>
            <PanelDrawing
              shape={shape}
              label="The panel as entered"
              {...(kind === "own"
                ? {
                    onPlace: ([x, y]) => setCorners((c) => `${c.trimEnd()}\n${initial("length", x, units)} ${initial("length", y, units)}`),
                  }
                : {})}
            />
            {kind === "own" && <p className="text-center text-[13px] text-ink2">Tap inside to add a corner, or type below.</p>}
          </>
        ) : (
          <p className="grid h-full place-content-center text-ink2">The drawing appears when the outline is complete.</p>
        )}
      </div>
    </div>
  );

  function previewShape(): PanelShape | null {
    try {
      if (kind === "own") {
        const parsed = parseCorners(corners, units);
        return parsed.ok ? ownShape(parsed.corners) : null;
      }
      const [w, h] = [parseQuantity("length", size.width, units.length), parseQuantity("length", size.height, units.length)];
      return w.ok && h.ok ? panelShape(kind, { width_m: w.si, height_m: h.si }) : null;
    } catch {
      return null; // an outline on the way to being complete
    }
  }
}
