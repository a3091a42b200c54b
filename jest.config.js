const common = {
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  moduleNameMapper: {
    "^~core/(.*)$": "<rootDir>/core/$1",
    "^~store/(.*)$": "<rootDir>/store/$1",
    "^~/(.*)$": "<rootDir>/app/$1",
  },
  transform: {
    "(\\.tsx?|node_modules/(joi|@hapi)/.+\\.js)$": [
      "<rootDir>/bin/transform.mjs",
      {
        jsc: {
          target: "es2023",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  transformIgnorePatterns: ["/node_modules/(?!(joi|@hapi)/)"],
  testEnvironment: "node",
  globals: { SAMPLES: Number(process.env.SAMPLES ?? 1) },
};

/** Journeys that kill the database itself: nothing else may be using it. */
const ALONE = ["resilience.test.ts", "storm.test.ts"];

export default {
  testSequencer: "<rootDir>/bin/slowest-first.mjs",
  testTimeout: 60_000,
  projects: [
    { ...common, displayName: "core", testMatch: ["<rootDir>/core/**/*.test.ts"] },
    {
      ...common,
      displayName: "store",
      testMatch: ["<rootDir>/{store,app,bin,demo,standins}/**/*.test.ts"],
    },
    {
      ...common,
      displayName: "e2e",
      testMatch: ["<rootDir>/e2e/**/*.test.ts"],
      testPathIgnorePatterns: ["/node_modules/", ...ALONE],
    },
    { ...common, displayName: "alone", testMatch: ALONE.map((name) => `<rootDir>/e2e/${name}`) },
  ],
};
