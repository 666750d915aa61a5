import { expect, type Page } from "@playwright/test";

const NAMES = ["jobs", "readings", "adjustments", "stripDown", "machines", "drafts"];

/** The storage as it stands, past everything of Unzel's. */
export const stored = (page: Page) =>
  page.evaluate(
    (names) =>
      new Promise<Record<string, Array<Record<string, unknown>>>>((resolve, reject) => {
        const opening = indexedDB.open("unzel");
        opening.onerror = () => reject(opening.error);
        opening.onsuccess = () => {
          const database = opening.result;
          const reading = database.transaction(names);
          const found: Record<string, Array<Record<string, unknown>>> = {};
          for (const name of names) {
            const all = reading.objectStore(name).getAll();
            all.onsuccess = () => (found[name] = all.result as Array<Record<string, unknown>>);
          }
          reading.oncomplete = () => {
            database.close();
            resolve(found);
          };
        };
      }),
    NAMES,
  );

/** Waits until something that was typed is kept, in a record or as a draft. */
export const isStored = (page: Page, text: string): Promise<void> =>
  expect.poll(async () => JSON.stringify(await stored(page))).toContain(text);

/** Puts so many jobs beside one that is kept, like it in everything but their names. */
export const manyLike = (page: Page, jobId: string, count: number) =>
  page.evaluate(
    ({ jobId, count }) =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open("unzel");
        opening.onerror = () => reject(opening.error);
        opening.onsuccess = () => {
          const database = opening.result;
          const writing = database.transaction("jobs", "readwrite");
          const jobs = writing.objectStore("jobs");
          const getting = jobs.get(jobId);
          getting.onsuccess = () => {
            for (let k = 1; k <= count; k++)
              jobs.put({ ...getting.result, id: `like-${k}`, number: `like ${k}` });
          };
          writing.onabort = () => reject(writing.error);
          writing.oncomplete = () => {
            database.close();
            resolve();
          };
        };
      }),
    { jobId, count },
  );
