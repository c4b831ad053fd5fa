import { z } from "zod";
import { ROW_BOUNDS } from "../bounds";
import type { RowPlan } from "./row-plan";

const within = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

/** Where the rows of a part lie, as it is stored and exchanged. */
export const rowPlanBody: z.ZodType<RowPlan> = z.strictObject({
  turned: z.boolean(),
  first_m: within(ROW_BOUNDS.first_m),
  even: z.boolean(),
  overrun_m: within(ROW_BOUNDS.overrun_m),
  staggered: z.boolean(),
  endsFirst: z.boolean(),
});
