import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: "unit",
          environment: "node",
          include: ["app/**/*.test.ts", "scripts/**/*.test.ts"],
          exclude: ["app/storage/**", "app/desk/**"],
          setupFiles: ["app/laws-setup.ts"],
          testTimeout: 60_000,
        },
      },
      {
        extends: true,
        test: {
          name: "dom",
          environment: "jsdom",
          include: ["app/**/*.test.tsx", "app/storage/**/*.test.ts", "app/desk/**/*.test.ts"],
          setupFiles: ["app/test-setup.ts", "app/laws-setup.ts"],
          testTimeout: 60_000,
        },
      },
      {
        extends: true,
        test: {
          name: "browser",
          environment: "node",
          include: ["e2e/**/*.test.ts"],
          testTimeout: 180_000,
          hookTimeout: 120_000,
          fileParallelism: true,
          maxWorkers: 2,
        },
      },
    ],
  },
});
