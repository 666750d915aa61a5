import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import type { PartState } from "@/core/workshop/part";
import { aJob, aMachine, aPart } from "@/testing/records";
import { goesOn, partsPlan } from "./plan";
import { MEASURING, ROUTE } from "./registry";

const ticked = (...ids: string[]) =>
  Object.fromEntries(ROUTE.filter(({ id }) => ids.includes(id)).map(({ id, checks }) => [id, [...checks]]));
const ALL = ["intake", "service", "path", "clean"];
const without = (...ids: string[]) => ALL.filter((id) => !ids.includes(id));
const records = (done: string[], fields: Partial<JobRecords> = {}): JobRecords => ({
  job: aJob({ done: ticked(...done) }),
  machine: aMachine(),
  readings: [],
  adjustments: [],
  ...fields,
});
const part = (station: string, state: PartState = "ordered", expected: string | null = null) =>
  aPart({ station, state, expected });
const ONLY_LISTS = { leftOut: [...MEASURING.map(({ id }) => id), "functions", "listening"] };

describe("what of a job can go on today", () => {
  it.each<
    [why: string, done: string[], parts: ReturnType<typeof part>[], goes: string | null, waits: string[]]
  >([
    ["nothing is done: the first station", [], [], "intake", []],
    ["a part for a later station holds up nothing before it", [], [part("service")], "intake", ["service"]],
    ["a station that waits is passed over", ["intake"], [part("service")], "path", ["service"]],
    [
      "one whose part is not yet ordered waits as well",
      ["intake"],
      [part("service", "wanted")],
      "path",
      ["service"],
    ],
    ["one whose part came wrong waits", ["intake"], [part("service", "wrong")], "path", ["service"]],
    ["one whose part is away for rebuild waits", ["intake"], [part("service", "away")], "path", ["service"]],
    ["one whose part is here goes on", ["intake"], [part("service", "fits")], "service", []],
    ["one whose part is back goes on", ["intake"], [part("service", "back")], "service", []],
    ["one whose part is fitted goes on", ["intake"], [part("service", "fitted")], "service", []],
    [
      "one of two that is still away holds it up",
      ["intake"],
      [part("service", "fits"), part("service")],
      "path",
      ["service"],
    ],
    ["two stations wait", ["intake"], [part("service"), part("path")], "clean", ["service", "path"]],
    [
      "a part for a station that is settled holds up nothing",
      ["intake", "service"],
      [part("service")],
      "path",
      [],
    ],
    [
      "all lists wait or are done: what is measured goes on",
      without("service"),
      [part("service")],
      "speed",
      ["service"],
    ],
    ["speed waits, flutter goes on", ALL, [part("speed")], "flutter", ["speed"]],
  ])("%s", (_, done, neededParts, goes, waits) => {
    const found = goesOn(records(done, { neededParts }));
    expect(found.station?.id ?? null).toBe(goes);
    expect(found.waits.map(({ station }) => station.id)).toEqual(waits);
  });

  it("the sheet waits for everything before it, and nothing is left to do", () => {
    const job = { ...aJob({ done: ticked(...without("service")) }), ...ONLY_LISTS };
    expect(goesOn(records([], { job, neededParts: [part("service")] })).station).toBeNull();
    expect(goesOn(records([], { job: { ...job, done: ticked(...ALL) } })).station?.id).toBe("sheet");
  });

  it.each([
    ["service puts speed in doubt", without("service"), [part("service")], ["service"]],
    ["it does not touch the path", ["intake"], [part("service")], []],
    ["a later station that waits upsets nothing before it", ALL, [part("flutter")], []],
  ])("%s", (_, done, neededParts, upset) => {
    expect(goesOn(records(done, { neededParts })).upsetBy.map(({ id }) => id)).toEqual(upset);
  });
});

describe("what the parts of six jobs ask for", () => {
  const job = (number: number, ...parts: Array<[PartState, string | null]>): JobRecords => ({
    ...records([]),
    job: aJob({
      id: `j${number}`,
      number: `${number}`,
      finishedAt: number === 6 ? "2026-11-20T12:00:00.000Z" : null,
    }),
    neededParts: parts.map(([state, expected], i) => aPart({ id: `${number}/${i}`, state, expected })),
  });
  const JOBS = [
    job(1, ["ordered", "2026-11-24"], ["wanted", null]),
    job(2, ["away", "2026-11-27"], ["fits", null]),
    job(3, ["ordered", "2026-11-20"], ["ordered", "2026-12-04"]),
    job(4, ["wrong", null], ["back", null]),
    job(5, ["ordered", null], ["fitted", null]),
    job(6, ["ordered", "2026-11-01"]),
  ];
  const ids = (of: Array<{ part: { id: string } }>) => of.map(({ part }) => part.id);

  it.each<[today: string, overdue: string[], expected: string[]]>([
    ["2026-11-19", [], ["3/0", "1/0", "2/0", "3/1"]],
    ["2026-11-20", [], ["3/0", "1/0", "2/0", "3/1"]],
    ["2026-11-21", ["3/0"], ["1/0", "2/0", "3/1"]],
    ["2026-11-25", ["3/0", "1/0"], ["2/0", "3/1"]],
    ["2026-11-27", ["3/0", "1/0"], ["2/0", "3/1"]],
    ["2026-11-28", ["3/0", "1/0", "2/0"], ["3/1"]],
    ["2027-01-01", ["3/0", "1/0", "2/0", "3/1"], []],
  ])("on %s", (today, overdue, expected) => {
    const plan = partsPlan(JOBS, today);
    expect(ids(plan.overdue)).toEqual(overdue);
    expect(ids(plan.expected)).toEqual(expected);
    expect(ids(plan.toOrder)).toEqual(["1/1", "4/0"]);
    expect(ids(plan.toFit)).toEqual(["2/1", "4/1"]);
    expect(ids(plan.undated)).toEqual(["5/0"]);
  });
});
