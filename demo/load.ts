/** Loads the demo shop when the file holds no job yet; an existing shop is left alone. */
import { dataFolder } from "#server/db/open";
import { countJobs } from "#server/repos/job-repo";
import { StartRefusal, openShop } from "#server/storage/open-shop";
import { loadScenario } from "./scenario";

try {
  const shop = await openShop(dataFolder(), { what: "the demo's loader" });
  const { db } = shop.ctx;
  const jobs = (await countJobs(db)) + (await countJobs(db, { archived: true }));
  if (jobs === 0) {
    await loadScenario(shop.ctx);
    console.log("Demo shop loaded: Quay Nine Refinish (invented; readings are simulated).");
  } else console.log(`The file holds ${jobs} jobs already: no demo loaded.`);
  await shop.close();
} catch (error) {
  if (!(error instanceof StartRefusal)) throw error;
  console.error(error.message);
  process.exitCode = error.exitCode;
}
