import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { NOTHING_HEARD_YET, type Heard, type HeardSpeed } from "@/core/stations/heard";
import { aJob, aMachine, aTape, anAdjustment, aReading } from "@/testing/records";
import { layBench, type Laid } from "./lay-bench";
import { CLOSED_LOGBOOK, logStep, saidAt, type LogEvent, type Logbook } from "./logbook";
import type { Told } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import { MEASURING } from "./registry";

const SPEED = MEASURING.find(({ id }) => id === "speed")!;
const AZIMUTH = MEASURING.find(({ id }) => id === "azimuth")!;
const FLUTTER = MEASURING.find(({ id }) => id === "flutter")!;
const MACHINE = aMachine();
const [TRIMMER, BELT] = MACHINE.adjusters;
const NOW = Date.UTC(2026, 10, 20, 12);

const speedOf = (fields: Partial<HeardSpeed> = {}): HeardSpeed => ({
  channel: "both",
  errorPercent: -1.2,
  uncertaintyPercent: 0.01,
  seconds: 6,
  settled: true,
  creeps: false,
  before: null,
  ...fields,
});
const heardOf = (speed: HeardSpeed | null): Heard => ({
  source: { kind: "practice", name: "x" },
  ...NOTHING_HEARD_YET,
  nominalHz: 3150,
  clockPercent: 0,
  speed,
});
const TOLD: Told = {
  occasion: "one",
  adjusterId: TRIMMER.id,
  turns: 0.125,
  from: { value: -1.6, uncertainty: 0.02, heardFrom: "tone" },
  moved: true,
};
const step = (
  book: Logbook,
  event: LogEvent,
  speed: HeardSpeed | null = speedOf(),
  records: Partial<JobRecords> = {},
  station = SPEED,
  told: Told | null = null,
  laid: Partial<Laid> = {},
) => {
  let next = 0;
  const bench = layBench()({
    records: { job: aJob(), machine: MACHINE, readings: [], adjustments: [], ...records },
    tape: aTape(),
    heard: speed && heardOf(speed),
    circumstances: { side: "A", pitch: undefined, head: "record" },
    prior: [],
    peak: null,
    told,
    readFrom: null,
    session: 1,
    ...laid,
  });
  return logStep(book, event, station, bench, { newId: () => `n${next++}`, now: NOW });
};

describe("logging", () => {
  it("a settled reading is logged as asked, with the circumstances that matter here", () => {
    const { entries, refused, logbook } = step(CLOSED_LOGBOOK, { kind: "log", phase: "as found" });
    expect(refused).toBeNull();
    expect(logbook).toEqual(CLOSED_LOGBOOK);
    expect(entries.readings).toHaveLength(1);
    expect(entries.readings[0]).toMatchObject({ value: -1.2, phase: "as found", context: { side: "A" } });
    expect(entries.readings[0].context).not.toHaveProperty("head");
    expect(saidAt(FLUTTER, { side: "B", pitch: "fastest", position: "end" })).toEqual({
      side: "B",
      position: "end",
    });
  });

  it("what was turned and not said is asked about once, before anything is logged", () => {
    const log = (book: Logbook, told: Told) =>
      step(book, { kind: "log", phase: "as left" }, speedOf(), {}, SPEED, told);
    expect(log(CLOSED_LOGBOOK, { ...TOLD, moved: false }).entries.readings).toHaveLength(1);
    const asked = log(CLOSED_LOGBOOK, TOLD);
    expect(asked.entries.readings).toEqual([]);
    expect(asked.refused).toMatch(/^SPEED 19 seems to have been turned: say so first/);
    const again = log(asked.logbook, TOLD);
    expect(again.entries.readings).toHaveLength(1);
    // the next turn is asked about anew
    expect(log(again.logbook, { ...TOLD, occasion: "two" }).refused).toMatch(/seems to have been turned/);
  });

  it.each<[string, HeardSpeed | null, RegExp]>([
    ["without a source", null, /start a source first/],
    ["while it settles", speedOf({ settled: false }), /Still settling/],
  ])("%s nothing is logged, and it is said why", (_, speed, why) => {
    const { entries, refused } = step(CLOSED_LOGBOOK, { kind: "log", phase: "working" }, speed);
    expect(entries.readings).toEqual([]);
    expect(refused).toMatch(why);
  });
});

describe("a number that is not of the machine as it is now", () => {
  const log: LogEvent = { kind: "log", phase: "as left" };
  const withHeard = (fields: Partial<Heard>, records: Partial<JobRecords> = {}) =>
    step(CLOSED_LOGBOOK, log, null, records, SPEED, null, { heard: { ...heardOf(speedOf()), ...fields } });

  it("of a source that has gone is not logged", () => {
    expect(withHeard({ gone: false }).entries.readings).toHaveLength(1);
    const { entries, refused } = withHeard({ gone: true });
    expect(entries.readings).toEqual([]);
    expect(refused).toMatch(/source has stopped/);
  });

  it("of a file that was dropped in before a turn, whoever logged that, is not logged", () => {
    const adjustments = [anAdjustment({ minutes: 8 })];
    const [{ at }] = adjustments;
    const moment = (minutes: number) => new Date(Date.parse(at) + 60_000 * minutes).toISOString();
    const { entries, refused } = withHeard({ droppedAt: moment(-1) }, { adjustments });
    expect(entries.readings).toEqual([]);
    expect(refused).toMatch(/was turned after this recording/);
    expect(withHeard({ droppedAt: moment(1) }, { adjustments }).entries.readings).toHaveLength(1);
  });
});

describe("a turn", () => {
  const turned: LogEvent = { kind: "turned", adjuster: TRIMMER, turns: 0.125, atStop: false };

  it("is logged with the reading that stood before somebody began", () => {
    const before = { errorPercent: -1.6, uncertaintyPercent: 0.01 };
    const { entries } = step(CLOSED_LOGBOOK, turned, speedOf({ before }));
    expect(entries.adjustments[0]).toMatchObject({ adjusterId: "speed", turns: 0.125 });
    expect(entries.readings[0].value).toBe(-1.6);
    expect(entries.readings[0].at < entries.adjustments[0].at).toBe(true);
  });

  it("needs no reading before it when the same was logged since the last turn", () => {
    const readings = [aReading({ minutes: 5, context: { ...aReading().context, side: "A" } })];
    expect(step(CLOSED_LOGBOOK, turned, speedOf(), { readings }).entries.readings).toEqual([]);
    // of another band, or before the last turn, it is not the same
    const other = [aReading({ minutes: 5, context: { ...readings[0].context, nominalHz: 1000 } })];
    expect(step(CLOSED_LOGBOOK, turned, speedOf(), { readings: other }).entries.readings).toHaveLength(1);
    const adjustments = [anAdjustment({ minutes: 8 })];
    expect(step(CLOSED_LOGBOOK, turned, speedOf(), { readings, adjustments }).entries.readings).toHaveLength(
      1,
    );
  });

  it("what it did is kept once it was told, was heard after that, and has settled", () => {
    const { logbook, entries } = step(CLOSED_LOGBOOK, turned);
    const after = { adjustments: entries.adjustments };
    const heard = (book: Logbook, marks: number, speed = speedOf()) =>
      step(book, { kind: "heard", marks }, speed, after);
    expect(heard(logbook, 9).entries.readings).toEqual([]);
    const told = step(logbook, { kind: "told", marks: 1 }).logbook;
    expect(heard(told, 0).entries.readings).toEqual([]);
    expect(heard(told, 1, speedOf({ settled: false })).entries.readings).toEqual([]);
    // the turn is not in the records yet: the reading would stand before it
    expect(step(told, { kind: "heard", marks: 1 }).entries.readings).toEqual([]);
    const kept = heard(told, 1);
    expect(kept.entries.readings[0]).toMatchObject({ phase: "working", value: -1.2 });
    // once
    expect(heard(kept.logbook, 2).entries.readings).toEqual([]);
  });

  it.each<[string, Partial<Laid>, MeasuringStation]>([
    ["another station", {}, AZIMUTH],
    ["another tape", { tape: { ...aTape(), id: "another" } }, SPEED],
    ["the other direction", { circumstances: { side: "B", head: "record" } }, SPEED],
    ["another head", { circumstances: { side: "A" } }, SPEED],
    ["another source", { session: 2 }, SPEED],
  ])("what it did is awaited no more at %s, also after coming back", (_, laid, station) => {
    const { logbook, entries } = step(CLOSED_LOGBOOK, turned);
    const after = { adjustments: entries.adjustments };
    const told = step(logbook, { kind: "told", marks: 1 }).logbook;
    const heard: LogEvent = { kind: "heard", marks: 1 };
    expect(step(told, heard, speedOf(), after).entries.readings).toHaveLength(1);
    const elsewhere = step(told, heard, speedOf(), after, station, null, laid);
    expect(elsewhere.entries.readings).toEqual([]);
    expect(step(elsewhere.logbook, heard, speedOf(), after).entries.readings).toEqual([]);
  });

  it("is shown by a file that was dropped in after it, and by none from before", () => {
    const file = (minutes: number): Partial<Laid> => ({
      heard: {
        ...heardOf(speedOf()),
        source: { kind: "file", name: "x.wav" },
        droppedAt: new Date(NOW + 60_000 * minutes).toISOString(),
      },
    });
    const { logbook, entries } = step(CLOSED_LOGBOOK, turned, null, {}, SPEED, null, file(-1));
    const after = { adjustments: entries.adjustments };
    const told = step(logbook, { kind: "told", marks: 1 }).logbook;
    const heard = (minutes: number) =>
      step(told, { kind: "heard", marks: 0 }, null, after, SPEED, null, { ...file(minutes), session: 2 });
    expect(heard(-1).entries.readings).toEqual([]);
    expect(heard(1).entries.readings).toHaveLength(1);
  });

  it("work where no turn shows at once keeps no reading by itself", () => {
    const done: LogEvent = { kind: "turned", adjuster: BELT, turns: null, atStop: false };
    const { logbook, entries } = step(CLOSED_LOGBOOK, done, speedOf(), {}, FLUTTER);
    expect(entries.readings).toEqual([]);
    const told = step(logbook, { kind: "told", marks: 1 }, speedOf(), {}, FLUTTER).logbook;
    const after = { adjustments: entries.adjustments };
    expect(step(told, { kind: "heard", marks: 1 }, speedOf(), after, FLUTTER).entries.readings).toEqual([]);
  });
});
