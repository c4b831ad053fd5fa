// Modules of tests run in a context of their own, where looking a global name up costs a hundred times what it costs elsewhere: each module takes
// the names that its loops use once, at its head. The line numbers stay.
import { createTransformer as swc } from "@swc/jest";

const TAKEN = ["Math", "Number", "Float64Array", "Array", "Object", "Infinity", "NaN"];
const HEAD = `const { ${TAKEN.join(", ")} } = globalThis;`;

const headed = (result) => ({ ...result, code: HEAD + result.code });

export default {
  createTransformer(options) {
    const inner = swc(options);
    return {
      ...inner,
      process: (...args) => headed(inner.process(...args)),
      processAsync: async (...args) => headed(await inner.processAsync(...args)),
      getCacheKey: (...args) => inner.getCacheKey(...args) + HEAD,
    };
  },
};
