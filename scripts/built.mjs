// Plain Node, no dependencies: the built program, for commands that need no development tool.
import { existsSync } from "node:fs";
import { join } from "node:path";
import { root } from "./setup.mjs";

/** Exports of the built program; without one it says what to do and ends. */
export async function builtProgram() {
  const file = join(root, "build", "server", "index.js");
  if (!existsSync(file)) {
    console.error("The program is not built yet: npm run build (or npm run demo) first.");
    process.exit(1);
  }
  process.env.NODE_ENV ??= "production";
  return import(file);
}
