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
  "weather",
  "finder",
  "plan",
  "ledger",
  "crew",
  "records",
  "formats",
];
const ban = (regex, message) => ({ "no-restricted-imports": ["error", { patterns: [{ regex, message }] }] });

/** Screens, each a room of its own: none looks into another (docs/layout.md). */
const SCREENS = [
  "shell",
  "tonight",
  "targets",
  "target",
  "finder",
  "own-target",
  "projects",
  "project",
  "frame",
  "budget",
  "plan",
  "log",
  "crew",
  "nights",
  "kit",
  "kit/places",
  "kit/place",
  "kit/rigs",
  "kit/rig",
  "kit/filters",
  "kit/data",
  "kit/sources",
];
const screenRules = SCREENS.map((name) => ({
  files: [`app/screens/${name}/*.{ts,tsx}`],
  ignores: ["**/*.test.{ts,tsx}"],
  rules: ban(
    "^(\\.\\./|~/screens/|localforage)",
    `screens/${name} keeps to ./files, the desk, components and the core; another screen's intents are its own`,
  ),
}));

const coreRules = LAYERS.map((layer, i) => {
  const allowed = LAYERS.slice(0, i).join("|") || "result";
  return {
    files: [`app/core/${layer}/**/*.ts`],
    ignores: ["**/*.test.ts"],
    rules: ban(
      `^(?!\\./[^/]+$|~/core/(${allowed})$|(astronomy-engine|javascript-lp-solver|exifreader|joi|papaparse|fast-xml-parser|ics|d3-geo|fast-json-stable-stringify|@date-fns/tz|date-fns|@noble/hashes/[a-z0-9]+\\.js|@photostructure/tz-lookup)$)`,
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
    files: ["app/workers/**/*.ts", "app/storage/**/*.ts", "app/server/**/*.ts", "app/services/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: ban("^~/(?!core/|data/)|^\\.\\./", "the edges import core doors and packed data, never each other"),
  },
  {
    files: ["app/desk/**/*.ts"],
    ignores: ["**/*.test.{ts,tsx}"],
    rules: ban(
      "^~/(components|screens|server)/|^\\.\\./|^react$|^react-dom",
      "the desk knows the core, the edges and the workers' clients; no React, no words, no screen",
    ),
  },
  {
    files: ["app/components/**/*.{ts,tsx}"],
    ignores: ["**/*.test.{ts,tsx}"],
    rules: ban("^~/(?!core/|components/)|^\\.\\./\\.\\./", "components import only core and components"),
  },
  ...screenRules,
  { files: ["**/*.js", "**/*.config.*"], extends: [tseslint.configs.disableTypeChecked] },
  prettier,
);
