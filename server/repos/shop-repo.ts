import { z } from "zod";
import { readOnce } from "./read-once";
import { ROLES } from "../interchange/readings-csv";
import { lineProfileBody } from "#core/models/devices/line-profile";
import { type ShopRemoval, UNMEASURED_REMOVAL } from "#core/models/correction/clearing";
import { DEFAULT_RATES } from "#core/judge/option-figures";
import { DEFAULT_FLOOR_M } from "#core/judge/limits";
import type { ShopFactors } from "#core/models/flow/simulate-coats";
import { QUANTITIES } from "#core/kernel/units/quantities";
import type { Db, Tx } from "../db/open";

export const MOST_PROFILES = 20;
const unitsOf = <K extends string>(units: Record<K, unknown>) => z.enum(Object.keys(units) as [K, ...K[]]);
export const unitPreferences = z.object({
  film: unitsOf(QUANTITIES.film.units),
  length: unitsOf(QUANTITIES.length.units),
  temperature: unitsOf(QUANTITIES.temperature.units),
  pressure: unitsOf(QUANTITIES.pressure.units),
  volume: unitsOf(QUANTITIES.volume.units),
});

const learntFactor = z
  .object({ factor: z.number().min(0.2).max(5), u_log: z.number().positive().max(1), n: z.int().min(1) })
  .nullable()
  .default(null);

/** How the columns of a file were matched, for the next file with the same heading. */
const importProfile = z.object({ columns: z.array(z.string()), roles: z.array(z.enum(ROLES)), filmUnit: z.enum(["µm", "mil"]) });
export type ImportProfile = z.infer<typeof importProfile>;

export const shopSettings = z.object({
  name: z.string().trim().min(1, "Give the shop a name").max(80).default("Our shop"),
  wayId: z.string().max(80).default("two-full"),
  floor_m: z.number().min(5e-6, "Below 5 µm is no floor").max(200e-6, "Above 200 µm no panel would pass").default(DEFAULT_FLOOR_M),
  readingsPerSpot: z.int().min(1).max(5).default(3),
  /** Film this shop lays against the model, as learnt and taken over; null: the model as it is. */
  learntFilm: learntFactor,
  /** The same for levelling and sag (which panels ran), and for the drops' noise (texture ratings). */
  learntRuns: learntFactor,
  learntTexture: learntFactor,
  /** And for what sanding and polishing takes off. */
  learntRemoval: learntFactor,
  /** One pass of single steps, by grit, backing and tool, measured at a mark. */
  learntSteps: z
    .record(
      z.string().max(60),
      z.object({ removal_m: z.number().positive().max(1e-4), u_m: z.number().min(0).max(1e-4), n: z.int().min(1) }),
    )
    .default({}),
  /** What an hour of work costs, and a panel that comes back, in the shop's own money. */
  rates: z
    .object({
      labourPerHour: z.number().min(0).max(10_000),
      rejected: z.number().min(0).max(1e6),
      waitingPerDay: z.number().min(0).max(1e5).default(DEFAULT_RATES.waitingPerDay),
    })
    .default({ ...DEFAULT_RATES }),
  /** Simulated devices may fill in readings. Off in a shop that works; the demo has them on. */
  standIns: z.boolean().default(false),
  importProfiles: z.array(importProfile).max(MOST_PROFILES).default([]),
  /** How the lines of instruments on a serial port are read. */
  lineProfiles: z.array(lineProfileBody).max(MOST_PROFILES).default([]),
  /** Words for parts, and paper; null: as its units suggest. */
  region: z.enum(["british", "american"]).nullable().default(null),
  /** A folder on another disk, where every backup lies a second time; null: none was chosen. */
  secondPlace: z.string().max(500).nullable().default(null),
  /** How often the booth changes its air in an hour; null: nobody has said. */
  airChanges_1_h: z.number().min(0.5).max(500).nullable().default(null),
  units: unitPreferences.default({ film: "µm", length: "mm", temperature: "°C", pressure: "bar", volume: "ml" }),
});
export type ShopSettings = z.infer<typeof shopSettings>;

const readSettings = readOnce(shopSettings);

export async function getShop(db: Db): Promise<ShopSettings> {
  const row = await db.selectFrom("shop").select("settings_json").executeTakeFirst();
  return readSettings(row ? row.settings_json : "{}");
}

export async function saveShop(db: Tx, settings: ShopSettings, now_ms: number): Promise<void> {
  const row = { settings_json: JSON.stringify(settings), updated_at_ms: now_ms };
  await db
    .insertInto("shop")
    .values({ id: 1, ...row })
    .onConflict((c) => c.column("id").doUpdateSet(row))
    .execute();
}

/** Whose words for parts and whose paper a shop uses: its own choice; one that reads mil and has not chosen speaks American. */
export type Region = NonNullable<ShopSettings["region"]>;
export const shopRegion = ({ region, units }: Pick<ShopSettings, "region" | "units">): Region =>
  region ?? (units.film === "mil" ? "american" : "british");

/** What this shop takes off, as taken over. */
export const shopRemoval = (shop: ShopSettings): ShopRemoval => ({
  whole: shop.learntRemoval ?? UNMEASURED_REMOVAL.whole,
  steps: shop.learntSteps,
});

/** The shop's factors on the flow model. */
export const shopFactors = (shop: ShopSettings): ShopFactors => ({
  film: shop.learntFilm?.factor ?? 1,
  levelling: shop.learntRuns?.factor ?? 1,
  noise: shop.learntTexture?.factor ?? 1,
});
