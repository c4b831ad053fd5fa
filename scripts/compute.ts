/** `npm run --silent compute -- <topic>`: JSON cases on standard input, JSON results on standard output. A case with bad input is told and named in `refused`; the others are answered: exit 2. */
import { readFileSync } from "node:fs";
import { computeCases } from "#core/compute/topics";

function main(): number {
  const topic = process.argv[2];
  if (!topic) {
    console.error("usage: compute <topic> < cases.json");
    return 2;
  }
  let json: unknown;
  try {
    json = JSON.parse(readFileSync(0, "utf8").replace(/^\uFEFF/, ""));
  } catch (error) {
    console.error(`standard input: not JSON: ${error instanceof Error ? error.message : String(error)}`);
    return 2;
  }
  const answer = computeCases(topic, json);
  if (!answer.ok) {
    console.error(answer.message);
    return 2;
  }
  const { results, refused, skipped } = answer;
  process.stdout.write(`${JSON.stringify({ topic, results, refused, skipped }, null, 1)}\n`);
  for (const r of refused) console.error(`${r.id}: input.${r.field}: ${r.message}`);
  return refused.length > 0 ? 2 : 0;
}
process.exitCode = main();
