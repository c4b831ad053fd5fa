import type { PanelBrief } from "#core/panel/brief";
import { type MessagePort, Worker } from "node:worker_threads";
import { planBooth } from "#core/models/schedule/booth-plan";
import { type FilmMoment, type KeptMoments, filmHistory } from "#core/judge/film-history";
import { type PlanQuestion, judgedPlan } from "#core/judge/plan-for";
import type { ShopFilm } from "#core/panel/shop-film";
import type { ProductSheet } from "#core/models/product/sheet";
import type { LedgerEntry } from "#core/record/entry";
import { LRUCache } from "lru-cache";
import { digestOf } from "./repos/digest";
import { backupTo } from "./storage/backup";
import { readBundleFile } from "./interchange/job-bundle";
import { readShelfFile } from "./interchange/shelf-file";
import { photographNibs, photographTube } from "#stand-ins/camera";

const MOMENTS = new LRUCache<string, FilmMoment>({ max: 5000 });
/** The moments of one panel that this thread has told before: with an entry more only what it adds is worked out. */
const momentsOf = (panel: string): KeptMoments => ({
  get: (key) => MOMENTS.get(`${panel} ${key}`),
  set: (key, moment) => void MOMENTS.set(`${panel} ${key}`, moment),
});

/** Work of the server that takes too long for the thread that answers requests. Each is a pure function of its input, but for the copying of a file. */
const THREAD_OPS = {
  backup: ({ source, target }: { source: string; target: string }) => backupTo(source, target),
  planBooth,
  photographNibs,
  photographTube,
  judgedPlan: (input: PlanQuestion) => judgedPlan(input),
  readBundleFile,
  readShelfFile,
  filmHistory: (i: { brief: PanelBrief; sheet: ProductSheet; entries: readonly LedgerEntry[]; shop: ShopFilm }) =>
    filmHistory(i.brief, i.sheet, i.entries, i.shop, momentsOf(digestOf("film history", [i.brief, i.sheet, i.shop]))),
} as const;
type Ops = typeof THREAD_OPS;
export type ThreadOp = keyof Ops;
type In<K extends ThreadOp> = Parameters<Ops[K]>[0];
type Out<K extends ThreadOp> = ReturnType<Ops[K]>;
export type RunInThread = <K extends ThreadOp>(op: K, input: In<K>) => Promise<Out<K>>;

type Call = { [K in ThreadOp]: { id: number; op: K; input: In<K> } }[ThreadOp];
type Reply = { id: number; output: unknown } | { id: number; failed: string };

const carryOut = <K extends ThreadOp>(op: K, input: In<K>): Out<K> => (THREAD_OPS[op] as (input: In<K>) => Out<K>)(input);

/** For tests and scripts: in this very thread. */
export const runHere: RunInThread = (op, input) => Promise.resolve().then(() => carryOut(op, input));

/** Memory of a thread: work that wants more ends with an error instead of taking the computer's. */
const MEMORY_MB = 2048;

/**
 * A thread of its own, started with the first call and again after it has failed; calls wait for each other in it.
 * @param module URL of the built program, which exports {@link serveThread}
 */
export function startThread(module: string, { memory_MB = MEMORY_MB }: { memory_MB?: number } = {}): RunInThread {
  let thread: Worker | null = null;
  let nextId = 1;
  const open = new Map<number, { resolve: (output: never) => void; reject: (error: Error) => void }>();
  const failAll = (error: Error) => {
    thread = null;
    for (const { reject } of open.values()) reject(error);
    open.clear();
  };
  const started = () => {
    const made = new Worker(
      `const { parentPort, workerData } = require("node:worker_threads");
       import(workerData).then((m) => m.serveThread(parentPort));`,
      { eval: true, workerData: module, resourceLimits: { maxOldGenerationSizeMb: memory_MB } },
    );
    made.unref();
    made.on("message", (reply: Reply) => {
      const call = open.get(reply.id);
      open.delete(reply.id);
      if ("failed" in reply) call?.reject(new RangeError(reply.failed));
      else call?.resolve(reply.output as never);
    });
    made.on("error", failAll);
    made.on("exit", (code) => failAll(new Error(`the computing thread ended with ${code}`)));
    return made;
  };
  return (op, input) =>
    new Promise((resolve, reject) => {
      const id = nextId++;
      open.set(id, { resolve, reject });
      (thread ??= started()).postMessage({ id, op, input });
    });
}

/** The thread's side: answers calls as long as the server lives. */
export function serveThread(port: MessagePort): void {
  port.on("message", ({ id, op, input }: Call) => {
    try {
      port.postMessage({ id, output: carryOut(op, input as never) } satisfies Reply);
    } catch (error) {
      port.postMessage({ id, failed: error instanceof Error ? error.message : String(error) } satisfies Reply);
    }
  });
}
