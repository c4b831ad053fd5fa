import { livingEntries } from "#core/record/timeline";
import { ENTRY_KINDS, type EntryKind } from "#core/record/bodies";
import { seededRandom } from "#core/kernel/stats/random";
import { Refusal } from "#server/commands/refusal";
import { archiveJob, createJob } from "#server/commands/jobs";
import { recordEntry } from "#server/commands/record-entry";
import { type ServerContext, createContext } from "#server/context";
import { databaseFile, openDatabase } from "#server/db/open";
import { listEntries } from "#server/repos/ledger-repo";
import { type Panel, getPanel } from "#server/repos/panel-repo";
import { getJob } from "#server/repos/job-repo";
import { anyBody } from "./any-body";
import { TrialServer, ownFolder } from "./harness";

/** Pages of a panel, of its job, of the shop; each may show what was logged. */
export const PANEL_PAGES = [
  "course",
  "plan",
  "plan/mix",
  "plan/gloss",
  "plan/neighbour",
  "spray",
  "spray/below",
  "spray/mend",
  "spray/ready",
  "spray/gun",
  "spray/coat-plan",
  "spray/window",
  "spray/cure",
  "inspect",
  "inspect/map",
  "inspect/time",
  "inspect/photo",
  "inspect/reflection",
  "inspect/gauge",
  "inspect/defects",
  "correct",
  "correct/causes",
  "correct/flow",
  "correct/options",
  "hand-over",
  "hand-over/next-time",
  "change",
] as const;
export const PANEL_FILES = ["readings.csv", "ledger.csv", "cure.ics"] as const;
export const SHOP_PAGES = ["/", "/jobs", "/booth-plan", "/house", "/shelf", "/cards", "/ask/run", "/booth-plan.ics"] as const;

export interface Accepted {
  entries: number;
  refused: number;
  pages: number;
  /** What was not shown, with what had been accepted before it. */
  faults: string[];
  byFault: Record<string, { n: number; pages: string[] }>;
}

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
  onRound: (so: Accepted) => void = () => {},
): Promise<Accepted> {
  const folder = ownFolder(demo);
  const server = new TrialServer(folder);
  if (!(await server.start())) throw new Error(server.said);
  const ctx = createContext(openDatabase(databaseFile(folder)));
  const random = seededRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const models = await ctx.db.selectFrom("panel").select(["id"]).execute();
  const so: Accepted = { entries: 0, refused: 0, pages: 0, faults: [], byFault: {} };
  const fault = (reason: string, where: string, story: string) => {
    const known = (so.byFault[reason] ??= { n: 0, pages: [] });
    if (known.n++ === 0) so.faults.push(`${reason}\n       ${story}`);
    if (!known.pages.includes(where)) known.pages.push(where);
  };
  try {
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
          else fault(String((error as Error).message).slice(0, 120), "write", told(kind, body));
        }
      }
      const story = () => written.map((w) => told(w.kind, w.body)).join("\n       ");
      const look = async (path: string) => {
        so.pages++;
        const { status, body } = await server.ask(path);
        if (status >= 500 || status === 0)
          fault(
            status === 0 ? `no answer: ${body.slice(0, 100)}` : await why(server),
            path
              .replace(jobId, ":job")
              .replaceAll(panelId, ":panel")
              .replace(/[0-9a-f-]{36}/, ":id"),
            story(),
          );
      };
      const data = () => (random() < html ? "" : ".data");
      const everywhere = async () => {
        for (const p of PANEL_PAGES) await look(`/jobs/${jobId}/panels/${panelId}/${p}${data()}`);
        for (const f of PANEL_FILES) await look(`/do/panels/${panelId}/${f}`);
        await look(`/jobs/${jobId}${data()}`);
        await look(`/jobs/${jobId}/pots${data()}`);
        await look(`/jobs/${jobId}/booth${data()}`);
        await look(`/jobs/${jobId}/booth/${panelId}${data()}`);
        await look(`/do/jobs/${jobId}/bundle.json`);
        if (written.length > 0) await look(`/jobs/${jobId}/panels/${panelId}/entries/${pick(written).id}${data()}`);
        await look(pick(SHOP_PAGES));
      };
      await everywhere();
      if (random() < 0.1) await look(`/do/panels/${panelId}/report.pdf`);
      for (const { id, kind, body } of written) {
        const { status, body: said } = await server.post(`/do/entries/${id}/strike`, { what: "Entry", whole: "yes" });
        if (status >= 500 || status === 0)
          fault(status === 0 ? `no answer: ${said.slice(0, 100)}` : await why(server), `taking out a ${kind}`, told(kind, body));
      }
      if (random() < 0.2) await everywhere();
      // Most are put away again: the lists stay as long as a real shop's.
      if (random() < 0.9) await archiveJob(ctx, jobId, true);
      onRound(so);
    }
  } finally {
    await ctx.db.destroy();
    await server.stop("SIGKILL");
  }
  return so;
}

/** What the server's log says of its last fault, and where in the core it arose. */
export async function why(server: TrialServer): Promise<string> {
  await new Promise((done) => setTimeout(done, 20));
  const last = server.log.split("\n").findLast((l) => l.includes('"err"'));
  if (!last) return "the log says nothing";
  const { err } = JSON.parse(last) as { err: { message: string; stack: string } };
  const frames = err.stack.split("\n").flatMap((l) => /at (?:Object\.)?(\S+) \(/.exec(l)?.[1] ?? []);
  return `${err.message
    .replace(/\s+/g, " ")
    .replace(/-?\d+(\.\d+)?(e-?\d+)?$/, "…")
    .slice(0, 160)} in ${frames
    .filter((f) => !f.startsWith("require"))
    .slice(0, 4)
    .join(" < ")}`;
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
