import { saveBoothPlan } from "#server/commands/booth-plan";
import { saveCard } from "#server/commands/cards";
import { changeJob, changePanel, jobVersion, panelVersion } from "#server/commands/change-brief";
import { saveGun } from "#server/commands/guns";
import { houseVersion, saveHouse } from "#server/commands/house";
import { saveProduct, setHouseWay, wayVersion } from "#server/commands/jobs";
import { ChangedMeanwhile } from "#server/commands/refusal";
import { addContainer, changeContainer } from "#server/commands/shelf";
import { saveWay } from "#server/commands/ways";
import { houseWay } from "#core/models/ways/house-ways";
import { houseWayBody } from "#core/models/ways/way-body";
import { getBoothPlan, rulesVersion } from "#server/repos/booth-plan-repo";
import { listCards } from "#server/repos/card-repo";
import { getContainer } from "#server/repos/container-repo";
import { getGun } from "#server/repos/gun-repo";
import { getJob } from "#server/repos/job-repo";
import { getPanel } from "#server/repos/panel-repo";
import { newestRevision } from "#server/repos/product-repo";
import { getShop } from "#server/repos/shop-repo";
import { getOwnWay } from "#server/repos/way-repo";
import { cardBody, sheet, testContext, testJob } from "#server/testing/fixtures";

const by = "painter A";
let ctx: Awaited<ReturnType<typeof testContext>>;
beforeEach(async () => {
  ctx = await testContext();
});
afterEach(() => ctx.db.destroy());

/** Something that a form changes: what it is called now, its version, and a form that gives it another name upon a version. */
interface Changed {
  now: () => Promise<{ name: string; version: string }>;
  save: (name: string, expected: string) => Promise<unknown>;
}

const KINDS = ["job", "panel", "a job's way", "house", "sheet", "gun", "way", "can", "card", "booth plan"] as const;

async function thing(kind: (typeof KINDS)[number]): Promise<Changed> {
  const { jobId, panelId, productId, revisionId } = await testJob(ctx);
  switch (kind) {
    case "job": {
      const job = async () => (await getJob(ctx.db, jobId))!;
      return {
        now: async () => ({ name: (await job()).vehicle, version: jobVersion(await job()) }),
        save: async (vehicle, expected) => {
          const now = await job();
          return changeJob(ctx, jobId, { ...now, vehicle, wayId: now.way.id }, { by, expected });
        },
      };
    }
    case "panel": {
      const panel = async () => (await getPanel(ctx.db, panelId))!;
      return {
        now: async () => ({ name: (await panel()).name, version: panelVersion(await panel()) }),
        save: async (name, expected) => changePanel(ctx, panelId, { ...(await panel()), name }, { by, expected }),
      };
    }
    case "a job's way": {
      // Its name here is what it is called in the first place: the two windows choose ways of the shop's own.
      const ids = new Map<string, string>();
      for (const name of ["first", "second"])
        ids.set(
          name,
          await saveWay(ctx, { id: null, version: null, body: houseWayBody.parse({ ...houseWay("two-full"), name }), clientKey: null }),
        );
      const job = async () => (await getJob(ctx.db, jobId))!;
      return {
        now: async () => ({ name: (await job()).way.name, version: wayVersion(await job()) }),
        save: (name, expected) => setHouseWay(ctx, { jobId, panelId, wayId: ids.get(name)!, expected }),
      };
    }
    case "house":
      return {
        now: async () => {
          const shop = await getShop(ctx.db);
          return { name: shop.name, version: houseVersion(shop) };
        },
        save: async (name, expected) => saveHouse(ctx, { ...(await getShop(ctx.db)), name }, expected),
      };
    case "sheet":
      return {
        now: async () => {
          const newest = (await newestRevision(ctx.db, productId))!;
          return { name: newest.sheet.name, version: newest.revisionId };
        },
        save: (name, expected) => saveProduct(ctx, { ...sheet, name }, productId, null, expected),
      };
    case "gun": {
      const settings = { turns: 2.5, pressure_Pa: 1.93e5, distance_m: 0.175, overlap: 0.5, handSpeed_m_s: 0.34 };
      const body = (name: string) => ({ name, nozzle_m: null, allTurns: 4, cups: [], fan: null, checks: [], settings });
      const id = await saveGun(ctx, { id: null, version: null, body: body("as it was"), clientKey: null });
      return {
        now: async () => {
          const gun = (await getGun(ctx.db, id))!;
          return { name: gun.body.name, version: String(gun.version) };
        },
        save: (name, version) => saveGun(ctx, { id, version, body: body(name), clientKey: null }),
      };
    }
    case "way": {
      const body = (name: string) => houseWayBody.parse({ ...houseWay("two-full"), name });
      const id = await saveWay(ctx, { id: null, version: null, body: body("as it was"), clientKey: null });
      return {
        now: async () => {
          const way = (await getOwnWay(ctx.db, id))!;
          return { name: way.name, version: String(way.version) };
        },
        save: (name, version) => saveWay(ctx, { id, version, body: body(name), clientKey: null }),
      };
    }
    case "can": {
      const can = { left_m3: 4e-4, opened_ms: null, keeping: "cold" as const };
      const id = await addContainer(ctx, { ...can, productId, batch: "as it was", size_m3: 1e-3 });
      return {
        now: async () => {
          const now = (await getContainer(ctx.db, id))!;
          return { name: now.batch, version: String(now.version) };
        },
        save: (batch, version) => changeContainer(ctx, { ...can, id, version, batch, gone: false }),
      };
    }
    case "card":
      await saveCard(ctx, { body: { ...cardBody, name: "as it was", productRevisionId: revisionId }, by });
      return {
        now: async () => {
          const card = (await listCards(ctx.db))[0]!;
          return { name: card.body.name, version: card.id };
        },
        save: (name, supersedes) => saveCard(ctx, { body: { ...cardBody, name }, by, supersedes }),
      };
    case "booth plan": {
      const start_ms = ctx.now_ms();
      const rules = { painters: 1, places: 4, mix_s: 300, potsMost: null, carryOut_s: 900, end_ms: null };
      // Its name: how many pots at most.
      const names = ["as it was", "first", "second"];
      const save = (name: string, expected: string | null) =>
        saveBoothPlan(
          ctx,
          {
            start_ms,
            parts: [{ panelId, sides: 1, group: null, spray_s: 300 }],
            rules: { ...rules, potsMost: 1 + names.indexOf(name) },
          },
          expected,
        );
      await save("as it was", rulesVersion(null));
      return {
        now: async () => {
          const { body } = (await getBoothPlan(ctx.db))!;
          return { name: names[body.rules.potsMost! - 1]!, version: rulesVersion(body) };
        },
        save,
      };
    }
  }
}

test.each(KINDS)(
  "two windows on the form of a %s: the second is told what stands there, overwrites nothing, and may send again upon it",
  async (kind) => {
    const { now, save } = await thing(kind);
    const seen = await now();
    await save("first", seen.version);
    const refused = await save("second", seen.version).then(
      () => null,
      (error: unknown) => error,
    );
    expect(refused).toBeInstanceOf(ChangedMeanwhile);
    const { there, version } = refused as ChangedMeanwhile;
    const first = await now();
    expect(first.name).toBe("first");
    expect(version).toBe(first.version);
    expect(JSON.stringify(there)).toContain(kind === "booth plan" ? '"potsMost":2' : "first");
    await save("second", version);
    expect((await now()).name).toBe("second");
  },
);
