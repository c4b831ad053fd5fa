import { z } from "zod";
import { keysOf } from "../../kernel/keys";
import { type BenchHabits, NIB_TOOLS, POLISHERS, POLISHING, USUAL_HABITS, WET_OR_DRY } from "./bench-habits";

/** A shop's habits as they are stored. */
export const benchHabitsBody = z.object({
  polishing: z.enum(keysOf<BenchHabits["polishing"]>(POLISHING)).default(USUAL_HABITS.polishing),
  polisher: z.enum(keysOf<BenchHabits["polisher"]>(POLISHERS)).default(USUAL_HABITS.polisher),
  discs: z.enum(keysOf<BenchHabits["discs"]>(WET_OR_DRY)).default(USUAL_HABITS.discs),
  guardCut: z.enum(keysOf<BenchHabits["guardCut"]>(WET_OR_DRY)).default(USUAL_HABITS.guardCut),
  nibTool: z.enum(keysOf<BenchHabits["nibTool"]>(NIB_TOOLS)).default(USUAL_HABITS.nibTool),
}) satisfies z.ZodType<BenchHabits>;
