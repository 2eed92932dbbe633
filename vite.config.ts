import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig, type Plugin } from "vite";
import { EVERY_PAGE, loadedWith, packagesOf } from "./scripts/bundle/first-page";

const everyPage = loadedWith(EVERY_PAGE);
const tonight = loadedWith([...EVERY_PAGE, "screens/tonight/route.tsx"]);
const tonightPackages = [...packagesOf(tonight.keys())].filter((name) => name !== "lucide-react"); // its icons go with who draws them
const packages = (...names: readonly string[]) => new RegExp(`/node_modules/(${names.join("|")})/`);

/**
 * What every page loads and what Tonight adds is a file each, since a browser asks for six at a time; the rest falls apart by itself.
 * Only the modules named are taken together, not all that a door of theirs leads to.
 */
const chunks: Plugin = {
  name: "zenithar:chunks",
  enforce: "post",
  configEnvironment: (name) =>
    name === "client"
      ? {
          build: {
            rolldownOptions: {
              preserveEntrySignatures: "allow-extension",
              output: {
                codeSplitting: {
                  includeDependenciesRecursively: false,
                  groups: [
                    { name: "react", test: packages("react", "react-dom", "scheduler", "react-router"), priority: 3 },
                    { name: "packages", test: packages(...tonightPackages), priority: 2 },
                    { name: "app", test: (id) => everyPage.has(id), priority: 2 },
                    { name: "tonight", test: (id) => tonight.has(id), priority: 1 },
                  ],
                },
              },
            },
          },
        }
      : undefined,
};

export default defineConfig(({ command }) => ({
  base: process.env["ZENITHAR_BASE"] ?? "/",
  plugins: [tailwindcss(), reactRouter(), chunks],
  resolve: { tsconfigPaths: true },
  // Bundling the server's dependencies keeps its cold start under a second. The router and React stay outside: the
  // Express adapter must meet the same copies.
  ssr: command === "build" ? { noExternal: true, external: ["react-router", "react", "react-dom"] } : {},
  worker: { format: "es" as const },
  build: { assetsInlineLimit: 0 },
  optimizeDeps: {
    include: [
      "react",
      "react-dom",
      "react-router",
      "radix-ui",
      "lucide-react",
      "joi",
      "localforage",
      "comlink",
      "cmdk",
      "astronomy-engine",
      "papaparse",
      "ics",
      "date-fns",
      "@date-fns/tz",
      "@photostructure/tz-lookup",
      "@tanstack/react-virtual",
      "@noble/hashes/sha2.js",
      "recharts",
      "react-dropzone",
      "react-intersection-observer",
      "@tanstack/react-table",
      "localforage-setitems",
      "clsx",
    ],
  },
}));
