import { Refusal } from "../commands/refusal";

/** What went wrong with the disk or the file, in the words of who is typing; none of it is the typist's doing. */
export const STORAGE_FAULTS = {
  full: {
    status: 507,
    words: "The disk is full: nothing was stored. Free some space, then send it again; what you typed is still here.",
  },
  readOnly: {
    status: 503,
    words: "The data file cannot be written to: nothing was stored. Whoever looks after this machine must make it writable again.",
  },
  busy: { status: 503, words: "Another program holds the data file: nothing was stored. Try again in a moment." },
  taken: {
    status: 503,
    words: "Another process has taken the data folder over: nothing was stored. This one stops; what you typed is still here.",
  },
  damaged: {
    status: 503,
    words: "The data file is damaged: nothing was stored. Stop the program and restore a backup (npm run restore).",
  },
  device: { status: 503, words: "The disk does not answer as it should: nothing was stored. Try again; if it stays, look at the disk." },
} as const satisfies Record<string, { status: number; words: string }>;
export type StorageFaultKind = keyof typeof STORAGE_FAULTS;

/** A write or read that failed for a reason of the machine. A refusal, so that every form shows it in words. */
export class StorageFault extends Refusal {
  constructor(
    readonly kind: StorageFaultKind,
    cause: unknown,
  ) {
    super(null, STORAGE_FAULTS[kind].words, STORAGE_FAULTS[kind].status);
    this.name = "StorageFault";
    this.cause = cause;
  }
}

/** SQLite's primary result codes by name, as the driver gives them (extended ones begin with the same name). */
const BY_CODE: readonly (readonly [prefix: string, kind: StorageFaultKind])[] = [
  ["SQLITE_FULL", "full"],
  ["SQLITE_READONLY", "readOnly"],
  ["SQLITE_CANTOPEN", "readOnly"],
  ["SQLITE_PERM", "readOnly"],
  ["SQLITE_BUSY", "busy"],
  ["SQLITE_LOCKED", "busy"],
  ["SQLITE_CORRUPT", "damaged"],
  ["SQLITE_NOTADB", "damaged"],
  ["SQLITE_IOERR", "device"],
];

/** Which fault of the machine an error of the driver (or of the file system) is; null for any other error. */
export function storageFaultKind(error: unknown): StorageFaultKind | null {
  const code = typeof error === "object" && error !== null && "code" in error ? String(error.code) : "";
  if (code === "ENOSPC" || code === "EDQUOT") return "full";
  if (code === "EROFS" || code === "EACCES" || code === "EPERM") return "readOnly";
  if (code === "EIO") return "device";
  return BY_CODE.find(([prefix]) => code.startsWith(prefix))?.[1] ?? null;
}
