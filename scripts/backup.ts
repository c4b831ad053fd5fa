/** `npm run backup [file]`: a consistent copy of the shop's data, also while the program runs. */
import { join } from "node:path";
import { backupTo } from "#server/backup";
import { dataFolder, databaseFile } from "#server/db/open";

const stamp = new Date().toISOString().slice(0, 19).replace(/[-:]/g, "").replace("T", "-");
const target = process.argv[2] ?? join(dataFolder(), "backups", `yakamoz-${stamp}.sqlite`);
try {
  const { bytes } = backupTo(databaseFile(), target);
  console.log(`${target}: ${(bytes / 1024).toFixed(0)} KiB, sound`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
}
