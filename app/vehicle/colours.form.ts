import { z } from "zod";
import { PART_COLOURS, type PartColour } from "#core/models/colour/job-colours";
import { jobColoursBody } from "#core/models/colour/job-colours-body";
import { PART_FIELD } from "./colours.words";

/** Colours of a vehicle as they are typed: without a name there is no second one. */
export const coloursForm = z.record(z.string(), z.unknown()).transform((fields, ctx) => {
  const { second: name, secondCss: css, paint } = fields;
  const read = jobColoursBody.safeParse({
    second: typeof name === "string" && name.trim() !== "" ? { name, css } : null,
    paint: paint === "" ? null : paint,
  });
  for (const { path, message } of read.error?.issues ?? [])
    ctx.addIssue({ code: "custom", path: [path[0] === "paint" ? "paint" : path[1] === "css" ? "secondCss" : "second"], message });
  const parts = new Map<string, PartColour>();
  for (const [field, value] of Object.entries(fields)) {
    const colour = PART_COLOURS.find((c) => c === value);
    if (!field.startsWith(PART_FIELD)) continue;
    if (colour) parts.set(field.slice(PART_FIELD.length), colour);
    else ctx.addIssue({ code: "custom", path: [field], message: "One of the colours" });
  }
  return read.success ? { colours: read.data, parts } : z.NEVER;
});
