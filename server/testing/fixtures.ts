import type { CardBody } from "#core/models/cards/card";
import { testCard } from "#core/models/cards/testing/test-card";
import { panelShape } from "#core/kernel/geometry/shapes";
import { TEST_SHEET, typedFilm } from "#core/panel/testing/test-ledger";
import { changeShop } from "../commands/house";
import { createJob, saveProduct } from "../commands/jobs";
import { type ServerContext, createContext } from "../context";
import { migrate, openDatabase } from "../db/open";

/** A context on a database in memory, with stand-ins switched on and a clock that the test moves. */
export async function testContext(): Promise<ServerContext & { advance(ms: number): void }> {
  const db = openDatabase(":memory:");
  await migrate(db);
  let now_ms = Date.UTC(2026, 4, 6, 8);
  let count = 0;
  const ctx = createContext(db, { now_ms: () => now_ms, newId: () => `id-${++count}` });
  await changeShop(ctx, (now) => ({ ...now, standIns: true }));
  return { ...ctx, advance: (ms) => (now_ms += ms) };
}

export const sheet = TEST_SHEET;

/** A matte card, sprayed upright and dried in the air. */
export const cardBody: CardBody = testCard({
  name: "Half",
  mix: "50 : 50",
  mattingShare: 0.5,
  base: "grey base",
  place: "board",
  gloss: [{ angle: 60, gloss_GU: 34 }],
});

export const coatBody = (number: number) => ({
  number,
  role: "full wet",
  reducer: 0,
  wetReading_m: null,
  settings: {
    fluidRate_m3_s: 230e-6 / 60,
    fluidFrom: "measured" as const,
    turns: null,
    pressure_Pa: 1.93e5,
    distance_m: 0.175,
    overlap: 0.5,
    handSpeed_m_s: 0.34,
    fan_m: null,
  },
});

export const readingBody = (phase: "before" | "after" | "recheck", spot: string, film_um: number, at = { x_m: 0.5, y_m: 0.4 }) => ({
  phase,
  spot,
  at,
  gauge: "typed",
  readings: [typedFilm(film_um)],
});

/** A shop with one product and one job of one panel. */
export async function testJob(ctx: ServerContext, clientKey: string | null = null, own: Partial<typeof sheet> = {}) {
  const product = await saveProduct(ctx, { ...sheet, ...own });
  const job = await createJob(ctx, {
    vehicle: "Test estate",
    colourName: "grey",
    colourCss: "#888888",
    finish: "flat",
    wayId: "two-full",
    clientKey,
    panel: {
      name: "Bonnet",
      shape: panelShape("bonnet", { width_m: 1.4, height_m: 1.2 }),
      tilt_rad: 0,
      substrate: "refinish",
      productRevisionId: product.revisionId,
      coatsPlanned: 2,
    },
  });
  return { ...job, ...product };
}
