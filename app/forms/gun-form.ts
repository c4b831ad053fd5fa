import { z } from "zod";
import type { GunBody } from "#core/spray/gun";
import { PATTERN_CHECK_IDS } from "#core/spray/gun-curve";
import { toSi } from "#core/units/convert";
import { parseQuantity } from "#core/units/parse";
import type { UnitPreferences } from "#core/units/quantities";
import { optionalQuantity, quantity } from "./fields";
import { GUN_LIMITS } from "./spray-forms";

const NOZZLE_M = 1e-3;
const MOST_CUPS = 12;
const list = z
  .union([z.string(), z.array(z.string())])
  .optional()
  .transform((v) => (v === undefined ? [] : Array.isArray(v) ? v : [v]));

export interface CupTyped {
  turns: string;
  volume: string;
  time: string;
}

/** A gun as typed. Cups come as three lists of one length; an empty row is no cup. */
export const gunForm = (units: UnitPreferences) =>
  z
    .object({
      name: z.string({ error: "Give the gun a name" }).trim().min(1, "Give the gun a name").max(60),
      nozzle: optionalQuantity("count", units, { min: 0.3, max: 4 }),
      allTurns: quantity("count", units, { min: 1.5, max: 10 }),
      turns: quantity("count", units, GUN_LIMITS.turns),
      pressure: quantity("pressure", units, GUN_LIMITS.pressure),
      distance: quantity("length", units, GUN_LIMITS.distance),
      overlap: quantity("share", units, GUN_LIMITS.overlap),
      speed: quantity("speed", units, GUN_LIMITS.handSpeed),
      fan: optionalQuantity("length", units, GUN_LIMITS.fan),
      fanAt: optionalQuantity("length", units, GUN_LIMITS.distance),
      checks: list,
      cupTurns: list,
      cupVolume: list,
      cupTime: list,
    })
    .transform((v, ctx): GunBody => {
      if (v.fan !== null && v.fanAt === null) ctx.addIssue({ code: "custom", path: ["fanAt"], message: "At which distance was it seen?" });
      const cups = v.cupTurns.slice(0, MOST_CUPS).flatMap((turnsText, i) => {
        const volumeText = v.cupVolume[i] ?? "";
        if (turnsText.trim() === "" && volumeText.trim() === "") return [];
        const turns = parseQuantity("count", turnsText, "");
        const volume = parseQuantity("volume", volumeText, units.volume);
        const time = parseQuantity("count", v.cupTime[i] ?? "", "");
        const wrong = (field: string, message: string) => ctx.addIssue({ code: "custom", path: [`${field}-${i}`], message });
        if (!turns.ok || turns.si < 0.1 || turns.si > 10) wrong("cupTurns", turns.ok ? "Between 0.1 and 10 turns" : turns.message);
        if (!volume.ok || volume.si <= 0 || volume.si > 2e-3) wrong("cupVolume", volume.ok ? "Above 0 and below 2 litres" : volume.message);
        if (!time.ok || time.si < 1 || time.si > 600) wrong("cupTime", time.ok ? "Between 1 and 600 s" : time.message);
        return turns.ok && volume.ok && time.ok ? [{ turns: turns.si, volume_m3: volume.si, time_s: time.si }] : [];
      });
      return {
        name: v.name,
        nozzle_m: v.nozzle === null ? null : v.nozzle * NOZZLE_M,
        allTurns: v.allTurns,
        cups,
        fan: v.fan !== null && v.fanAt !== null ? { fan_m: v.fan, distance_m: v.fanAt } : null,
        checks: PATTERN_CHECK_IDS.filter((id) => v.checks.includes(id)),
        settings: { turns: v.turns, pressure_Pa: v.pressure, distance_m: v.distance, overlap: v.overlap, handSpeed_m_s: v.speed },
      };
    });

export const newGun: GunBody = {
  name: "",
  nozzle_m: 1.3e-3,
  allTurns: 5,
  cups: [],
  fan: null,
  checks: [],
  settings: { turns: 2.25, pressure_Pa: toSi("pressure", 28, "psi"), distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 },
};
