// `npm run search [rounds] [first seed]`: all files that hold properties, each round with a seed of its own, then the laws of every page in the browser,
// whole (a day's tests take a part of the pages; needs a build). What it finds becomes a named case beside its law.
import { execFileSync, spawnSync } from "node:child_process";
import { bin, jest, root } from "./setup.mjs";

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
const laws = ["typed", "first-screen", "keyboard", "pages", "words"];
const { status } = spawnSync(process.execPath, [bin("playwright"), "test", ...laws], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, SEARCH: "1" },
});
console.log(`the laws of every page: ${status === 0 ? "no law broken" : "BROKEN, see above"}`);
if (status !== 0) failed++;
console.log(`${rounds + 1 - failed} passed, ${failed} failed`);
process.exitCode = failed > 0 ? 1 : 0;
