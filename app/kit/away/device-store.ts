import { type DBSchema, type IDBPDatabase, openDB } from "idb";

/** A row of the shop as a device keeps it: `key` tells it from others of its table. */
export interface KeptRow {
  table: string;
  key: string;
  row: Record<string, string | number | null>;
}
/** Who stands at the device, as the shop last said. */
export interface Standing {
  /** Of which run of the server the numbers are, and up to which the rows have been followed. */
  epoch: string;
  seq: number;
  /** Address of the program that reads these rows on the device. */
  program: string;
  /** The shop's clock less this browser's, ms. */
  offset_ms: number;
  /** Null: nobody signs in. */
  who: KeptWho | null;
  /** By this browser's clock, when the shop was last heard of. */
  heard_ms: number;
}
export interface KeptWho {
  person: { id: string; name: string; role: string };
  device: { id: string; name: string };
  secure: boolean;
}
/** Something that was entered here and is not with the shop yet. */
export interface Waiting {
  /** Order of entry, given by the store. */
  n?: number;
  /** Made once: however often it is sent, it is carried out once. */
  key: string;
  path: string;
  body: string;
  /** When it happened, by this browser's clock. */
  happened_ms: number;
  personId: string | null;
  personName: string | null;
  /** What it is, a line for each thing that it wrote. */
  words: string[];
}
/** What the shop did not take as it was entered: a person decides. */
export interface Clash extends Waiting {
  message: string;
  /** The version that stands there now, where that is what was in the way. */
  version: string | null;
  refused_ms: number;
}

interface Device extends DBSchema {
  rows: { key: string; value: KeptRow };
  standing: { key: string; value: Standing };
  outbox: { key: number; value: Waiting; indexes: { key: string } };
  clashes: { key: string; value: Clash };
}

/** Each press of this file is one transaction of the browser's own store: all of it or nothing. A browser that keeps nothing throws. */
let opened: Promise<IDBPDatabase<Device>> | null = null;
function store(): Promise<IDBPDatabase<Device>> {
  opened ??= openDB<Device>("yakamoz-device", 1, {
    upgrade(db) {
      db.createObjectStore("rows");
      db.createObjectStore("standing");
      db.createObjectStore("outbox", { keyPath: "n", autoIncrement: true }).createIndex("key", "key", { unique: true });
      db.createObjectStore("clashes", { keyPath: "key" });
    },
    terminated: () => (opened = null),
  });
  opened.catch(() => (opened = null));
  return opened;
}
const NOW = "now";

export const standingNow = async (): Promise<Standing | undefined> => (await store()).get("standing", NOW);

/** Rows that have changed; of one that is not there any more the row is null. */
export interface Changes {
  whole: boolean;
  rows: readonly (Omit<KeptRow, "row"> & { row: KeptRow["row"] | null })[];
}
const keyOf = ({ table, key }: Pick<KeptRow, "table" | "key">) => `${table} ${key}`;

/** Takes changes in that were asked for upon `known`; where another window was faster, what that took in stands. */
export async function takeIn(standing: Standing, { whole, rows }: Changes, known: Standing | undefined): Promise<void> {
  const tx = (await store()).transaction(["rows", "standing"], "readwrite");
  const kept = tx.objectStore("rows");
  const now = await tx.objectStore("standing").get(NOW);
  if (now?.epoch === known?.epoch && now?.seq === known?.seq) {
    if (whole) await kept.clear();
    for (const { table, key, row } of rows)
      if (row) void kept.put({ table, key, row }, keyOf({ table, key }));
      else void kept.delete(keyOf({ table, key }));
    void tx.objectStore("standing").put(standing, NOW);
  }
  await tx.done;
}

/** Nobody is signed in here: nothing of the shop stays; what waits for it does. */
export async function dropRows(): Promise<void> {
  const tx = (await store()).transaction(["rows", "standing"], "readwrite");
  await Promise.all([tx.objectStore("rows").clear(), tx.objectStore("standing").clear(), tx.done]);
}

/** Everything that a page of this device is made of, as it stood at one moment. */
export async function allKept(): Promise<{ standing: Standing | undefined; rows: KeptRow[]; waiting: Waiting[] }> {
  const tx = (await store()).transaction(["rows", "standing", "outbox"]);
  const [standing, rows, waiting] = await Promise.all([
    tx.objectStore("standing").get(NOW),
    tx.objectStore("rows").getAll(),
    tx.objectStore("outbox").getAll(),
  ]);
  return { standing, rows, waiting };
}
/** The same without the rows: whether anything has changed is asked with every page. */
export async function headKept(): Promise<{ standing: Standing | undefined; waiting: Waiting[] }> {
  const tx = (await store()).transaction(["standing", "outbox"]);
  const [standing, waiting] = await Promise.all([tx.objectStore("standing").get(NOW), tx.objectStore("outbox").getAll()]);
  return { standing, waiting };
}

/** @returns its place in the order of entry */
export const putWaiting = async (item: Waiting): Promise<number> => (await store()).add("outbox", item);
export const firstWaiting = async (): Promise<Waiting | undefined> =>
  (await (await store()).transaction("outbox").store.openCursor())?.value;

/** The shop has answered: it waits no longer, and what was refused lies aside. Where another window heard it too, it is told once. */
export async function settle(item: Waiting, refused: Pick<Clash, "message" | "version"> | null): Promise<void> {
  const tx = (await store()).transaction(["outbox", "clashes"], "readwrite");
  if (await tx.objectStore("outbox").get(item.n!)) {
    void tx.objectStore("outbox").delete(item.n!);
    if (refused) void tx.objectStore("clashes").put({ ...item, ...refused, refused_ms: Date.now() });
  }
  await tx.done;
}

/** A person has decided: it waits for the shop once more, at the end, upon the version that stands there now. */
export async function waitAgain({ key, path, body, happened_ms, personId, personName, words, version }: Clash): Promise<void> {
  const fields = new URLSearchParams(body);
  if (version !== null) fields.set("version", version);
  const tx = (await store()).transaction(["outbox", "clashes"], "readwrite");
  void tx.objectStore("outbox").add({ key, path, body: String(fields), happened_ms, personId, personName, words });
  void tx.objectStore("clashes").delete(key);
  await tx.done;
}
export const leaveOut = async ({ key }: Clash): Promise<void> => (await store()).delete("clashes", key);

export async function countKept(): Promise<{ waiting: number; clashes: number }> {
  const db = await store();
  const [waiting, clashes] = await Promise.all([db.count("outbox"), db.count("clashes")]);
  return { waiting, clashes };
}
/** In their order of entry. */
export async function listKept(): Promise<{ waiting: Waiting[]; clashes: Clash[] }> {
  const db = await store();
  const [waiting, clashes] = await Promise.all([db.getAll("outbox"), db.getAll("clashes")]);
  return { waiting, clashes: clashes.sort((a, b) => a.happened_ms - b.happened_ms) };
}
