// `npm run agree away [lives] [first seed]`: the same lives with a shop that is away now and then.
// `npm run agree [panels] [first seed]`: panels with random ledgers; every figure that more than one page shows must be one figure.
import { awayLife } from "./agree/away";
import { agree } from "./agree/run";

if (process.argv[2] === "away") {
  const [lives = 300, from = 1] = process.argv.slice(3).map(Number);
  let [faults, away, entered] = [0, 0, 0];
  for (let seed = from; seed < from + lives; seed++) {
    const life = await awayLife(seed);
    faults += life.faults.length;
    away += life.away;
    entered += life.entered;
    for (const fault of life.faults.slice(0, 5)) console.log(`seed ${seed}: ${fault}`);
    if ((seed - from + 1) % 25 === 0) console.log(`${seed - from + 1} of ${lives} lives`);
  }
  console.log(`${lives} lives, ${away} times away, ${entered} entered meanwhile, ${faults} faults`);
  process.exit(faults > 0 ? 1 : 0);
}
const [panels = 300, from = 1] = process.argv.slice(2).map(Number);
const { figures, disagreements, broken } = await agree(panels, {
  from,
  onPanel: (done) => done % 25 === 0 && console.log(`${done} of ${panels} panels`),
});
for (const { panel, quantity, said } of disagreements.slice(0, 40))
  console.log(`${quantity}: ${said.map((s) => `${s.page} ${s.value}`).join(", ")}\n   ${panel.story.join("; ")}`);
for (const { panel, law } of broken.slice(0, 40)) console.log(`broken: ${law}\n   ${panel.story.join("; ")}`);
console.log(`${panels} panels, ${figures} figures, ${disagreements.length} disagreements, ${broken.length} laws broken`);
if (disagreements.length + broken.length > 0) process.exitCode = 1;
