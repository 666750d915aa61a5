import { readFileSync } from "node:fs";
import { expect, test } from "./test";

const FIXTURE = "src/storage/fixtures/before-station-modules.unzel.json";

/** The stores of version 2 with their indexes, as a browser holds them that has not been here since. */
const STORES: Record<string, string[]> = {
  jobs: ["number", "machineId", "updatedAt"],
  machines: ["name"],
  tapes: ["name"],
  readings: ["jobId", "[jobId+at]"],
  adjustments: ["jobId", "[jobId+at]"],
  drafts: [],
  flags: [],
  settings: [],
  calibrations: [],
  recordings: ["jobId", "at"],
  sequences: ["name"],
  tapeSeconds: ["tapeId"],
};

test("what an older version kept in the browser opens, on the floor, on the bench and on the sheet", async ({
  page,
}) => {
  const { content } = JSON.parse(readFileSync(FIXTURE, "utf8"));
  await page.goto("/demo/workshop.unzel.json"); // the same origin, without the application
  await page.evaluate(
    ({ stores, rows }) =>
      new Promise<void>((done, fail) => {
        const open = indexedDB.open("unzel", 20);
        open.onupgradeneeded = () => {
          for (const [name, indexes] of Object.entries(stores)) {
            const store = open.result.createObjectStore(name, {
              keyPath: name === "calibrations" ? "deviceId" : "id",
            });
            for (const index of indexes)
              store.createIndex(index, index.startsWith("[") ? ["jobId", "at"] : index);
            for (const row of rows[name] ?? []) store.add(row);
          }
        };
        open.onsuccess = () => {
          open.result.close();
          done();
        };
        open.onerror = () => fail(open.error);
      }),
    {
      stores: STORES,
      rows: {
        ...content,
        // machines had neither parts nor tracks then
        machines: content.machines.map((machine: object) => ({
          ...machine,
          parts: undefined,
          tracks: undefined,
        })),
        flags: [{ id: "demo", value: "loaded" }],
      } as Record<string, object[]>,
    },
  );

  await page.goto("/");
  await expect(page.getByRole("article")).toHaveCount(2);
  await page.goto("/jobs/demo-job-0412/bench/flutter");
  await expect(page.getByRole("link", { name: "Wow and flutter again" })).toBeVisible();
  await page.goto("/jobs/demo-job-0409/bench/azimuth");
  await expect(page.getByRole("list", { name: "Readings" }).getByRole("listitem").first()).toBeVisible();
  await expect(page.getByRole("link", { name: "Azimuth settled" })).toBeVisible();
  await page.goto("/jobs/demo-job-0409/sheet");
  await expect(page.getByRole("table").first()).toContainText("Speed error");
});
