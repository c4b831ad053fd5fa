import fc from "fast-check";
import { addPerson } from "../commands/people";
import { recordEntry, strikeEntry } from "../commands/record-entry";
import type { ServerContext } from "../context";
import { listEntries } from "../repos/ledger-repo";
import { readingBody, testContext, testJob } from "../testing/fixtures";
import type { Actor } from "./actor";
import { othersEntries } from "./others-entries";
import type { Role } from "./rights";

const in_ = (ctx: ServerContext, actor: Actor): ServerContext => ({ ...ctx, actor });

test("what a page offers nobody to take out is exactly what is refused when it is taken out, for every role and whoever wrote it", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(fc.nat(3), { minLength: 2, maxLength: 8 }), fc.nat(3), async (writers, reader) => {
      const ctx = await testContext();
      const { panelId } = await testJob(ctx);
      const person = async (name: string, role: Exclude<Role, "owner">, pin: string): Promise<Actor> => ({
        role,
        name,
        personId: await addPerson(ctx, { name, role, pin, clientKey: null }),
        deviceId: null,
      });
      const people: Actor[] = [
        await person("Painter A", "painter", "4071"),
        await person("Apprentice", "apprentice", "5082"),
        await person("Apprentice B", "apprentice", "6093"),
        { role: "owner", personId: null, name: null, deviceId: null },
      ];
      for (const [i, who] of writers.entries()) {
        ctx.advance(1000);
        await recordEntry(in_(ctx, people[who]!), { panelId, kind: "reading", body: readingBody("after", String(i), 110), by: "" });
      }
      const asks = in_(ctx, people[reader]!);
      const held = await othersEntries(asks.actor, ctx.db, panelId);
      const refused: string[] = [];
      for (const { id } of await listEntries(ctx.db, panelId))
        await strikeEntry(asks, id, { by: "", reason: "" }).catch((error: { status?: number }) => {
          expect(error.status).toBe(403);
          refused.push(id);
        });
      expect(held.sort()).toEqual(refused.sort());
    }),
    { numRuns: 12 },
  );
});
