// `npm run agree [panels] [first seed]`: panels with random ledgers; every figure that more than one page shows must be one figure.
import { agree } from "./agree/run";

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
