import { existsSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, isAbsolute, join, relative, resolve } from "node:path";
import { FILE_NAME } from "../db/open";
import { BACKUPS, stampOf } from "./backup";

/** Where copies of the shop lie: beside its file, in a second place, or what a restore has set aside. */
export type Place = "here" | "second" | "aside";

/** A copy of the shop. */
export interface KeptCopy {
  /** Names it among all of them; never a path. */
  id: string;
  place: Place;
  file: string;
  at_ms: number;
  bytes: number;
  /** Made by itself, by the plan: only these are let go by it. */
  byPlan: boolean;
  /** Made before the file was brought up to a newer program. */
  before: string | null;
}

const STEM = basename(FILE_NAME, ".sqlite");
const BY_PLAN = "kept";
const NAME = new RegExp(`^${STEM}-(?:(${BY_PLAN}|before-[\\w-]+)-)?(\\d{8}-\\d{6})\\.sqlite$`);
/** Lies in a second place from when it was chosen: a disk that is not there is told from an empty one. */
const MARK = "yakamoz-backups-here";

/** The name of a backup by the plan, and of one that somebody asked for. */
export const nameByPlan = (now_ms: number): string => `${STEM}-${BY_PLAN}-${stampOf(now_ms)}.sqlite`;
export const nameByHand = (now_ms: number): string => `${STEM}-${stampOf(now_ms)}.sqlite`;

/** The time in a stamp; null for what is none. */
function timeOf(stamp: string): number | null {
  const [, y, mo, d, h, mi, s] = /^(\d{4})(\d\d)(\d\d)-(\d\d)(\d\d)(\d\d)$/.exec(stamp) ?? [];
  const at_ms = Date.parse(`${y}-${mo}-${d}T${h}:${mi}:${s}Z`);
  return Number.isNaN(at_ms) ? null : at_ms;
}

/** Backups in a folder by their names; what bears another name is nobody's to touch. */
function backupsIn(folder: string, place: Place): KeptCopy[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder).flatMap((name) => {
    const [, why, stamp] = NAME.exec(name) ?? [];
    const at_ms = stamp === undefined ? null : timeOf(stamp);
    if (at_ms === null) return [];
    const file = join(folder, name);
    const before = why?.startsWith("before-") ? why.slice("before-".length) : null;
    return [{ id: `${place}-${name}`, place, file, at_ms, bytes: sizeOf(file), byPlan: why === BY_PLAN, before }];
  });
}

function setAsideIn(folder: string): KeptCopy[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder).flatMap((stamp) => {
    const file = join(folder, stamp, FILE_NAME);
    const at_ms = timeOf(stamp);
    if (at_ms === null || !existsSync(file)) return [];
    return [{ id: `aside-${stamp}`, place: "aside" as const, file, at_ms, bytes: sizeOf(file), byPlan: false, before: null }];
  });
}

const sizeOf = (file: string): number => statSync(file, { throwIfNoEntry: false })?.size ?? 0;

/** All copies of a shop, the newest first. @param second folder on another disk; null where there is none */
export const keptCopies = (folder: string, second: string | null): KeptCopy[] =>
  [
    ...backupsIn(join(folder, BACKUPS), "here"),
    ...(second !== null && isThere(second) ? backupsIn(second, "second") : []),
    ...setAsideIn(join(folder, "set-aside")),
  ].sort((a, b) => b.at_ms - a.at_ms || a.id.localeCompare(b.id));

/** Whether the second place is there and is the one that was chosen: an unplugged disk leaves an empty folder behind. */
export function isThere(second: string): boolean {
  try {
    return readFileSync(join(second, MARK), "utf8").length > 0;
  } catch {
    return false;
  }
}

/**
 * Takes a folder as the second place, and leaves a mark in it.
 * @throws RangeError in words, where it cannot be one
 */
export function chooseSecond(second: string, folder: string): void {
  if (!isAbsolute(second)) throw new RangeError("Give the whole path of a folder on this computer, from its root");
  if (!statSync(second, { throwIfNoEntry: false })?.isDirectory()) throw new RangeError("There is no such folder on this computer");
  const within = relative(resolve(folder), resolve(second));
  if (within === "" || (!within.startsWith("..") && !isAbsolute(within)))
    throw new RangeError("That is in the shop's own data folder: choose another disk");
  try {
    writeFileSync(join(second, MARK), "Backups of the shop are kept in this folder.\n");
  } catch {
    throw new RangeError("That folder cannot be written to");
  }
}

/** Removes a copy; of what was set aside, its folder too. */
export function letGo(copy: KeptCopy): void {
  if (copy.place === "aside") rmSync(dirname(copy.file), { recursive: true, force: true });
  else rmSync(copy.file, { force: true });
}
