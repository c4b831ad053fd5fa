import { readRatio } from "#core/models/product/ratio";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { readTyped } from "~/kit/form/read-typed";

const MEANINGS = ["activated", "finished"] as const;

/** The figures of one mix as typed; the page reads them live. */
export const readMixDesk = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r) => {
    const ratio = readRatio(r.text("ratio"));
    if (!ratio.ok) r.wrong("ratio", ratio.message);
    else if (ratio.reducer) r.wrong("ratio", "Type its reducer in the field of the reducer");
    return {
      ratio: ratio.ok ? ratio.parts : [],
      reducer: r.quantity("reducer", "share", { min: 0, max: 0.9 }),
      meaning: r.oneOf("meaning", MEANINGS),
      coats: r.whole("coats", 1, 12),
      film: r.quantity("film", "film", { min: 0.5e-6, max: 300e-6 }),
      transfer: r.quantity("transfer", "share", { min: 0.1, max: 1 }),
      waste: r.quantity("waste", "share", { min: 0, max: 1 }),
      dead: r.quantity("dead", "volume", { min: 0, max: 1e-3 }),
      temperature: r.quantity("temperature", "temperature", { min: 278.15, max: 313.15 }),
      pot: r.quantity("pot", "volume", { min: 50e-6, max: 0.02 }),
      limit: r.optional("limit", "concentration", { min: 1, max: 1500 }),
      matting: r.optional("matting", "share", { min: 0, max: 1 }),
    };
  });
type MixFigures = Extract<ReturnType<typeof readMixDesk>, { success: true }>["data"];
export type MixTyped = Record<keyof MixFigures, string>;
