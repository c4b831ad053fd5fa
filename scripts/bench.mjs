// `npm run bench`: speed and size, measured here and now (median, 95th percentile, spread). Builds first; a figure is not a test.
import { bin, ensureInstalled, must } from "./setup.mjs";

ensureInstalled();
const env = { ...process.env, NODE_ENV: "production" };
must(process.execPath, ["scripts/build.mjs", "--logLevel", "warn"], { env });
must(process.execPath, [bin("tsx"), "scripts/bench.ts", ...process.argv.slice(2)], { env });
