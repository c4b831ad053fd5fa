import { ENTRY_KINDS, type EntryKind } from "#core/record/bodies";
import { seededRandom } from "#core/kernel/stats/random";
import { archiveJob } from "#server/commands/jobs";
import { getJob } from "#server/repos/job-repo";
import { anyBody } from "./any-body";
import { type Lookers, type Shown, everyPage, noteFault, nothingShown, onOwnServer, takeOut } from "./every-page";
import { pickBy } from "./harness";

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
interface Bundle {
  job: { id: string; vehicle: string };
  panels: {
    id: string;
    shape: { outline: [number, number][] };
    entries: { id: string; kind: EntryKind; body: Json; supersedes: string | null }[];
  }[];
}
/** Where a value stands: what holds it, and under which name or number. */
interface Place {
  holder: Json[] | { [key: string]: Json };
  key: string | number;
}
function placesIn(value: Json, found: Place[] = []): Place[] {
  if (typeof value !== "object" || value === null) return found;
  for (const key of Array.isArray(value) ? value.keys() : Object.keys(value)) {
    found.push({ holder: value, key });
    placesIn((value as Record<string | number, Json>)[key]!, found);
  }
  return found;
}

/** A value that somebody's own program might have written there. */
function other(value: Json, random: () => number): Json {
  const pick = pickBy(random);
  if (typeof value === "number")
    return pick([value * 10, value / 1000, value * 1.5, -value, value + 1, 0, 1e-9, Math.round(value), value * (1 + 0.2 * random())]);
  if (typeof value === "string")
    return pick(["", "x", "1", "💧", "constructor", "__proto__", value.toUpperCase(), `${value} ${value}`.slice(0, 40)]);
  if (typeof value === "boolean") return !value;
  if (value === null) return pick<Json>([0, 1, "x", false]);
  if (!Array.isArray(value)) return null;
  const how = random();
  if (how < 0.25) return [];
  if (how < 0.5) return [...value].reverse();
  return how < 0.75 ? value.filter((_, i) => i !== Math.floor(random() * value.length)) : [...value, ...value.slice(0, 3)];
}

/** One thing of a file is changed, left out, or two of a list change places. */
function changed(file: Json, random: () => number): void {
  const places = placesIn(file).filter(({ key: k }) => !["format", "version", "id", "revisionId", "productRevisionId"].includes(String(k)));
  if (places.length === 0) return; // a panel that nothing was logged on
  const { holder, key } = pickBy(random)(places);
  const set = holder as Record<string | number, Json>;
  if (Array.isArray(holder) && random() < 0.2) {
    const with_ = Math.floor(random() * holder.length);
    [set[key], set[with_]] = [set[with_]!, set[key]!];
  } else if (!Array.isArray(holder) && random() < 0.1) delete set[key];
  else set[key] = other(set[key]!, random);
}

/** A job file of the demo's, in a job of its own, with one to four things changed and some bodies of any kind. */
function oddBundle(text: string, round: number, random: () => number): Bundle {
  const pick = pickBy(random);
  const own = JSON.parse(text) as Bundle;
  const ids = new Map(
    [own.job.id, ...own.panels.flatMap((p) => [p.id, ...p.entries.map((e) => e.id)])].map((id, i) => [id, `odd${round}-${i}`]),
  );
  const file = JSON.parse(text.replace(/"([\w-]{8,80})"/g, (whole, id: string) => (ids.has(id) ? `"${ids.get(id)}"` : whole))) as Bundle;
  for (const entry of file.panels.flatMap((panel) => panel.entries)) {
    const kind = random() < 0.03 ? pick(ENTRY_KINDS) : "strike";
    if (kind !== "strike") Object.assign(entry, { kind, body: anyBody(kind, random) });
  }
  for (let n = 1 + Math.floor(4 * random() ** 2); n > 0; n--)
    changed(random() < 0.4 ? dropEntries(file) : pick(file.panels).entries, random);
  return file;
}
/** What of a file is not an entry: job, shop, sheets, outlines. Its objects are the file's own. */
const dropEntries = (file: Bundle): Json => ({ ...file, panels: file.panels.map((p) => ({ ...p, entries: [] })) });

/** A table as a gauge or a spreadsheet writes it: places on the panel or near it, films of any size. */
function oddTable(
  outline: readonly [number, number][],
  random: () => number,
): { text: string; roles: string[]; filmUnit: string; lengthUnit: string } {
  const pick = pickBy(random);
  const between = (at: 0 | 1) => {
    const values = outline.map((p) => p[at]);
    return Math.min(...values) + random() * (Math.max(...values) - Math.min(...values));
  };
  const lengthUnit = pick(["mm", "in"]);
  const length = (m: number) => (lengthUnit === "mm" ? m * 1000 : m / 0.0254).toFixed(pick([0, 1, 3]));
  const film = () =>
    pick([
      () => String(Math.round(60 + 200 * random())),
      () => (random() * 10 ** (4 * random() - 1)).toPrecision(3),
      () => pick(["0", "5000", "0.1", "131,5"]),
    ])();
  const columns = 1 + Math.floor(3 * random());
  const rows = Array.from({ length: 1 + Math.floor(40 * random() ** 2) }, (_, i) =>
    [
      pick([String(i + 1), String(1 + (i % 6)), pick(["x", "constructor", "💧", "1"])]),
      length(between(0)),
      length(between(1)),
      pick(["before", "after", "after", "recheck", ""]),
      ...Array.from({ length: columns }, film),
    ].join(";"),
  );
  return {
    text: [`spot;x;y;phase${";film".repeat(columns)}`, ...rows].join("\n"),
    roles: ["spot", "x", "y", "phase", ...Array<string>(columns).fill("film")],
    filmUnit: pick(["µm", "mil"]),
    lengthUnit,
  };
}

/**
 * The law over files: a job file of the demo's with something changed, and tables of readings of any size, as somebody else's program may write them.
 * Each is refused in words, or taken in, shown on every page, and taken out again. A file is made of its own seed: the first and those that follow.
 */
export async function oddFiles(
  demo: string,
  jobs: readonly string[],
  { files, seed, html = 0.2 }: { files: number; seed: number; html?: number },
  onRound: (so: Shown) => void = () => {},
): Promise<Shown> {
  const so = nothingShown();
  await onOwnServer(demo, async (server, ctx) => {
    const bundles = await Promise.all(jobs.map(async (id) => (await server.ask(`/do/jobs/${id}/bundle.json`)).body));
    for (let of = seed; of < seed + files; of++) {
      const random = seededRandom(of);
      const file = oddBundle(pickBy(random)(bundles), of, random);
      await tryFile({ server, so, random, html }, file, `file ${of}`);
      if (await getJob(ctx.db, file.job.id)) await archiveJob(ctx, file.job.id, true);
      onRound(so);
    }
  });
  return so;
}

/** One file is sent in; taken in, it is shown, with a table of readings on one of its panels, and taken out of again. */
async function tryFile(lookers: Lookers, file: Bundle, story: string): Promise<void> {
  const { server, so, random } = lookers;
  const pick = pickBy(random);
  if ((await sendJob(lookers, file, story)) === "refused") return void so.refused++;
  const panel = pick(file.panels);
  const entry = panel.entries.length > 0 ? pick(panel.entries) : null;
  const fromTable = random() < 0.5 ? await sendTable(lookers, panel, story) : [];
  so.entries += file.panels.reduce((a, p) => a + p.entries.length, fromTable.length);
  await everyPage(lookers, { jobId: file.job.id, panelId: panel.id, entryId: entry?.id ?? null, story });
  if (entry) await takeOut(lookers, { id: entry.id, kind: entry.kind, story });
  if (fromTable.length > 0) await server.postJson(`/do/panels/${panel.id}/import`, { step: "undo", entryIds: fromTable });
  if (random() < 0.3) await everyPage(lookers, { jobId: file.job.id, panelId: panel.id, entryId: null, story });
}

async function sendJob(lookers: Lookers, file: Bundle, story: string): Promise<"taken" | "refused"> {
  const head = 'Content-Disposition: form-data; name="file"; filename="x.json"\r\nContent-Type: application/json';
  const { server } = lookers;
  const answer = await server.ask("/do/jobs/import.data", {
    method: "POST",
    headers: { "content-type": "multipart/form-data; boundary=b", origin: `http://localhost:${server.port}` },
    body: Buffer.from(`--b\r\n${head}\r\n\r\n${JSON.stringify(file)}\r\n--b--\r\n`),
  });
  await noteFault(lookers, answer, { where: "job file", story });
  return answer.status === REDIRECTED ? "taken" : "refused";
}
/** Of an action's data: it leads elsewhere. */
const REDIRECTED = 202;

/** @returns the entries that a table of readings made; none where it was refused */
async function sendTable(lookers: Lookers, panel: Bundle["panels"][number], story: string): Promise<string[]> {
  const table = oddTable(panel.shape.outline, lookers.random);
  const answer = await lookers.server.postJson(`/do/panels/${panel.id}/import`, {
    step: "import",
    phase: "after",
    clientKey: story,
    ...table,
  });
  await noteFault(lookers, answer, { where: "table", story: `${story}: ${table.text}` });
  return answer.status === 200 ? ((JSON.parse(answer.body) as { entryIds?: string[] }).entryIds ?? []) : [];
}
