import fc from "fast-check";
import { exportJob, importJob } from "#server/commands/job-bundles";
import { recordEntry } from "#server/commands/record-entry";
import { Refusal } from "#server/commands/refusal";
import { type JobBundle, readBundle } from "#server/interchange/job-bundle";
import { countJobs, listJobs } from "#server/repos/job-repo";
import { coatBody, readingBody, testContext, testJob } from "#server/testing/fixtures";
import { loadBoothPlan } from "#server/views/booth-plan-view";
import { loadGuns } from "#server/views/guns-view";
import { loadLearnt } from "#server/views/learnt-view";
import { loadSprayed } from "#server/views/next-time-view";
import { loadJobViews } from "#server/views/panel-view";

const by = "painter A";
async function jobFile(): Promise<JobBundle> {
  const ctx = await testContext();
  const { jobId, panelId } = await testJob(ctx);
  await recordEntry(ctx, { panelId, kind: "reading", by, body: readingBody("before", "1", 90) });
  await recordEntry(ctx, { panelId, kind: "coat", by, body: coatBody(1) });
  await recordEntry(ctx, { panelId, kind: "reading", by, body: readingBody("after", "1", 120) });
  return JSON.parse(JSON.stringify((await exportJob(ctx, jobId))!)) as JobBundle;
}

/** Takes a file in as the page does. @returns "taken", or the words it was refused with; anything else is thrown */
async function takeIn(ctx: Awaited<ReturnType<typeof testContext>>, file: unknown): Promise<string> {
  const read = readBundle(JSON.stringify(file));
  if (!read.ok) return `${read.problem.column ?? ""}: ${read.problem.reason}`;
  try {
    await importJob(ctx, read.value);
    return "taken";
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

/** Every page that reads more than one job still can. */
async function everyListWorks(ctx: Awaited<ReturnType<typeof testContext>>): Promise<void> {
  for (const job of await listJobs(ctx.db)) {
    expect(Number.isNaN(new Date(job.createdAt_ms).getTime())).toBe(false);
    await loadJobViews(ctx, job.id);
    await loadBoothPlan(ctx, job.id);
  }
  await Promise.all([loadLearnt(ctx), loadSprayed(ctx), loadGuns(ctx), loadBoothPlan(ctx, null)]);
}

test.each<[string, (f: JobBundle) => void, string]>([
  ["a time beyond any calendar", (f) => (f.job.createdAt_ms = 9e15), "job.createdAt_ms"],
  ["an entry of the year 20000", (f) => (f.panels[0]!.entries[0]!.at_ms = 5.7e14), "panels.0.entries.0.at_ms"],
  ["an outline without area", (f) => (f.panels[0]!.shape.outline = f.panels[0]!.shape.outline.map(() => [0.5, 0.5])), "encloses no area"],
  ["an outline of many kilometres", (f) => (f.panels[0]!.shape.outline[0] = [1e9, 0]), "panels.0.shape.outline"],
  ["a house way nobody has", (f) => Object.assign(f.job, { wayId: "sideways" }), "house way is not known"],
  ["an id that is an address", (f) => (f.job.id = "../../do/prefs"), "job.id"],
  ["an id with a quotation", (f) => (f.panels[0]!.id = 'a"b'), "panels.0.id"],
  ["an id with a line break", (f) => (f.job.id = "a\r\nSet-Cookie: x"), "job.id"],
  ["a learnt film of nonsense", (f) => Object.assign(f.shop, { learntFilm: { factor: -1, u_log: "x" } }), "shop.learntFilm"],
  ["a learnt film that is a list", (f) => Object.assign(f.shop, { learntFilm: [] }), "shop.learntFilm"],
  ["a kind of entry nobody knows", (f) => Object.assign(f.panels[0]!.entries[0]!, { kind: "hologram" }), "not known here"],
  ["an entry that corrects itself", (f) => (f.panels[0]!.entries[0]!.supersedes = f.panels[0]!.entries[0]!.id), "corrects itself"],
  ["two panels with one id", (f) => f.panels.push(f.panels[0]!), "twice"],
  [
    "a picture that is a page",
    (f) =>
      f.photos.push({ id: "p", mime: "text/html", width: 1, height: 1, name: "x", base64: btoa("<script>1</script>"), original: null }),
    "not a picture",
  ],
])("%s refuses the file whole, in words, and every page goes on", async (_what, change, words) => {
  const file = await jobFile();
  const ctx = await testContext();
  await testJob(ctx);
  const before = await countJobs(ctx.db);
  change(file);
  expect(await takeIn(ctx, file)).toContain(words);
  expect(await countJobs(ctx.db)).toBe(before);
  await everyListWorks(ctx);
});

test("ids that stand here already, of job, panel or entry, are told so; nothing is half taken in", async () => {
  const file = await jobFile();
  const ctx = await testContext();
  expect(await takeIn(ctx, file)).toBe("taken");
  expect(await takeIn(ctx, file)).toContain("is here already");
  const other = structuredClone(file);
  other.job.id = "other";
  expect(await takeIn(ctx, other)).toContain("in another job");
  other.panels[0]!.id = "other-panel";
  expect(await takeIn(ctx, other)).toContain("on another panel");
  expect((await listJobs(ctx.db)).map((j) => j.id)).toEqual([file.job.id]);
});

/** Any place of a file set to something odd. */
const odd = fc.constantFrom<unknown>(
  null,
  -1,
  0,
  1e-300,
  1e300,
  9e15,
  0.5,
  "",
  "__proto__",
  "x".repeat(5000),
  [],
  {},
  true,
  [[0, 0]],
  "NaN",
  -0,
);
function placesOf(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== "object" || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([k, v]) => placesOf(v, [...path, k]))];
}
function withOdd(file: JobBundle, path: readonly string[], value: unknown): unknown {
  if (path.length === 0) return value;
  const copy = structuredClone(file) as unknown as Record<string, unknown>;
  let at: Record<string, unknown> = copy;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
  at[path.at(-1)!] = value;
  return copy;
}

test("a file with anything odd anywhere is taken in or refused in words; afterwards every page goes on", async () => {
  const file = await jobFile();
  const places = placesOf(file);
  await fc.assert(
    fc.asyncProperty(fc.nat(places.length - 1), odd, async (i, value) => {
      const ctx = await testContext();
      await takeIn(ctx, withOdd(file, places[i]!, value));
      await everyListWorks(ctx);
      await ctx.db.destroy();
    }),
    { numRuns: 250 },
  );
});
