import { z } from "zod";
import { CAUSE_IDS } from "#core/defects/causes";
import { OBSERVATION_IDS } from "#core/defects/observations";
import type { SprayedPanel } from "#core/ledger/next-time";
import { DEFECTS, type DefectKind } from "#core/ledger/kinds";

const kind = z.enum(Object.keys(DEFECTS) as [DefectKind, ...DefectKind[]]);

/** One answer to a question about a defect; "unknown" takes an answer back. */
export const causeAnswerForm = z
  .object({ kind, id: z.enum(OBSERVATION_IDS), answer: z.enum(["yes", "no", "unknown"]) })
  .transform(({ answer, ...rest }) => ({ ...rest, so: answer === "unknown" ? null : answer === "yes" }));

/** The painter's final word. */
export const causeWordForm = z.object({ kind, causeId: z.enum(CAUSE_IDS) });

/** A kind of defect out of an address; null when it is none. */
export function defectKindOf(text: string | null): DefectKind | null {
  const parsed = kind.safeParse(text);
  return parsed.success ? parsed.data : null;
}

/** A panel of the shop whose settings are taken over. */
export const takeSettingsForm = (panels: readonly SprayedPanel[]) =>
  z.object({ panelId: z.string() }).transform(({ panelId }, ctx) => {
    const found = panels.find((p) => p.panelId === panelId);
    if (found) return found;
    ctx.addIssue({ code: "custom", path: ["panelId"], message: "That panel is no longer in the file" });
    return z.NEVER;
  });
