import { spawn } from "node:child_process";
import { once } from "node:events";
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import Database from "libsql";
import { suggestSpots } from "#core/kernel/geometry/shapes";
import { seededRandom } from "#core/kernel/stats/random";
import { databaseFile } from "#server/db/open";
import { checkFile } from "#server/storage/file-check";
import { halfChanges } from "./half-changes";
import { type Sender, TrialServer, fromOutbox, inLanes, ownFolder } from "./harness";

interface Write {
  key: string;
  kind: string;
  /** Sent as a device's outbox does, so long after it happened, s; null: as a page does. */
  age_s: number | null;
  send(server: Sender): Promise<number>;
}
const CAN_L = 30;
const MIX_M3 = 2e-6;

/** What every write of a form looks like: each with a key of its own, sent again until it is answered. */
function writes(
  ids: {
    jobId: string;
    otherJobId: string;
    /** A job of several panels, changed as a whole. */
    changedJob: { id: string; panelId: string };
    panelIds: readonly string[];
    canId: string;
    revisionId: string;
    productId: string;
    x_mm: string;
    y_mm: string;
  },
  random: () => number,
) {
  const UNITS = JSON.stringify({ film: "µm", length: "mm", temperature: "°C", pressure: "bar", volume: "ml" });
  const form = (path: string, fields: (key: string) => Record<string, string>) => (key: string) => async (s: Sender) =>
    (await s.post(path, { units: UNITS, ...fields(key) })).status;
  const part = (volume_m3: number, canId: string | null) => ({ name: "x", volume_m3, mass_kg: null, poured_kg: null, batch: "", canId });
  const job = (key: string) => ({
    formKey: key,
    panelName: "",
    shape: "door",
    width: "1100",
    height: "700",
    orientation: "vertical",
    angle: "0",
    substrate: "unknown",
    productRevisionId: ids.revisionId,
    coatsPlanned: "2",
  });
  const kindsOn = (panelId: string): Record<string, (key: string) => (s: Sender) => Promise<number>> => {
    const panel = `/jobs/${ids.jobId}/panels/${panelId}`;
    return {
      reading: form(`/do/panels/${panelId}/readings`, (clientKey) => ({
        clientKey,
        phase: "after",
        spot: "1",
        x_m: "0.5",
        y_m: "0.4",
        value: "131 129",
      })),
      climate: form(`${panel}/spray.data`, (formKey) => ({ intent: "climate", formKey, air: "21", humidity: "50" })),
      coat: form(`${panel}/spray.data`, (formKey) => ({
        intent: "coat",
        formKey,
        number: "1",
        fluidFrom: "turns",
        turns: "2",
        pressure: "1.9",
        distance: "175",
        overlap: "50",
        handSpeed: "0.34",
        reducer: "0",
      })),
      texture: form(`/do/panels/${panelId}/texture`, () => ({ role: "part", rating: "2" })),
      defect: form(`${panel}/inspect/defects.data`, (formKey) => ({
        intent: "defect",
        formKey,
        kind: "nib",
        x: ids.x_mm,
        y: ids.y_mm,
        measured: "judged",
      })),
      job: form("/jobs/new.data", (key) => ({ ...job(key), vehicle: key, colourCss: "#444444", finish: "flat", wayId: "two-full" })),
      change: form(`/jobs/${ids.changedJob.id}/panels/${ids.changedJob.panelId}/change.data`, (key) => ({
        intent: "job",
        vehicle: key,
        colourName: "grey",
        colourCss: "#444444",
        finish: "flat",
        wayId: "two-full",
      })),
      panel: form(`/jobs/${ids.otherJobId}/add-panel.data`, job),
      gun: form(`${panel}/spray/gun.data`, (formKey) => ({
        intent: "keep",
        formKey,
        name: formKey.slice(-20),
        allTurns: "5",
        turns: "2",
        pressure: "1.9",
        distance: "175",
        overlap: "50",
        speed: "0.34",
      })),
      can: form("/shelf/cans/new.data", (formKey) => ({
        formKey,
        productId: ids.productId,
        batch: formKey.slice(-20),
        size: "1000",
        left: "1000",
        keeping: "shelf",
      })),
      card: form("/cards/new/edit.data", (formKey) => ({
        formKey,
        name: formKey.slice(-20),
        orientation: "vertical",
        coats: "2",
        cure: "air",
        colour: "open",
        glossVerdict: "open",
        texture: "open",
      })),
      mix: (formKey) => async (s) =>
        (
          await s.postJson(`${panel}/plan/mix.data`, {
            volume_m3: 2 * MIX_M3,
            reducer: 0,
            potLife_s: 3600,
            temperature_K: 293,
            panels: [],
            product: "x",
            speed: null,
            mattingShare: null,
            settles_s: null,
            parts: [part(MIX_M3, null), part(MIX_M3, ids.canId)],
            formKey,
          })
        ).status,
      import: (clientKey) => async (s) =>
        (
          await s.postJson(`/do/panels/${panelId}/import`, {
            step: "import",
            text: "spot;film µm\n1;120\n2;121\n3;122\n4;123\n5;124",
            roles: ["spot", "film"],
            phase: "before",
            filmUnit: "µm",
            lengthUnit: "mm",
            clientKey,
            again: true,
          })
        ).status,
    };
  };
  const names = Object.keys(kindsOn(""));
  let count = 0;
  return (): Write => {
    const kinds = kindsOn(ids.panelIds[count % ids.panelIds.length]!);
    const kind = names[Math.floor(random() * names.length)]!;
    const key = `kill-${kind}-${++count}-${Math.floor(random() * 1e9)}`;
    return { key, kind, age_s: random() < 0.5 ? Math.round(3600 * random()) : null, send: kinds[kind]!(key) };
  };
}
const IMPORT_ENTRIES = 5;
/** Under way in a round at most; what a kill leaves unanswered is sent again in the next. */
const WRITES_A_ROUND = 40;
/** Panels written to, in turn: a ledger stays as long as a real one. */
const PANELS = 60;
const WITHOUT_KEY = new Set(["texture", "change"]);
/** The outbox has a key for every request, whatever the form in it has. */
const outboxKey = (key: string) => `out-${key}`;
const isKeyed = ({ kind, age_s }: Write) => age_s !== null || !WITHOUT_KEY.has(kind);
/** Asked, where a coat of that number is there already: neither stored nor to be sent again. */
const ASKED: readonly (readonly [kind: string, status: number])[] = [["coat", 409]];

export interface KillReport {
  kills: number;
  sent: number;
  acknowledged: number;
  /** Of these out of a device's outbox, and entries that a device which followed was told of. */
  fromOutbox: number;
  told: number;
  byKind: Record<string, number>;
  lost: string[];
  doubled: string[];
  half: string[];
  backups: number;
  brokenBackups: string[];
}

/** A panel and a can to write to, on the demo shop. */
function ownIds(folder: string) {
  const db = new Database(databaseFile(folder));
  const product = db
    .prepare(
      "select r.id as revision, r.product_id as product from product_revision r join panel p on p.product_revision_id = r.id limit 1",
    )
    .get() as { revision: string; product: string };
  const panel = db
    .prepare(
      "select p.id, p.job_id, p.shape_json from panel p left join ledger_entry e on e.panel_id = p.id group by p.id order by count(e.id) limit 1",
    )
    .get() as {
    id: string;
    job_id: string;
    shape_json: string;
  };
  const { outline } = JSON.parse(panel.shape_json) as { outline: [number, number][] };
  // A place near the upper left that lies on every usual part.
  const [x_mm, y_mm] = suggestSpots(outline, 3)[0]!.map((m) => String(Math.round(m * 1000))) as [string, string];
  db.exec("pragma foreign_keys = on");
  db.prepare(
    "insert into container (id, product_id, batch, size_m3, opened_ms, keeping, left_m3, version, created_at_ms) values ('trial-can', ?, '', ?, null, 'shelf', ?, 1, 1)",
  ).run([product.product, CAN_L / 1000, CAN_L / 1000]);
  const panelIds = [panel.id];
  const columns = (db.prepare("select name from pragma_table_info('panel')").all() as { name: string }[]).map((c) => c.name);
  for (let i = 1; i < PANELS; i++) {
    const id = `${panel.id}-${i}`;
    const set: Record<string, string> = { id: `'${id}'`, position: String(100 + i), client_key: "null" };
    db.exec(
      `insert into panel (${columns.join(", ")}) select ${columns.map((c) => set[c] ?? c).join(", ")} from panel where id = '${panel.id}'`,
    );
    panelIds.push(id);
  }
  const start = (db.prepare("select max(seq) as seq from ledger_entry").get() as { seq: number }).seq;
  const changedJob = db
    .prepare("select job_id as id, min(id) as panelId from panel where job_id != ? group by job_id order by count(*) desc limit 1")
    .get([panel.job_id]) as { id: string; panelId: string };
  const ids = {
    jobId: panel.job_id,
    otherJobId: (db.prepare("select id from job where id not in (?, ?) limit 1").get([panel.job_id, changedJob.id]) as { id: string }).id,
    changedJob,
    panelIds,
    canId: "trial-can",
    revisionId: product.revision,
    productId: product.product,
    x_mm,
    y_mm,
  };
  db.close();
  return { ids, start };
}

/** Kills a server again and again while every kind of write is under way, and a backup with it; then looks what became of what. */
export async function killAgain(demo: string, { kills, seed }: { kills: number; seed: number }): Promise<KillReport> {
  const folder = ownFolder(demo);
  const { ids, start } = ownIds(folder);
  const random = seededRandom(seed);
  const next = writes(ids, random);
  const server = new TrialServer(folder);
  let pending: Write[] = [];
  const acknowledged = new Map<string, string>();
  const outbox = new Set<string>();
  const told = new Set<string>();
  const byKind: Record<string, number> = {};
  let sent = 0;
  let backups = 0;
  for (let k = 0; k <= kills; k++) {
    if (!(await server.start())) throw new Error(`after kill ${k} it does not start: ${server.said}`);
    const last = k === kills;
    const ahead = [...pending, ...(last ? [] : Array.from({ length: Math.max(0, WRITES_A_ROUND - pending.length) }, next))];
    pending = [];
    let dead = false;
    const backup =
      k % 4 === 1
        ? spawn(process.execPath, ["scripts/backup.mjs", join(folder, "backups", `trial-${k}.sqlite`)], {
            env: { ...process.env, YAKAMOZ_DATA: folder },
            stdio: "ignore",
          })
        : null;
    // From the first answer on: a server killed before it has answered anything tells little.
    let answered = () => {};
    const first = new Promise<void>((done) => (answered = done));
    const killer = last
      ? Promise.resolve()
      : first
          .then(() => new Promise<void>((done) => setTimeout(done, 5 + random() * 260)))
          .then(async () => {
            dead = true;
            await server.stop("SIGKILL");
          });
    const following = follow(server, told, () => dead || last);
    await inLanes(ahead, 6, async (write) => {
      if (dead) return void pending.push(write);
      sent++;
      const status = await write.send(write.age_s === null ? server : fromOutbox(server, outboxKey(write.key), write.age_s));
      if (status >= 200 && status < 400) {
        answered();
        acknowledged.set(write.key, write.kind);
        if (write.age_s !== null) outbox.add(write.key);
        byKind[write.kind] = (byKind[write.kind] ?? 0) + 1;
      } else if (ASKED.some(([kind, asked]) => kind === write.kind && asked === status)) answered();
      else if (status === 0) {
        // A write without a key cannot be sent again without doubling: only what has one is.
        if (isKeyed(write)) pending.push(write);
      } else throw new Error(`${write.kind} was answered ${status}`);
    });
    await Promise.all([killer, following]);
    if (backup) {
      backups++;
      const gone = once(backup, "exit");
      if (random() < 0.7) setTimeout(() => backup.kill("SIGKILL"), random() * 700);
      await gone;
    }
  }
  await server.stop("SIGTERM");
  return {
    kills,
    sent,
    acknowledged: acknowledged.size,
    fromOutbox: outbox.size,
    told: told.size,
    byKind,
    backups,
    ...lookInto(folder, { acknowledged, outbox, told }, start),
  };
}

/** A device that follows the shop's rows while they are written: what it was told is noted, until the server is gone. */
async function follow(server: TrialServer, told: Set<string>, isOver: () => boolean): Promise<void> {
  let at = "";
  while (!isOver()) {
    const { status, body } = await server.ask(`/do/rows${at}`);
    if (status !== 200) return;
    const { epoch, seq, rows } = JSON.parse(body) as { epoch: string; seq: number; rows: { table: string; key: string; row: unknown }[] };
    for (const r of rows) if (r.table === "ledger_entry" && r.row !== null) told.add(r.key);
    at = `?epoch=${encodeURIComponent(epoch)}&since=${seq}`;
    await new Promise((done) => setTimeout(done, 40));
  }
}

interface Said {
  /** What was answered as stored, by its key, and which of it came out of an outbox. */
  acknowledged: ReadonlyMap<string, string>;
  outbox: ReadonlySet<string>;
  /** Entries that a device was told of. */
  told: ReadonlySet<string>;
}

function lookInto(folder: string, { acknowledged, outbox, told }: Said, start: number) {
  const db = new Database(databaseFile(folder));
  const rows = <T>(sql: string, ...args: unknown[]) => db.prepare(sql).all(args) as T[];
  const lost: string[] = [];
  const doubled: string[] = [];
  const half: string[] = [];
  const forms = new Map(
    rows<{ key: string; result_json: string }>("select key, result_json from sent_form where key like 'kill-%'").map((r) => [
      r.key,
      JSON.parse(r.result_json) as unknown,
    ]),
  );
  const there = (table: string) => new Set(rows<{ id: string }>(`select id from ${table}`).map((r) => r.id));
  const entries = there("ledger_entry");
  const tables: Record<string, Set<string>> = { gun: there("gun"), can: there("container"), card: there("card"), panel: there("panel") };
  const jobs = there("job");
  const owned = new Map<string, string>();
  for (const [key, result] of forms) {
    const kind = key.split("-")[1]!;
    const ids = Array.isArray(result) ? (result as string[]) : [];
    for (const id of ids) {
      if (owned.has(id)) doubled.push(`${id} belongs to ${key} and ${owned.get(id)}`);
      owned.set(id, key);
      if (!entries.has(id)) lost.push(`${key}: entry ${id}`);
    }
    if (kind === "import" && ids.length !== IMPORT_ENTRIES) half.push(`${key} has ${ids.length} of ${IMPORT_ENTRIES} entries`);
    if (kind in tables && !tables[kind]!.has(result as string)) lost.push(`${key}: ${kind} ${String(result)}`);
    if (kind === "job" && !jobs.has((result as { jobId: string }).jobId)) lost.push(`${key}: job`);
  }
  for (const [key, kind] of acknowledged) if (!WITHOUT_KEY.has(kind) && !forms.has(key)) lost.push(`${key} was acknowledged`);
  const requests = new Set(rows<{ key: string }>("select key from sent_form where key like 'out-kill-%'").map((r) => r.key));
  for (const key of outbox) if (!requests.has(`${outboxKey(key)} 0`)) lost.push(`${key} was acknowledged to an outbox`);
  for (const id of told) if (!entries.has(id)) lost.push(`${id}: a device was told of it`);
  half.push(...halfChanges(rows, acknowledged, start));
  const textures = [...acknowledged.values()].filter((k) => k === "texture").length;
  const logged = rows<{ id: string; kind: string }>("select id, kind from ledger_entry where seq > ?", start);
  for (const e of logged)
    if (e.kind !== "texture" && e.kind !== "note" && !owned.has(e.id)) doubled.push(`${e.kind} ${e.id} was written by no form`);
  if (logged.filter((e) => e.kind === "texture").length < textures) lost.push("a texture");
  for (const [table, prefix] of [
    ["gun", "name"],
    ["card", "name"],
  ] as const)
    for (const r of rows<{ name: string; n: number }>(
      `select body_json ->> '$.${prefix}' as name, count(*) as n from ${table} where body_json ->> '$.name' like '%kill%' or length(body_json ->> '$.name') = 20 group by 1 having n > 1`,
    ))
      doubled.push(`${table} ${r.name}`);
  for (const r of rows<{ vehicle: string; n: number }>(
    "select vehicle, count(*) as n from job where vehicle like 'kill-%' group by 1 having n > 1",
  ))
    doubled.push(`job ${r.vehicle}`);
  for (const r of rows<{ id: string }>("select j.id from job j where not exists (select 1 from panel p where p.job_id = j.id)"))
    half.push(`job ${r.id} without a panel`);
  for (const r of rows<{ id: string }>(
    "select p.id from panel p left join panel_summary s on s.panel_id = p.id where s.seq is null or s.seq != coalesce((select max(seq) from ledger_entry e where e.panel_id = p.id), 0)",
  ))
    half.push(`the row of panel ${r.id} lags behind its ledger`);
  const mixes = logged.filter((e) => e.kind === "mix").length;
  const can = rows<{ left_m3: number }>("select left_m3 from container where id = 'trial-can'")[0]!;
  const taken = (CAN_L / 1000 - can.left_m3) / MIX_M3;
  if (Math.abs(taken - mixes) > 0.01) half.push(`${mixes} mixes, ${taken.toFixed(2)} taken from the can`);
  for (const r of rows<{ id: string }>(
    "select e.id from ledger_entry e where e.kind in ('mix') and not exists (select 1 from clock c where c.entry_id = e.id)",
  ))
    half.push(`mix ${r.id} without its clock`);
  db.close();
  const made = join(folder, "backups");
  const files = existsSync(made) ? readdirSync(made).filter((f) => f.endsWith(".sqlite")) : [];
  const brokenBackups = files.filter((f) => !checkFile(join(made, f)).ok);
  return { lost, doubled, half, brokenBackups };
}
