import { defineConfig } from "vitest/config";

const alias = { "@": new URL("./src", import.meta.url).pathname };
// a busy machine is slow, not wrong
const testTimeout = 900_000;

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        // the core keeps no state between calls: its modules are read once for all of its tests
        resolve: { alias },
        test: {
          name: "core",
          include: ["src/core/**/*.test.ts"],
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
          exclude: ["src/core/**"],
          testTimeout,
        },
      },
    ],
  },
});
