import "fake-indexeddb/auto";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { aReading, anAdjustment } from "@/testing/records";
import { database } from "./database";
import { storeWaiting } from "./jobs";
import { keepWaiting, waitingEntries } from "./waiting-entries";

/** A small store, as a browser has one. */
class SmallStore {
  private readonly items = new Map<string, string>();
  get length() {
    return this.items.size;
  }
  key = (i: number) => [...this.items.keys()][i] ?? null;
  getItem = (key: string) => this.items.get(key) ?? null;
  setItem = (key: string, value: string) => void this.items.set(key, value);
  removeItem = (key: string) => void this.items.delete(key);
}

beforeEach(async () => {
  vi.stubGlobal("localStorage", new SmallStore());
  await Promise.all(database.tables.map((table) => table.clear()));
});
afterEach(() => vi.unstubAllGlobals());

it("what was logged and could not be stored outlives its page, and is stored once", async () => {
  const [reading, adjustment] = [aReading(), anAdjustment({ minutes: 1 })];
  keepWaiting(reading.id, { readings: [reading], adjustments: [adjustment] });
  expect(await storeWaiting()).toBe(2);
  expect(await database.readings.toArray()).toEqual([reading]);
  expect(waitingEntries()).toEqual([]);
  // stored meanwhile after all: not twice
  keepWaiting(reading.id, { readings: [reading], adjustments: [] });
  expect(await storeWaiting()).toBe(0);
  expect(await database.readings.count()).toBe(1);
});

it("what cannot be read of it is left where it is", async () => {
  keepWaiting("odd", { readings: [{ ...aReading(), station: "nowhere" }], adjustments: [] });
  expect(await storeWaiting()).toBe(0);
  expect(waitingEntries()).toHaveLength(1);
});
