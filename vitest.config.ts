import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    // Every core: left to itself one stays idle.
    maxWorkers: "100%",
    projects: [
      {
        extends: true,
        test: {
          name: "unit",
          environment: "node",
          // What a worker has read of the core serves all its files: nothing is kept at module level but what was worked out.
          isolate: false,
          include: ["app/**/*.test.ts", "scripts/**/*.test.ts"],
          exclude: ["app/storage/**"],
          setupFiles: ["app/laws-setup.ts"],
          testTimeout: 240_000, // under ten busy processes it is slow, and still green
        },
      },
      {
        extends: true,
        test: {
          name: "dom",
          environment: "jsdom",
          include: ["app/**/*.test.tsx", "app/storage/**/*.test.ts"],
          setupFiles: ["app/test-setup.ts", "app/laws-setup.ts"],
          testTimeout: 240_000, // under ten busy processes it is slow, and still green
        },
      },
      {
        extends: true,
        test: {
          name: "browser",
          environment: "node",
          include: ["e2e/**/*.test.ts"],
          globalSetup: ["e2e/shared-app.ts"],
          testTimeout: 600_000,
          hookTimeout: 400_000,
          fileParallelism: true,
          maxWorkers: 2,
        },
      },
    ],
  },
});
