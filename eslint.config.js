import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** The folders that code in `folder` may not reach: imports run core ← store ← app, core ← standins. */
const wall = (folder, forbidden, extra = []) => ({
  files: [`${folder}/**/*.{ts,tsx}`],
  ignores: ["**/*.test.ts"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          ...forbidden.map((name) => ({
            group: [`**/${name}/**`, `~${name}/**`, ...(name === "app" ? ["~/**"] : [])],
            message: `${folder}/ must not import from ${name}/ (README, "Where things are").`,
          })),
          ...extra,
        ],
      },
    ],
  },
});

/** A literal spread into a literal switches off the compiler's check for keys that are misspelt. */
const SPREAD = {
  selector: "ObjectExpression > SpreadElement > ObjectExpression",
  message: "Write the keys themselves: spreading a literal hides misspelt keys from the compiler.",
};
/** What became of facts that were to be kept must be looked at: a refusal that nobody reads is a fact lost. */
const IGNORED = {
  selector:
    "ExpressionStatement > AwaitExpression > CallExpression[callee.name=/^(record|recordClosing|addFacts|closeJob)$/]",
  message: "Look at what became of it: a refusal that nobody reads is a fact lost.",
};

export default tseslint.config(
  { ignores: ["node_modules", "build", ".react-router", ".yard-key", "test-results"] },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: { projectService: { allowDefaultProject: ["eslint.config.js", "jest.config.js"] } },
    },
    rules: {
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true },
      ],
      "@typescript-eslint/only-throw-error": "off",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      eqeqeq: "error",
      // Words of our own that a browser's window has too: forgotten, they still compile.
      "no-restricted-globals": [
        "error",
        "closed",
        "event",
        "length",
        "name",
        "open",
        "parent",
        "status",
        "stop",
        "top",
      ],
      "no-restricted-syntax": ["error", SPREAD],
    },
  },
  {
    files: ["app/**/*.{ts,tsx}", "store/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: { "no-restricted-syntax": ["error", SPREAD, IGNORED] },
  },
  { files: ["**/*.{js,mjs}"], ...tseslint.configs.disableTypeChecked },
  {
    files: ["app/**/*.tsx", "app/**/*.ts"],
    plugins: { "react-hooks": hooks },
    rules: hooks.configs.recommended.rules,
  },
  wall(
    "core",
    ["store", "app", "standins", "demo", "bin", "e2e"],
    [
      {
        regex: "^(node:|react|pg|joi|fs$|path$|express|pino|uuid)",
        message: "core/ is plain TypeScript: no Node, no browser, no packages.",
      },
    ],
  ),
  {
    // Joi does the validating: the one package of core, behind one file.
    files: ["core/shape/joi.ts", "core/shape/check.ts"],
    rules: { "no-restricted-imports": "off" },
  },
  {
    files: ["core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        "process",
        "window",
        "document",
        "fetch",
        "setTimeout",
        "setInterval",
        "console",
      ],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random", message: "core/ has no randomness." },
        { object: "Date", property: "now", message: "core/ has no clock." },
      ],
      "no-restricted-syntax": [
        "error",
        SPREAD,
        { selector: "ImportExpression", message: "core/ loads nothing at run time." },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "core/ has no clock." },
      ],
    },
  },
  wall("store", ["app", "standins", "demo", "bin", "e2e"]),
  wall("app", ["standins", "demo", "bin", "e2e"]),
  wall("standins", ["store", "app", "demo", "bin", "e2e"]),
);
