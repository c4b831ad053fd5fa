import { type BodyInputOf, type BodyOf, type EntryKind, LEDGER_BODIES } from "#core/record/bodies";
import { JOB_WIDE } from "#core/record/entry";
import { livingEntries } from "#core/record/timeline";
import type { ServerContext } from "../context";
import type { Db } from "../db/open";
import { refuseOthersEntries } from "../access/others-entries";
import { getEntry, insertEntries, listEntries, newestEntryId } from "../repos/ledger-repo";
import { getPanel } from "../repos/panel-repo";
import { getProductRevision } from "../repos/product-repo";
import { answeredBefore } from "../repos/sent-form-repo";
import { refreshSummary } from "../repos/summary-repo";
import { requireStandIns } from "../devices/stand-ins-allowed";
import { Refusal } from "./refusal";
import { type Running, run } from "./run";

export interface EntryInput<K extends EntryKind = EntryKind> {
  panelId: string;
  kind: K;
  body: BodyInputOf<K>;
  by: string;
  at_ms?: number;
  simulated?: boolean;
  /** The entry that this one corrects; it stays in the ledger. */
  supersedes?: string | null;
  /** Made by the form once: sending it twice records once. */
  clientKey?: string | null;
  /** The newest entry of the ledger that this was worked out on: stored only while it still is. */
  expectedVersion?: string | null;
  /** What the form asked, where its body is worked out from more than that; else the body is what the key is bound to. */
  asked?: unknown;
  /** In which words its form is answered, so that it is answered in the same when it is sent again. */
  said?: string | undefined;
}

/** What starts, moves or ends a clock. */
const MOVES_CLOCKS = [
  "coat",
  "colourCoat",
  "mix",
  "climate",
  "bakeStart",
  "bake",
  "oven",
  "flatten",
  "turn",
  "handOver",
] as const satisfies readonly EntryKind[];

const formOf = (panelId: string, key: string | null, content: unknown) => ({ key, what: `entries of ${panelId}`, content });

/** The entry that a form with this key has made already, before anything is worked out for it; null when it is new. @throws Refusal for a key used otherwise */
export async function entryBefore(ctx: ServerContext, panelId: string, key: string | null, asked: unknown): Promise<string | null> {
  return (await answeredBefore<string[]>(ctx.db, formOf(panelId, key, asked)))?.result[0] ?? null;
}

/** Appends one entry. @returns its id. @throws Refusal when the panel is gone, the body is out of range or another window corrected it first. */
export async function recordEntry<K extends EntryKind>(ctx: ServerContext, input: EntryInput<K>): Promise<string> {
  const [id] = await recordEntries(ctx, input.panelId, [input]);
  return id!;
}

/**
 * Appends several entries of one panel at once: all or none. Their key is the first one's: sent again with the same content they are stored once.
 * @param alongside further work of the same transaction, done only when the entries are new
 */
export async function recordEntries<K extends EntryKind>(
  ctx: ServerContext,
  panelId: string,
  inputs: readonly EntryInput<K>[],
  alongside: (running: Running) => Promise<void> = async () => {},
): Promise<string[]> {
  const bodies = inputs.map((i) => checkedBody(i.kind, i.body));
  const content =
    inputs[0]?.asked ??
    inputs.map((i, k) => ({ kind: i.kind, body: bodies[k], supersedes: i.supersedes ?? null, simulated: i.simulated ?? false }));
  return run(ctx, { ...formOf(panelId, inputs[0]?.clientKey ?? null, content), said: inputs[0]?.said ?? null }, (running) =>
    appendEntries(ctx, running, panelId, inputs, () => alongside(running)),
  );
}

/** The same as a part of a command that is being carried out. @param alongside what is written before the panel's row is made anew */
export async function appendEntries<K extends EntryKind>(
  ctx: ServerContext,
  { db, now_ms, tell }: Running,
  panelId: string,
  inputs: readonly EntryInput<K>[],
  alongside: () => Promise<void> = async () => {},
): Promise<string[]> {
  const panel = await getPanel(db, panelId);
  if (!panel) throw new Refusal(null, "This panel is no longer there", 404);
  if (inputs.some((i) => i.simulated)) await requireStandIns({ db });
  await refuseMovedLedger(db, panelId, inputs);
  await refuseLostCorrections(db, panelId, inputs);
  await refuseOthersEntries(ctx.actor, db, inputs);
  const clear = inputs.some((i) => i.kind === "mix") ? await getProductRevision(db, panel.productRevisionId) : null;
  const entries = inputs.map((input) => ({
    id: ctx.newId(),
    panelId,
    kind: input.kind,
    body: naming(clear, input.kind, checkedBody(input.kind, input.body)),
    at_ms: input.at_ms ?? now_ms,
    recordedAt_ms: now_ms,
    by: input.by,
    simulated: input.simulated ?? false,
    supersedes: input.supersedes ?? null,
    who: whoOf(ctx),
  }));
  await insertEntries(db, entries);
  await alongside();
  const kinds = await kindsWritten(db, inputs);
  // Of what serves the other panels only the climate stands in what lists show of them.
  await refreshSummary(db, panelId, kinds.includes("climate") ? { added: inputs.every((i) => !i.supersedes) } : undefined);
  tell({ topic: "panel", id: panelId, jobId: panel.jobId });
  if (kinds.some((k) => (JOB_WIDE as readonly string[]).includes(k))) tell({ topic: "job", id: panel.jobId });
  const moves = entries.some((e) => (MOVES_CLOCKS as readonly string[]).includes(e.kind) || e.supersedes !== null);
  if (moves) tell({ topic: "clock", id: panelId });
  return entries.map((e) => e.id);
}

/** Kinds of what was written; of a strike, or of a strike of one, the kind of what it takes out or puts back. */
async function kindsWritten(db: Db, inputs: readonly EntryInput[]): Promise<EntryKind[]> {
  const kinds: EntryKind[] = [];
  for (const input of inputs) {
    let at: { kind: EntryKind; supersedes?: string | null } | null = input;
    while (at?.kind === "strike" && at.supersedes) at = await getEntry(db, at.supersedes);
    if (at) kinds.push(at.kind);
  }
  return kinds;
}

/**
 * Strikes an entry out of what is shown; striking the strike is the undo. Nothing is deleted.
 * @param whole with every version of it; else a correction struck out brings back what it corrected
 * @param also entries that were made with it, on its panel or on others: all go or none
 */
export async function strikeEntry(
  ctx: ServerContext,
  entryId: string,
  { by, reason, whole = false, also = [] }: { by: string; reason: string; whole?: boolean; also?: readonly string[] },
): Promise<string> {
  const entries = await Promise.all([entryId, ...also].map((id) => getEntry(ctx.db, id)));
  const [first] = entries;
  const there = entries.filter((e) => e !== null);
  if (!first || there.length < entries.length) throw new Refusal(null, "This entry is no longer there", 404);
  return run(ctx, null, async (running) => {
    const struck: string[] = [];
    for (const panelId of new Set(there.map((e) => e.panelId))) {
      const strikes = there.filter((e) => e.panelId === panelId);
      struck.push(
        ...(await appendEntries(
          ctx,
          running,
          panelId,
          strikes.map((e) => ({ panelId, kind: "strike", body: { reason, whole }, by, supersedes: e.id })),
        )),
      );
    }
    return struck[0]!;
  });
}

/** Strikes several entries of one panel at once: all or none. */
export function strikeEntries(
  ctx: ServerContext,
  panelId: string,
  { entryIds, by, reason }: { entryIds: readonly string[]; by: string; reason: string },
): Promise<string[]> {
  return recordEntries(
    ctx,
    panelId,
    entryIds.map((supersedes) => ({ panelId, kind: "strike" as const, body: { reason, whole: true }, by, supersedes })),
  );
}

function checkedBody<K extends EntryKind>(kind: K, body: unknown): BodyOf<K> {
  const parsed = LEDGER_BODIES[kind].safeParse(body);
  if (parsed.success) return parsed.data as BodyOf<K>;
  const [issue] = parsed.error.issues;
  throw new Refusal(issue?.path.join(".") ?? null, issue?.message ?? "Not understood");
}

/** A pot of the panel's own clear says which that is: it stays what was mixed when the panel is sprayed with another. */
function naming<K extends EntryKind>(clear: { sheet: { name: string } } | null, kind: K, body: BodyOf<K>): BodyOf<K> {
  return clear && kind === "mix" && (body as BodyOf<"mix">).product === "" ? { ...body, product: clear.sheet.name } : body;
}

/** Another entry came in while this one was worked out; the command works it out again. */
export class LedgerMoved extends Refusal {
  constructor() {
    super(null, "The panel was changed in another window meanwhile. Nothing was overwritten; look again.", 409);
  }
}

const whoOf = ({ actor: { personId, deviceId } }: ServerContext) => (personId || deviceId ? { personId, deviceId } : undefined);

/** What was worked out on a ledger is stored on that ledger, or not at all. */
async function refuseMovedLedger(db: Db, panelId: string, inputs: readonly EntryInput[]): Promise<void> {
  const worked = inputs.find((i) => i.expectedVersion !== undefined);
  if (worked && (await newestEntryId(db, panelId)) !== worked.expectedVersion) throw new LedgerMoved();
}

/** A correction must aim at an entry that still counts: otherwise another window was first and would be overwritten unseen. */
async function refuseLostCorrections(db: Db, panelId: string, inputs: readonly EntryInput[]): Promise<void> {
  const targets = inputs.flatMap((i) => (i.supersedes ? [{ id: i.supersedes, strike: i.kind === "strike" }] : []));
  if (targets.length === 0) return;
  const all = await listEntries(db, panelId);
  const alive = new Set(livingEntries(all).map((e) => e.id));
  for (const { id, strike } of targets) {
    const target = all.find((e) => e.id === id);
    if (!target) throw new Refusal(null, "The entry to correct is not on this panel");
    const undone = target.kind === "strike" && strike && !all.some((e) => e.supersedes === id);
    if (!alive.has(id) && !undone)
      throw new Refusal(null, "This was changed in another window meanwhile. Nothing was overwritten; look again.");
  }
}
