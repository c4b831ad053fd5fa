import type { Substrate } from "#core/panel/brief";
import { SHAPES, type ShapeKind, panelShape, suggestSpots } from "#core/kernel/geometry/shapes";
import type { UnitOf } from "#core/kernel/units/quantities";
import { parseQuantity } from "#core/kernel/units/parse";
import type { ServerContext } from "../context";
import { createJob } from "./jobs";
import { type EntryInput, recordEntries } from "./record-entry";
import { getShop } from "../repos/shop-repo";

/** Makes a job of a quick question, with its readings on the panel; rows that are no number are left out, as they were in the answer. */
export async function keepAsJob(
  ctx: ServerContext,
  input: {
    shape: ShapeKind;
    substrate: Substrate;
    productRevisionId: string;
    unit: UnitOf<"film">;
    /** What the panel is called. */
    panelName: string;
    rows: readonly { before: string; after: string }[];
    formKey: string;
    by: string;
  },
): Promise<{ jobId: string; panelId: string }> {
  const [width_m, height_m] = SHAPES[input.shape].size_m;
  const shape = panelShape(input.shape, { width_m, height_m });
  const { wayId } = await getShop(ctx.db);
  const job = await createJob(ctx, {
    vehicle: "Quick question",
    colourName: "",
    colourCss: "#4a5a66",
    finish: "asSprayed",
    wayId,
    clientKey: input.formKey,
    panel: {
      name: input.panelName,
      shape,
      tilt_rad: 0,
      substrate: input.substrate,
      productRevisionId: input.productRevisionId,
      coatsPlanned: 1,
    },
  });
  const places = suggestSpots(shape.outline, input.rows.length);
  const entries = input.rows.flatMap((row, i) =>
    (["before", "after"] as const).flatMap((phase): EntryInput<"reading">[] => {
      const parsed = parseQuantity("film", row[phase], input.unit);
      if (!parsed.ok || parsed.si < 0 || parsed.si > 5e-3) return [];
      const [x_m, y_m] = places[i]!;
      const reading = { thickness_m: parsed.si, entered: parsed.entered, unit: parsed.unit };
      return [
        {
          panelId: job.panelId,
          kind: "reading",
          by: input.by,
          body: { phase, spot: String(i + 1), at: { x_m, y_m }, gauge: "typed", readings: [reading] },
        },
      ];
    }),
  );
  const [first, ...rest] = entries;
  if (first) await recordEntries(ctx, job.panelId, [{ ...first, clientKey: `${input.formKey}-readings` }, ...rest]);
  return job;
}
