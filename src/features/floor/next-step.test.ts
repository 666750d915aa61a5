import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { aJob, aMachine, anAdjustment, aPart, aReading } from "@/testing/records";
import { ROUTE } from "@/core/alignment/registry";
import { nextStep } from "./next-step";

const records = (fields: Partial<JobRecords> = {}): JobRecords => ({
  job: aJob(),
  machine: aMachine(),
  readings: [],
  adjustments: [],
  ...fields,
});
const ticked = Object.fromEntries(ROUTE.map(({ id, checks }) => [id, [...checks]]));
/** With every checklist done, the first measurement is what comes next. */
const measuring = (fields: Partial<JobRecords>): JobRecords =>
  records({ job: aJob({ done: ticked }), ...fields });
const found = aReading({ minutes: 1, phase: "as found" });

describe("what can be done on a job now", () => {
  it("nothing on one that is finished", () => {
    expect(nextStep(records({ job: aJob({ finishedAt: "2026-11-20T12:00:00.000Z" }) }))).toBeNull();
  });

  it.each<[string, JobRecords, RegExp, RegExp]>([
    ["a new job begins at its first checklist", records(), /Intake/, /Tarnvik T-2/],
    [
      "a reading outside its limit is to be set",
      measuring({ readings: [found] }),
      /Set speed/,
      /1\.42\u2009% outside/,
    ],
    [
      "one inside is to be logged as left",
      measuring({ readings: [aReading({ minutes: 1, phase: "as found", value: 0.05 })] }),
      /Set speed/,
      /log it as left/,
    ],
    [
      "what was settled and then upset is looked at again",
      measuring({
        readings: [
          found,
          aReading({ minutes: 2, phase: "as left", value: 0.02 }),
          aReading({
            minutes: 3,
            station: "flutter",
            quantity: "flutter.weighted.peak",
            value: 0.05,
            phase: "as left",
          }),
        ],
        adjustments: [anAdjustment({ minutes: 9 })],
      }),
      /Look again at speed/,
      /turned since/,
    ],
  ])("%s", (_, job, title, why) => {
    const step = nextStep(job)!;
    expect(step.title).toMatch(title);
    expect(step.why).toMatch(why);
    expect(step.href).toMatch(/^\/jobs\/j1\//);
  });

  it("a reading outside is told in the unit of its quantity, one that tells nothing as such", () => {
    const azimuth = (value: number, uncertainty: number) =>
      nextStep(
        records({
          job: aJob({ done: ticked, leftOut: ["speed", "flutter"] }),
          readings: [
            aReading({
              minutes: 1,
              station: "azimuth",
              quantity: "azimuth.phase",
              unit: "°",
              value,
              uncertainty,
            }),
          ],
        }),
      )!.why;
    expect(azimuth(120, 2)).toMatch(/105\.0° outside/);
    expect(azimuth(79.2, 180.3)).toMatch(/known worse than its limit/);
  });

  it("a machine without a limit for its meter is said to have none", () => {
    const rms = aMachine({ flutterMeter: "rms" });
    const job = aJob({ done: ticked, leftOut: ["speed"] });
    const readings = [
      aReading({ minutes: 1, station: "flutter", quantity: "flutter.weighted.rms", value: 9 }),
    ];
    expect(nextStep(records({ job, machine: rms, readings }))!.why).toMatch(/no limit for it/);
  });

  it("what does not wait goes on meanwhile, and what will put it in doubt is said", () => {
    const job = aJob({ done: { ...ticked, service: [] } });
    const step = nextStep(records({ job, neededParts: [aPart({ name: "belt" })] }))!;
    expect(step.title).toBe("Measure speed");
    expect(step.why).toMatch(/service waits for belt, and puts this in doubt once it is there/);
  });

  it("nothing while all that is left waits for parts", () => {
    const job = aJob({
      done: { ...ticked, service: [] },
      leftOut: ROUTE.filter(
        ({ kind, id }) => kind === "measure" || ["functions", "listening"].includes(id),
      ).map(({ id }) => id),
    });
    expect(nextStep(records({ job, neededParts: [aPart()] }))).toBeNull();
  });
});
