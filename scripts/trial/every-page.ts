import { type ServerContext, createContext } from "#server/context";
import { databaseFile, openDatabase } from "#server/db/open";
import { type Answer, TrialServer, ownFolder, pickBy } from "./harness";

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

/** What was tried, and what of it was not shown, with what had been accepted before it. */
export interface Shown {
  entries: number;
  refused: number;
  pages: number;
  faults: string[];
  byFault: Record<string, { n: number; pages: string[] }>;
}
export const nothingShown = (): Shown => ({ entries: 0, refused: 0, pages: 0, faults: [], byFault: {} });

/** A fault is told with its story the first time, and counted with the pages it shows on. */
export function addFault(so: Shown, reason: string, { where, story }: { where: string; story: string }): void {
  const known = (so.byFault[reason] ??= { n: 0, pages: [] });
  if (known.n++ === 0) so.faults.push(`${reason}\n       ${story}`);
  if (!known.pages.includes(where)) known.pages.push(where);
}

export interface Lookers {
  server: TrialServer;
  so: Shown;
  random: () => number;
  /** Share of the pages that are asked for as a document; the rest as a page's data. */
  html: number;
}

/** A server of the demo's data in a folder of its own, with the file open beside it, for as long as it is used. */
export async function onOwnServer(demo: string, use: (server: TrialServer, ctx: ServerContext) => Promise<void>): Promise<void> {
  const folder = ownFolder(demo);
  const server = new TrialServer(folder);
  if (!(await server.start())) throw new Error(server.said);
  const ctx = createContext(openDatabase(databaseFile(folder)));
  try {
    await use(server, ctx);
  } finally {
    await ctx.db.destroy();
    await server.stop("SIGKILL");
  }
}

/** Whatever was asked must be answered below 500; what was not is told. */
export async function noteFault({ server, so }: Lookers, { status, body }: Answer, told: { where: string; story: string }): Promise<void> {
  if (status < 500 && status !== 0) return;
  addFault(so, status === 0 ? `no answer: ${body.slice(0, 100)}` : await why(server), told);
}

/** One address, which must answer below 500. */
export async function look(lookers: Lookers, path: string, { ids, story }: { ids: readonly string[]; story: string }): Promise<void> {
  lookers.so.pages++;
  const answer = await lookers.server.ask(path);
  const where = ids.reduce((p, id, i) => p.replaceAll(id, [":job", ":panel"][i] ?? ":id"), path).replace(/[0-9a-f-]{36}/, ":id");
  await noteFault(lookers, answer, { where, story });
}

/** Every page and file of a panel and of its job, the page of one of its entries, and one of the shop. */
export async function everyPage(
  lookers: Lookers,
  { jobId, panelId, entryId, story }: { jobId: string; panelId: string; entryId: string | null; story: string },
): Promise<void> {
  const { random, html } = lookers;
  const data = () => (random() < html ? "" : ".data");
  const panel = `/jobs/${jobId}/panels/${panelId}`;
  const shop = pickBy(random)(SHOP_PAGES);
  const paths = [
    ...PANEL_PAGES.map((p) => `${panel}/${p}${data()}`),
    ...PANEL_FILES.map((f) => `/do/panels/${panelId}/${f}`),
    ...["", "/pots", "/booth", `/booth/${panelId}`].map((p) => `/jobs/${jobId}${p}${data()}`),
    `/do/jobs/${jobId}/bundle.json`,
    ...(entryId === null ? [] : [`${panel}/entries/${entryId}${data()}`]),
    shop,
  ];
  for (const path of paths) await look(lookers, path, { ids: [jobId, panelId], story });
}

/** An entry is taken out as its page does it. */
export async function takeOut(lookers: Lookers, { id, kind, story }: { id: string; kind: string; story: string }): Promise<void> {
  const answer = await lookers.server.post(`/do/entries/${id}/strike`, { what: "Entry", whole: "yes" });
  await noteFault(lookers, answer, { where: `taking out a ${kind}`, story });
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
