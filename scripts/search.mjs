// `npm run search [rounds] [first seed]`: all files that hold properties, each round with a seed of its own. What it finds becomes a named case beside its law.
import { execFileSync, spawnSync } from "node:child_process";
import { jest, root } from "./setup.mjs";

const [rounds = 5, first = Date.now() % 1e9] = process.argv.slice(2).map(Number);
const files = execFileSync("git", ["grep", "-l", "--untracked", 'from "fast-check"', "--", "*.test.ts", "*.test.tsx"], {
  cwd: root,
  encoding: "utf8",
})
  .trim()
  .split("\n");
const args = [...jest(), "--silent", ...files];
let failed = 0;
for (let seed = first; seed < first + rounds; seed++) {
  const { status } = spawnSync(process.execPath, args, {
    cwd: root,
    stdio: "inherit",
    env: { ...process.env, PROPERTY_SEED: String(seed) },
  });
  console.log(`seed ${seed}: ${status === 0 ? "no law broken" : "BROKEN, see above"}`);
  if (status !== 0) failed++;
}
console.log(`${rounds - failed} passed, ${failed} failed`);
process.exitCode = failed > 0 ? 1 : 0;
