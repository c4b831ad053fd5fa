// `npm run dev`: the development server on the same data, with the demo in it when the file is empty.
import { bin, ensureInstalled, must } from "./setup.mjs";

ensureInstalled();
must(process.execPath, [bin("tsx"), "demo/load.ts"]);
must(process.execPath, [bin("@react-router/dev", "react-router"), "dev"]);
