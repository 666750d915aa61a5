import { defineConfig } from "vitest/config";

const alias = { "@": new URL("./src", import.meta.url).pathname };
// a busy machine is slow, not wrong
const testTimeout = 900_000;

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        // the core, and what tests are made with, keep no state between calls: their modules are read once for all
        resolve: { alias },
        test: {
          name: "core",
          include: ["src/{core,testing}/**/*.test.ts"],
          testTimeout,
          pool: "threads",
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "around",
          include: ["src/**/*.test.ts"],
          exclude: ["src/{core,testing}/**"],
          testTimeout,
        },
      },
    ],
  },
});
