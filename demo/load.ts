/** Loads the demo shop when the file holds no job yet; an existing shop is left alone. */
import { serverContext } from "#server/context";
import { listJobs } from "#server/repos/job-repo";
import { loadScenario } from "./scenario";

const ctx = await serverContext();
const jobs = [...(await listJobs(ctx.db)), ...(await listJobs(ctx.db, { archived: true }))];
if (jobs.length === 0) {
  await loadScenario(ctx);
  console.log("Demo shop loaded: Quay Nine Refinish (invented; readings are simulated).");
} else console.log(`The file holds ${jobs.length} jobs already: no demo loaded.`);
await ctx.db.destroy();
