// What tests get as `fast-check`: the library with one seed for all properties, so that a run of the tests can be had again. `npm run search` gives others.
import fc from "../../node_modules/fast-check/lib/fast-check.js";
fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED ?? 1127) });
export * from "../../node_modules/fast-check/lib/fast-check.js";
export default fc;
