import "fake-indexeddb/auto";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { clockSetBack, lastEntryMs } from "@/core/records/clock";
import { inForce } from "@/core/records/job-records";
import { aReading, anAdjustment } from "@/testing/records";
import { database } from "./database";
import { appendAdjustment, appendEntries, appendReadings } from "./jobs";

const NOON = Date.UTC(2026, 10, 20, 12);
const MINUTE = 60_000;
const at = (ms: number) => ({ at: new Date(ms).toISOString() });

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ["Date"] });
  await Promise.all(database.tables.map((table) => table.clear()));
});
afterEach(() => {
  vi.useRealTimers();
});

/** Logs a reading or a turn when the clock says so, and gives its id. */
async function log(kind: "reading" | "turn", ms: number): Promise<string> {
  vi.setSystemTime(ms);
  const entry = kind === "reading" ? { ...aReading(), ...at(ms) } : { ...anAdjustment(), ...at(ms) };
  await (kind === "reading" ? appendReadings([entry as never]) : appendAdjustment(entry as never));
  return entry.id;
}

const order = async () =>
  inForce([...(await database.readings.toArray()), ...(await database.adjustments.toArray())]).map(
    ({ id }) => id,
  );

describe("a clock that is set back", () => {
  it("leaves entries in the order they were made, as far apart as they were", async () => {
    const ids = [
      await log("reading", NOON),
      await log("turn", NOON - 60 * MINUTE),
      await log("reading", NOON - 59 * MINUTE),
    ];
    expect(await order()).toEqual(ids);
    const last = (await database.readings.get(ids[2]))!;
    const turn = (await database.adjustments.get(ids[1]))!;
    expect(Date.parse(last.at) - Date.parse(turn.at)).toBe(MINUTE);
    expect(last.clockSaid).toBe(new Date(NOON - 59 * MINUTE).toISOString());
    // set right again
    const right = await log("reading", NOON + 10 * MINUTE);
    expect((await database.readings.get(right))!.clockSaid).toBeUndefined();
    expect(await order()).toEqual([...ids, right]);
  });

  it("what was heard just before a turn stays before it, and a correction keeps its moment", async () => {
    const first = await log("reading", NOON);
    vi.setSystemTime(NOON - 5 * MINUTE);
    const before = { ...aReading(), ...at(NOON - 5 * MINUTE - 1) };
    const turn = { ...anAdjustment(), ...at(NOON - 5 * MINUTE) };
    await appendEntries({ readings: [before], adjustments: [turn] });
    expect(await order()).toEqual([first, before.id, turn.id]);
    const kept = (await database.readings.get(first))!;
    await appendReadings([{ ...kept, id: "corrected", supersedes: first }]);
    expect((await database.readings.get("corrected"))!.at).toBe(kept.at);
  });

  it("what took a while to be stored comes after the last entry all the same", async () => {
    const first = await log("reading", NOON);
    vi.setSystemTime(NOON - 60 * MINUTE);
    const heard = { ...aReading(), ...at(NOON - 60 * MINUTE - 20_000) };
    await appendReadings([heard]);
    expect(await order()).toEqual([first, heard.id]);
  });

  it("never puts an entry before another, however the clock is set", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.boolean(), fc.integer({ min: -500, max: 500 })), { minLength: 2, maxLength: 8 }),
        async (steps) => {
          await Promise.all(database.tables.map((table) => table.clear()));
          const ids: string[] = [];
          for (const [isReading, minutes] of steps)
            ids.push(await log(isReading ? "reading" : "turn", NOON + minutes * MINUTE + ids.length));
          expect(await order()).toEqual(ids);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("is noticed, with how far it stands back", () => {
    const last = lastEntryMs({ readings: [{ ...aReading(), ...at(NOON) }], adjustments: [] });
    expect(clockSetBack(last, NOON - 65 * MINUTE)).toMatch(/stands 1 h 5 min before the last entry/);
    expect(clockSetBack(last, NOON - 49 * 60 * MINUTE)).toMatch(/2 d 1 h/);
    expect(clockSetBack(last, NOON - MINUTE)).toBeNull();
    expect(clockSetBack(lastEntryMs({ readings: [], adjustments: [] }), NOON)).toBeNull();
  });
});
