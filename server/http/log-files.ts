import { existsSync, mkdirSync, readFileSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import roll from "pino-roll";

const NAME = "yakamoz";
/** A file of the log at its largest, and how many older ones stay. */
const SIZE = "2m";
const OLDER = 4;

export const logFolder = (folder: string): string => join(folder, "log");

/**
 * Files of the log beside the shop's data, the older ones let go.
 * @returns null where none can be written: the console has it all the same
 */
export async function logFiles(folder: string): Promise<Awaited<ReturnType<typeof roll>> | null> {
  try {
    mkdirSync(logFolder(folder), { recursive: true });
    const file = await roll({ file: join(logFolder(folder), NAME), extension: ".log", size: SIZE, limit: { count: OLDER } });
    file.on("error", () => {}); // a disk that is full takes no line; what matters is told where it is typed
    return file;
  } catch {
    return null;
  }
}

/** The last lines that were written, oldest first; those that are no line of the log are left out. */
export function lastLines(folder: string, most: number): Record<string, unknown>[] {
  const dir = logFolder(folder);
  if (!existsSync(dir)) return [];
  const files = readdirSync(dir)
    .filter((name) => name.startsWith(`${NAME}.`) && name.endsWith(".log"))
    .map((name) => join(dir, name))
    .sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs);
  const lines = files.slice(-2).flatMap((file) => readFileSync(file, "utf8").split("\n"));
  return lines.flatMap(asLine).slice(-most);
}

function asLine(text: string): Record<string, unknown>[] {
  try {
    const line: unknown = JSON.parse(text);
    return typeof line === "object" && line !== null && !Array.isArray(line) ? [line as Record<string, unknown>] : [];
  } catch {
    return [];
  }
}
