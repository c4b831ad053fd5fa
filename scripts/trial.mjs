// `npm run trial [part…]`: kills, fuzz, doors, a full disk, growth, a storm, against the built program. Builds first; minutes.
import { bin, ensureInstalled, must } from "./setup.mjs";

ensureInstalled();
const env = { ...process.env, NODE_ENV: "production" };
must(process.execPath, ["scripts/build.mjs", "--logLevel", "error"], { env });
must(process.execPath, [bin("tsx"), "scripts/trial/trial.ts", ...process.argv.slice(2)], { env });
