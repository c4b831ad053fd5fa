import { useEffect } from "react";
import { useFetcher } from "react-router";
import { COLOUR_EDGES, LAYER_NAMES, type LayerKey, layersUnder } from "#core/models/prep/layer-names";
import { LAYERS } from "#core/models/prep/layers";
import type { ProductKind } from "#core/models/product/kinds";
import { KeptForm } from "~/kit/draft/draft-form";
import type { FormAnswer } from "~/kit/form/answer";
import { usePanel } from "~/kit/panel/use-panel";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";
import { capital } from "~/kit/words/capital";
import type { LayerRow } from "./layers-at";
import { AS_USUAL, NOT_SPRAYED, coatsField, productField } from "./layers.texts";

/** A product of the shelf that a layer may be sprayed with. */
export interface LayerProduct {
  id: string;
  name: string;
  kind: ProductKind;
  coats: number;
}

/** What goes on below the clear, layer by layer: with what, and how many coats. */
export function LayerPlanForm({
  rows,
  products,
  onDone,
}: {
  rows: readonly LayerRow[];
  products: readonly LayerProduct[];
  onDone: () => void;
}) {
  const { view } = usePanel();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  const stored = fetcher.state === "idle" && fetcher.data?.ok === true;
  useEffect(() => {
    if (stored) onDone();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the answer has come
  }, [stored]);
  const { layerPlan } = view.state;
  const shadeRight = layerPlan?.body.shadeRight ?? null;
  return (
    <KeptForm fetcher={fetcher} place="layers below" className="mt-3 space-y-3" data-testid="layer-plan">
      <input type="hidden" name="intent" value="layers" />
      <input type="hidden" name="formKey" value={`${view.formKey}-layers`} />
      <input type="hidden" name="planId" value={layerPlan?.id ?? ""} />
      <div className="grid gap-x-8 gap-y-2 lg:grid-cols-2">
        {layersUnder(view.state.coloured).map((layer) => (
          <LayerFields
            key={layer}
            layer={layer}
            row={rows.find((r) => r.layer === layer && r.planned)}
            products={products}
            errors={errors}
          />
        ))}
      </div>
      <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-[1fr_1fr_1fr_auto]">
        <Field
          label="Undercoat shade, by the colour's formula"
          name="shade"
          defaultValue={layerPlan?.body.shade ?? ""}
          errors={errors.shade}
          hint="the right one saves a coat or two of base"
        />
        <SelectField
          label="The undercoat has it"
          name="shadeRight"
          defaultValue={shadeRight === null ? "" : shadeRight ? "yes" : "no"}
          errors={errors.shadeRight}
        >
          <option value="">not looked at</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </SelectField>
        {!view.state.coloured && (
          <SelectField
            label="At the panel's edge the colour is"
            name="edge"
            defaultValue={layerPlan?.body.edge ?? ""}
            errors={errors.edge}
            hint="a blend hides a small difference, a butt leaves the neighbour alone"
          >
            <option value="">not said</option>
            {Object.entries(COLOUR_EDGES).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
        )}
        <button className="press self-start sm:mt-[23px]" data-kind="main" disabled={fetcher.state !== "idle"}>
          Keep it
        </button>
      </div>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}

function LayerFields({
  layer,
  row,
  products,
  errors,
}: {
  layer: LayerKey;
  row: LayerRow | undefined;
  products: readonly LayerProduct[];
  errors: Record<string, string[]>;
}) {
  const kinds: readonly ProductKind[] = LAYERS[layer].kinds;
  const fitting = products.filter((p) => kinds.includes(p.kind));
  return (
    <div className="grid grid-cols-[1fr_5.5rem] gap-3">
      <SelectField
        label={capital(LAYER_NAMES[layer])}
        name={productField(layer)}
        defaultValue={row ? (row.productId ?? AS_USUAL) : NOT_SPRAYED}
        errors={errors[productField(layer)] ?? errors[layer]}
      >
        <option value={NOT_SPRAYED}>not sprayed</option>
        <option value={AS_USUAL}>as usual, no sheet named</option>
        {fitting.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}, {p.coats} by its sheet
          </option>
        ))}
      </SelectField>
      <Field
        label="Coats"
        inputMode="numeric"
        name={coatsField(layer)}
        defaultValue={String(row?.coats ?? LAYERS[layer].sheet.coats)}
        errors={errors[coatsField(layer)]}
      />
    </div>
  );
}
