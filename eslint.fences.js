import { readdirSync } from "node:fs";

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
  "survey",
  "exposure",
  "care",
  "night",
  "weather",
  "finder",
  "season",
  "plan",
  "ledger",
  "live",
  "crew",
  "records",
  "formats",
  "observatory",
  "rehearsal",
];
const PACKAGES_OF_CORE =
  "astronomy-engine|javascript-lp-solver|exifreader|joi|papaparse|fast-xml-parser|ics|fflate|d3-geo|fast-json-stable-stringify|@date-fns/tz|date-fns|@noble/hashes/[a-z0-9]+\\.js|@hscmap/healpix|@photostructure/tz-lookup";

/** Refuses what a file takes in, now, later (`import()`) or only to hand it on, where the name matches. */
const fence = {
  meta: {
    type: "problem",
    schema: [{ type: "object", properties: { regex: { type: "string" }, message: { type: "string" } } }],
  },
  create(context) {
    const [{ regex, message }] = context.options;
    const banned = new RegExp(regex);
    const look = (source) => {
      if (typeof source?.value === "string" && banned.test(source.value))
        context.report({ node: source, message: `${source.value}: ${message}` });
    };
    return {
      ImportDeclaration: ({ source }) => look(source),
      ExportNamedDeclaration: ({ source }) => look(source),
      ExportAllDeclaration: ({ source }) => look(source),
      ImportExpression: ({ source }) => look(source),
      TSImportType: ({ source }) => look(source),
    };
  },
};
const plugins = { house: { rules: { fence } } };
const TESTS = ["**/*.test.{ts,tsx}"];
const fenced = (files, regex, message) => ({
  files,
  ignores: TESTS,
  plugins,
  rules: { "house/fence": ["error", { regex, message }] },
});

/** Screens, each a room of its own: every folder with a page in it. */
function screensIn(folder, under = "") {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isFile()) return entry.name === "route.tsx" ? [under.slice(0, -1)] : [];
    return screensIn(new URL(`${entry.name}/`, folder), `${under}${entry.name}/`);
  });
}
export const SCREENS = screensIn(new URL("app/screens/", import.meta.url));

/** Who may take in what (docs/layout.md): no room reaches into one above it, or past another's door. */
export const fences = [
  ...LAYERS.map((layer, i) => {
    const allowed = LAYERS.slice(0, i);
    return fenced(
      [`app/core/${layer}/**/*.ts`],
      `^(?!\\./[^/]+$|~/core/(${allowed.join("|") || "result"})$|(${PACKAGES_OF_CORE})$)`,
      `core/${layer} may import ./files and the doors of: ${allowed.join(", ")}`,
    );
  }),
  fenced(
    ["app/drawing/**/*.ts"],
    "^~/(?!core/[a-z]+$)|^\\.\\./",
    "what is drawn on a canvas takes in core doors alone: it serves the page and the workers",
  ),
  fenced(
    ["app/workers/**/*.ts"],
    "^~/(?!core/[a-z]+$|data/|drawing$)|^\\.\\./",
    "the workers import core doors, packed data and what is drawn",
  ),
  fenced(
    ["app/storage/**/*.ts", "app/services/**/*.ts", "app/offline/**/*.ts"],
    "^~/(?!core/[a-z]+$|data/)|^\\.\\./",
    "the edges import core doors and packed data, never each other",
  ),
  fenced(
    ["app/server/**/*.ts"],
    "^~/(?!core/[a-z]+$|data/|services/)|^\\.\\./",
    "the server imports core doors, packed data and what asks services",
  ),
  fenced(
    ["app/desk/**/*.ts"],
    "^~/(at-desk$|(components|screens|server|offline)/)|^~/core/[a-z]+/|^\\.\\./|^react$|^react-dom|^~/storage/browser$|^~/desk/desk.*test-data",
    "the desk knows core doors, its ports and what lies behind them; no React, no words, no screen, no browser",
  ),
  fenced(
    ["app/components/**/*.{ts,tsx}"],
    "^~/(?!core/[a-z]+$|components/|drawing$)|^\\.\\./\\.\\./",
    "components import only core doors, what is drawn, and components",
  ),
  ...SCREENS.map((name) =>
    fenced(
      [`app/screens/${name}/*.{ts,tsx}`],
      "^(\\.\\./|~/(screens|storage|services|workers|server|drawing)/|~/core/[a-z]+/|localforage|comlink)",
      `screens/${name} keeps to ./files, the desk, components and core doors; another screen's intents are its own`,
    ),
  ),
];
