import { livingEntries } from "#core/record/timeline";
import { ENTRY_KINDS, type EntryKind } from "#core/record/bodies";
import { seededRandom } from "#core/kernel/stats/random";
import { Refusal } from "#server/commands/refusal";
import { archiveJob, createJob } from "#server/commands/jobs";
import { recordEntry } from "#server/commands/record-entry";
import type { ServerContext } from "#server/context";
import { listEntries } from "#server/repos/ledger-repo";
import { type Panel, getPanel } from "#server/repos/panel-repo";
import { getJob } from "#server/repos/job-repo";
import { anyBody } from "./any-body";
import { type Shown, addFault, everyPage, look, nothingShown, onOwnServer, takeOut } from "./every-page";
import { pickBy } from "./harness";

/** What of an entry a fault is told with. */
const told = (kind: string, body: unknown) => `${kind} ${JSON.stringify(body).slice(0, 400)}`;

/**
 * The law: whatever is accepted can be shown, and taken out. Random bodies that the ledger's own schema takes, of all kinds, in and out of line, on
 * empty panels and on the demo's, through the command of every form; then every page of panel, job and shop answers below 500, and each entry comes out.
 * @param entries how many to send @param each how many at most between two looks at the pages
 */
export async function accepted(
  demo: string,
  {
    entries,
    each = 12,
    seed,
    kinds = ENTRY_KINDS,
    html = 0.3,
  }: { entries: number; each?: number; seed: number; kinds?: readonly EntryKind[]; html?: number },
  onRound: (so: Shown) => void = () => {},
): Promise<Shown> {
  const random = seededRandom(seed);
  const pick = pickBy(random);
  const so = nothingShown();
  await onOwnServer(demo, async (server, ctx) => {
    const models = await ctx.db.selectFrom("panel").select(["id"]).execute();
    const lookers = { server, so, random, html };
    while (so.entries < entries) {
      const model = (await getPanel(ctx.db, pick(models).id))!;
      const { jobId, panelId } = await copyOf(ctx, model, random() < 0.6);
      const written: { id: string; kind: EntryKind; body: unknown }[] = [];
      const count = 1 + Math.floor(each * random() ** 2);
      const mine = pick(kinds);
      for (let i = 0; i < count && so.entries < entries; i++) {
        const living = livingEntries(await listEntries(ctx.db, panelId)).filter((e) => e.kind !== "strike");
        const kind = random() < 0.4 ? mine : pick(kinds);
        const same = living.filter((e) => e.kind === kind);
        const supersedes =
          kind === "strike" ? (living.length > 0 ? pick(living).id : null) : same.length > 0 && random() < 0.2 ? pick(same).id : null;
        const body = withReferences(anyBody(kind, random), living, random);
        so.entries++;
        try {
          const at_ms = random() < 0.8 ? ctx.now_ms() : Math.floor(ctx.now_ms() * (1 + 0.02 * (random() - 0.6)));
          const id = await recordEntry(ctx, {
            panelId,
            kind,
            body: body as never,
            by: "painter A",
            at_ms,
            simulated: random() < 0.2,
            supersedes,
          });
          if (kind !== "strike") written.push({ id, kind, body });
        } catch (error) {
          if (error instanceof Refusal) so.refused++;
          else addFault(so, String((error as Error).message).slice(0, 120), { where: "write", story: told(kind, body) });
        }
      }
      const story = written.map((w) => told(w.kind, w.body)).join("\n       ");
      const everywhere = () => everyPage(lookers, { jobId, panelId, entryId: written.length > 0 ? pick(written).id : null, story });
      await everywhere();
      if (random() < 0.1) await look(lookers, `/do/panels/${panelId}/report.pdf`, { ids: [jobId, panelId], story });
      for (const { id, kind, body } of written) await takeOut(lookers, { id, kind, story: told(kind, body) });
      if (random() < 0.2) await everywhere();
      // Most are put away again: the lists stay as long as a real shop's.
      if (random() < 0.9) await archiveJob(ctx, jobId, true);
      onRound(so);
    }
  });
  return so;
}

/** A panel like one of the demo's in a job of its own, with its entries or empty. */
async function copyOf(ctx: ServerContext, model: Panel, withEntries: boolean): Promise<{ jobId: string; panelId: string }> {
  const job = (await getJob(ctx.db, model.jobId))!;
  const { name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides } = model;
  const panel = { name, shape, tilt_rad, substrate, productRevisionId, coatsPlanned, sides };
  const { vehicle, colourName, colourCss, finish, way, brief } = job;
  const made = await createJob(ctx, { vehicle, colourName, colourCss, finish, wayId: way.id, way, brief, panel, clientKey: null });
  if (withEntries)
    for (const e of livingEntries(await listEntries(ctx.db, model.id))) {
      if (e.kind === "strike" || e.kind === "step" || e.kind === "stepStart") continue;
      await recordEntry(ctx, {
        panelId: made.panelId,
        kind: e.kind,
        body: e.body,
        by: e.by,
        at_ms: e.at_ms,
        simulated: e.simulated,
      });
    }
  return made;
}

/** Entries that name another (a plan's step, a pot's coat) mostly name one that is there. */
function withReferences(body: unknown, living: readonly { id: string; kind: EntryKind }[], random: () => number): unknown {
  if (typeof body !== "object" || body === null || random() < 0.2) return body;
  const of = (kind: EntryKind) => living.filter((e) => e.kind === kind).at(-1)?.id;
  const set = body as Record<string, unknown>;
  if ("planId" in set) set.planId = of("plan") ?? set.planId;
  if ("potId" in set) set.potId = of("mix") ?? set.potId;
  if ("index" in set) set.index = Math.floor(4 * random());
  if ("number" in set && random() < 0.5) set.number = 1 + living.filter((e) => e.kind === "coat").length;
  return body;
}
