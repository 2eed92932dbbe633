import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ command }) => ({
  plugins: [tailwindcss(), reactRouter()],
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
