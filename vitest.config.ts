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
          setupFiles: ["integration/statements.ts", "integration/cheapHashes.ts", "integration/leftAsFound.ts"],
          // A process goes through many files with what it has loaded: loading it for each is half of the time.
          isolate: false,
          testTimeout: 60_000,
          // A whole organisation is made before each file: on a busy machine that takes a while, and it measures nothing.
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "browser",
          include: ["e2e/**/*.test.ts"],
          // The sample organisation has forty people.
          setupFiles: ["integration/cheapHashes.ts", "integration/leftAsFound.ts"],
          // A process goes through many files with what it has loaded, and with one sample organisation to copy.
          isolate: false,
          globalSetup: ["e2e/samples.ts"],
          testTimeout: 240_000,
          hookTimeout: 120_000,
          // Each waits for its browser most of the time; more than two would wait for the processor.
          maxWorkers: 2,
          // Steps build on each other: a single one tried again would meet what it did before (scripts/test.ts).
          retry: 0,
          expect: { poll: { timeout: 20_000, interval: 50 } },
        },
      },
    ],
  },
});
