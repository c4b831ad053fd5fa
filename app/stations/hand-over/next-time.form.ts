import { z } from "zod";
import type { SprayedPanel } from "#core/panel/next-time";

/** A panel of the shop whose settings are taken over. */
export const takeSettingsForm = (panels: readonly SprayedPanel[]) =>
  z.object({ panelId: z.string() }).transform(({ panelId }, ctx) => {
    const found = panels.find((p) => p.panelId === panelId);
    if (found) return found;
    ctx.addIssue({ code: "custom", path: ["panelId"], message: "That panel is no longer in the file" });
    return z.NEVER;
  });
