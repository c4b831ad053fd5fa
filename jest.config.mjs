const swc = (tsx) => [
  "<rootDir>/scripts/jest-swc.mjs",
  {
    jsc: { target: "es2022", parser: { syntax: "typescript", tsx, decorators: false }, transform: { react: { runtime: "automatic" } } },
    module: { type: "es6" },
  },
];
export default {
  testMatch: ["<rootDir>/{core,server,app,device,workers,stand-ins,scripts,demo}/**/*.test.ts?(x)"],
  testEnvironment: "node",
  testTimeout: 180_000, // a judge takes seconds, a slow and busy machine many: only what hangs is ended; no test has a limit of its own
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: { "\\.tsx$": swc(true), "\\.ts$": swc(false) },
  moduleNameMapper: {
    "^fast-check$": "<rootDir>/scripts/testing/seeded-fast-check.mjs",
    "^@testing-library/react$": "<rootDir>/scripts/testing/patient-testing-library.mjs",
    "^~/(.*)$": "<rootDir>/app/$1",
    "^#(core|server|device|workers|stand-ins)/(.*)$": "<rootDir>/$1/$2",
  },
  modulePathIgnorePatterns: ["<rootDir>/build"],
};
