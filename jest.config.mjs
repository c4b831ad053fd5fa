const swc = (tsx) => [
  "@swc/jest",
  {
    jsc: { target: "es2022", parser: { syntax: "typescript", tsx, decorators: false }, transform: { react: { runtime: "automatic" } } },
    module: { type: "es6" },
  },
];
export default {
  testMatch: ["<rootDir>/{core,server,app,workers,stand-ins,scripts,demo}/**/*.test.ts?(x)"],
  testEnvironment: "node",
  testTimeout: 60_000, // a judge takes seconds on a slow, busy machine; what hangs is still ended
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: { "\\.tsx$": swc(true), "\\.ts$": swc(false) },
  moduleNameMapper: {
    "^fast-check$": "<rootDir>/scripts/seeded-fast-check.mjs",
    "^~/(.*)$": "<rootDir>/app/$1",
    "^#(core|server|workers|stand-ins)/(.*)$": "<rootDir>/$1/$2",
  },
  modulePathIgnorePatterns: ["<rootDir>/build"],
};
