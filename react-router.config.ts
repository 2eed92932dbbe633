import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // An export lies under a path of its own, and is built beside what the server serves.
  basename: process.env["ZENITHAR_BASE"] ?? "/",
  buildDirectory: process.env["ZENITHAR_BUILD"] ?? "build",
  routeDiscovery: { mode: "initial" },
  future: {
    v8_middleware: true,
    v8_splitRouteModules: true,
    v8_viteEnvironmentApi: true,
    v8_passThroughRequests: true,
    v8_trailingSlashAwareDataRequests: true,
  },
} satisfies Config;
