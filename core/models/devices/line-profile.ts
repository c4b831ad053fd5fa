import { z } from "zod";
import { LINE_KINDS, LINE_VALUES, type LineKind, type LineValue, MOST_NUMBERS } from "./line";

const usb = z.object({ vendorId: z.int().min(0).max(0xffff), productId: z.int().min(0).max(0xffff) });
/** How the lines of one instrument are read: which of them, and which number in them is what. */
export const lineProfileBody = z
  .object({
    name: z.string().trim().min(1, "Give the device a name").max(40, "At most 40 letters"),
    kind: z.enum(Object.keys(LINE_KINDS) as [LineKind, ...LineKind[]]),
    baudRate: z.int().min(300).max(921_600),
    /** Only lines with this text are read; empty: all. */
    holds: z.string().max(40).default(""),
    /** Which number of the line, from 1, and in which unit. */
    values: z.partialRecord(
      z.enum(Object.keys(LINE_VALUES) as [LineValue, ...LineValue[]]),
      z.object({ nth: z.int().min(1).max(MOST_NUMBERS), unit: z.string().max(4) }),
    ),
    /** By which it is known again; null: the port tells nothing of itself. */
    usb: usb.nullable().default(null),
  })
  .superRefine(({ kind, values }, issues) => {
    for (const what of LINE_KINDS[kind].needs)
      if (!values[what])
        issues.addIssue({ code: "custom", path: ["values", what], message: `Tap the number that is the ${LINE_VALUES[what].name}` });
    for (const [what, value] of Object.entries(values))
      if (value && !Object.hasOwn(LINE_VALUES[what as LineValue].units, value.unit))
        issues.addIssue({ code: "custom", path: ["values", what], message: "This unit is not one of it" });
  });
export type LineProfile = z.infer<typeof lineProfileBody>;
