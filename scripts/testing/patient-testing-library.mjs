// What tests get as `@testing-library/react`: the library, waiting as long as a judge takes on a slow and busy machine instead of a second.
import * as library from "../../node_modules/@testing-library/react/dist/index.js";
library.configure({ asyncUtilTimeout: 60_000 });
export * from "../../node_modules/@testing-library/react/dist/index.js";
