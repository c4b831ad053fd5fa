// `npm run build`: the program for the server and its pages, then the one for devices.
import { bin, must } from "./setup.mjs";

const env = { ...process.env, NODE_ENV: "production" };
must(process.execPath, [bin("@react-router/dev", "react-router"), "build", ...process.argv.slice(2)], { env });
must(process.execPath, ["scripts/build-device.mjs"], { env });
