import { defineConfig } from "vitest/config";

const alias = { "@": new URL("./src", import.meta.url).pathname };
// a busy machine is slow, not wrong
const testTimeout = 900_000;

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        // the core and most of what is around it keep no state between calls: their modules are read once for all
        resolve: { alias },
        test: {
          name: "core",
          include: ["src/**/*.test.ts"],
          exclude: ["src/storage/**"],
          testTimeout,
          pool: "threads",
          isolate: false,
        },
      },
      {
        // each with a database of its own
        resolve: { alias },
        test: {
          name: "storage",
          include: ["src/storage/**/*.test.ts"],
          testTimeout,
        },
      },
    ],
  },
});
