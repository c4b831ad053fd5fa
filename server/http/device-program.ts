import { existsSync, readdirSync } from "node:fs";

const ASSETS = "build/client/assets";
let found: string | null | undefined;

/** Address of the program that a device works with while the server is away; null where it was not built. */
export function deviceProgram(): string | null {
  if (found !== undefined) return found;
  const file = existsSync(ASSETS) ? readdirSync(ASSETS).find((f) => /^device-[\w-]{10}\.js$/.test(f)) : undefined;
  return (found = file ? `/assets/${file}` : null);
}
