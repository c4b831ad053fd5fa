import { z } from "zod";
import { keysOf } from "#core/kernel/keys";
import { COLOUR_EDGES, type ColourEdge, LAYER_KEYS } from "#core/models/prep/layer-names";
import { MOST_LAYER_COATS } from "#core/record/bodies";
import { wholeNumber } from "~/kit/form/fields";
import { AS_USUAL, NOT_SPRAYED, coatsField, productField } from "./layers.texts";

const fields = Object.fromEntries(
  LAYER_KEYS.flatMap((layer) => [
    [productField(layer), z.string().max(80).default(NOT_SPRAYED)],
    [coatsField(layer), z.string().max(8).default("")],
  ]),
) as Record<string, z.ZodDefault<z.ZodString>>;

const coatsTyped = wholeNumber(1, MOST_LAYER_COATS);

/** What goes on below the clear, as typed. */
export const layersForm = z
  .object({
    ...fields,
    shade: z.string().trim().max(40, "At most 40 characters").default(""),
    shadeRight: z.enum(["", "yes", "no"]).default(""),
    edge: z.enum(["", ...keysOf<ColourEdge>(COLOUR_EDGES)]).default(""),
    planId: z.string().max(80).default(""),
  })
  .transform((typed, ctx) => {
    const text = typed as Record<string, string>;
    const layers = LAYER_KEYS.flatMap((layer) => {
      const product = text[productField(layer)]!;
      if (product === NOT_SPRAYED) return [];
      const coats = coatsTyped.safeParse(text[coatsField(layer)]);
      if (!coats.success) {
        ctx.addIssue({ code: "custom", path: [coatsField(layer)], message: coats.error.issues[0]!.message });
        return [];
      }
      return [{ layer, coats: coats.data, productId: product === AS_USUAL ? null : product }];
    });
    return {
      layers,
      shade: typed.shade,
      shadeRight: typed.shadeRight === "" ? null : typed.shadeRight === "yes",
      edge: typed.edge === "" ? null : typed.edge,
      upon: typed.planId || null,
    };
  });

/** Which layer a coat is of, and which of them the form said it is. */
export const layerForm = z.object({ layer: z.enum(LAYER_KEYS) });
