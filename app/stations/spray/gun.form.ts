import type { GunBody } from "#core/models/spray/gun";
import { PATTERN_CHECK_IDS } from "#core/models/spray/gun-curve";
import { toSi } from "#core/kernel/units/convert";
import { parseQuantity } from "#core/kernel/units/parse";
import type { UnitPreferences } from "#core/kernel/units/quantities";
import { type TypedReader, readTyped } from "~/kit/form/read-typed";
import { initial } from "~/kit/form/initial";
import { GUN_LIMITS } from "~/kit/form/gun-limits";

const NOZZLE_M = 1e-3;
const MOST_CUPS = 12;
const MOST_NAME = 60;
export type CupTyped = Record<"turns" | "volume" | "time", string>;

/** A gun as its fields begin, in the units now shown. */
export const gunTexts = (gun: GunBody, units: UnitPreferences) => ({
  name: gun.name,
  nozzle: gun.nozzle_m === null ? "" : String(Number((gun.nozzle_m / NOZZLE_M).toFixed(2))),
  allTurns: String(gun.allTurns),
  turns: String(gun.settings.turns),
  pressure: initial("pressure", gun.settings.pressure_Pa, units),
  distance: initial("length", gun.settings.distance_m, units),
  overlap: initial("share", gun.settings.overlap, units),
  speed: initial("speed", gun.settings.handSpeed_m_s, units),
  fan: initial("length", gun.fan?.fan_m, units),
  fanAt: initial("length", gun.fan?.distance_m ?? gun.settings.distance_m, units),
  checks: gun.checks,
  cups: gun.cups.map((c) => ({ turns: String(c.turns), volume: initial("volume", c.volume_m3, units), time: String(c.time_s) })),
});

/** What stands there now of a gun that another window has changed: its plain fields. */
export const gunShown = (there: GunBody, units: UnitPreferences): Record<string, string> =>
  Object.fromEntries(Object.entries(gunTexts(there, units)).flatMap(([name, value]) => (typeof value === "string" ? [[name, value]] : [])));

/** A gun as typed. Cups come as three lists of one length; an empty row is no cup. */
export const readGun = (typed: Record<string, unknown>, units: UnitPreferences) =>
  readTyped(typed, units, (r): GunBody => {
    const name = r.text("name").trim();
    if (name === "") r.wrong("name", "Give the gun a name");
    if (name.length > MOST_NAME) r.wrong("name", `At most ${MOST_NAME} characters`);
    const nozzle = r.optional("nozzle", "count", { min: 0.3, max: 4 });
    const fan_m = r.optional("fan", "length", GUN_LIMITS.fan);
    const distance_m = r.optional("fanAt", "length", GUN_LIMITS.distance);
    if (fan_m !== null && distance_m === null) r.wrong("fanAt", "At which distance was it seen?");
    const checks = r.list("checks");
    return {
      name,
      nozzle_m: nozzle === null ? null : nozzle * NOZZLE_M,
      allTurns: r.quantity("allTurns", "count", { min: 1.5, max: 10 }),
      cups: readCups(r, units),
      fan: fan_m !== null && distance_m !== null ? { fan_m, distance_m } : null,
      checks: PATTERN_CHECK_IDS.filter((id) => checks.includes(id)),
      settings: {
        turns: r.quantity("turns", "count", GUN_LIMITS.turns),
        pressure_Pa: r.quantity("pressure", "pressure", GUN_LIMITS.pressure),
        distance_m: r.quantity("distance", "length", GUN_LIMITS.distance),
        overlap: r.quantity("overlap", "share", GUN_LIMITS.overlap),
        handSpeed_m_s: r.quantity("speed", "speed", GUN_LIMITS.handSpeed),
      },
    };
  });

function readCups(r: TypedReader, units: UnitPreferences): GunBody["cups"] {
  const [turnsTyped, volumes, times] = ["cupTurns", "cupVolume", "cupTime"].map((name) => r.list(name)) as [string[], string[], string[]];
  return turnsTyped.slice(0, MOST_CUPS).flatMap((turnsText, i) => {
    const volumeText = volumes[i] ?? "";
    if (turnsText.trim() === "" && volumeText.trim() === "") return [];
    const turns = parseQuantity("count", turnsText, "");
    const volume = parseQuantity("volume", volumeText, units.volume);
    const time = parseQuantity("count", times[i] ?? "", "");
    if (!turns.ok || turns.si < 0.1 || turns.si > 10) r.wrong(`cupTurns-${i}`, turns.ok ? "Between 0.1 and 10 turns" : turns.message);
    if (!volume.ok || volume.si <= 0 || volume.si > 2e-3)
      r.wrong(`cupVolume-${i}`, volume.ok ? "Above 0 and below 2 litres" : volume.message);
    if (!time.ok || time.si < 1 || time.si > 600) r.wrong(`cupTime-${i}`, time.ok ? "Between 1 and 600 s" : time.message);
    return turns.ok && volume.ok && time.ok ? [{ turns: turns.si, volume_m3: volume.si, time_s: time.si }] : [];
  });
}

export const newGun: GunBody = {
  name: "",
  nozzle_m: 1.3e-3,
  allTurns: 5,
  cups: [],
  fan: null,
  checks: [],
  settings: { turns: 2.25, pressure_Pa: toSi("pressure", 28, "psi"), distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 },
};
