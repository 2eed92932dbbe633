import js from "@eslint/js";
import prettier from "eslint-config-prettier";
import reactHooks from "eslint-plugin-react-hooks";
import { defineConfig, globalIgnores } from "eslint/config";
import globals from "globals";
import tseslint from "typescript-eslint";

/** Core layers in order: each may import only those before it, by their door (docs/style.md). */
const LAYERS = [
  "result",
  "units",
  "numeric",
  "time",
  "notation",
  "sky",
  "catalog",
  "framing",
  "exposure",
  "night",
  "plan",
  "ledger",
  "crew",
  "formats",
];
const ban = (regex, message) => ({ "no-restricted-imports": ["error", { patterns: [{ regex, message }] }] });

const coreRules = LAYERS.map((layer, i) => {
  const allowed = LAYERS.slice(0, i).join("|") || "result";
  return {
    files: [`app/core/${layer}/**/*.ts`],
    ignores: ["**/*.test.ts"],
    rules: ban(
      `^(?!\\./[^/]+$|~/core/(${allowed})$|(astronomy-engine|joi|papaparse|fast-xml-parser|ics|d3-geo|@date-fns/tz|date-fns|@noble/hashes/[a-z0-9]+\\.js|@photostructure/tz-lookup)$)`,
      `core/${layer} may import ./files and the doors of: ${allowed.replaceAll("|", ", ")}`,
    ),
  };
});

export default defineConfig(
  globalIgnores(["build", "node_modules", ".react-router", "reference"]),
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  reactHooks.configs.flat.recommended,
  {
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
      globals: { ...globals.browser, ...globals.node },
    },
    rules: {
      "@typescript-eslint/only-throw-error": "off",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "no-restricted-exports": ["off"],
    },
  },
  {
    files: ["app/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "The clock is passed into the core." },
        { object: "Math", property: "random", message: "Chance is passed into the core." },
      ],
      "no-restricted-syntax": [
        "error",
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: "The clock is passed into the core.",
        },
      ],
    },
  },
  ...coreRules,
  {
    files: ["app/workers/**/*.ts"],
    rules: ban("^~/(?!core/|data/)|^\\.\\./", "workers import only core doors and packed data"),
  },
  {
    files: ["app/storage/**/*.ts", "app/server/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: ban(
      "^~/(?!core/|data/)|^\\.\\./",
      "storage and server import only core doors and packed data, never each other",
    ),
  },
  {
    files: ["app/services/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: ban("^~/(?!core/)|^\\.\\./", "services import only core doors"),
  },
  {
    files: ["app/components/**/*.{ts,tsx}"],
    rules: ban("^~/(?!core/|components/)", "components import only core and components"),
  },
  {
    files: ["app/routes/**/*.{ts,tsx}"],
    ignores: ["**/*.test.ts"],
    rules: ban("^~/routes/", "a route imports no other route by its alias"),
  },
  { files: ["**/*.js", "**/*.config.*"], extends: [tseslint.configs.disableTypeChecked] },
  prettier,
);
