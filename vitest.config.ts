import path from "node:path";
import { defineConfig } from "vitest/config";

const alias = { "@": path.resolve("src") };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: "unit",
          include: [
            "src/**/*.test.ts",
            "lanyard/**/*.test.ts",
            "standins/**/*.test.ts",
            "demo/**/*.test.ts",
            "integration/**/*.test.ts",
          ],
          testTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "browser",
          include: ["e2e/**/*.test.ts"],
          testTimeout: 240_000,
          hookTimeout: 120_000,
          fileParallelism: false,
          // A whole browser on a busy machine: once more before it counts, in CI only.
          retry: process.env.CI ? 1 : 0,
        },
      },
    ],
  },
});
