import { describe, expect, it } from "vitest";
import { aJob, aMachine, aReading } from "@/testing/records";
import { askedBy, MEANINGS, SYMPTOMS, type Symptom } from "@/core/workshop/symptoms";
import { baselineOf } from "./baseline";
import { stationById } from "./registry";

const records = (symptoms: Symptom[], fields: Partial<Parameters<typeof baselineOf>[0]> = {}) => ({
  job: aJob({ symptoms }),
  machine: aMachine(),
  readings: [],
  adjustments: [],
  ...fields,
});
const ids = (symptoms: Symptom[]) => baselineOf(records(symptoms)).stations.map(({ station }) => station.id);

describe("what symptoms ask for", () => {
  it.each(SYMPTOMS.map((one) => [one]))("%s names stations that there are", (symptom) => {
    const { stations } = MEANINGS[symptom];
    expect(stations.length).toBeGreaterThan(0);
    for (const id of stations) expect(stationById(id), id).toBeDefined();
  });

  it("said together each thing stands once, in the order of the list whatever was pressed first", () => {
    const both = askedBy(["fast", "slow"]);
    expect(both.stations).toEqual(["speed", "flutter"]);
    expect(both.reproduce).toEqual([MEANINGS.slow.reproduce, MEANINGS.fast.reproduce]);
    expect(askedBy([])).toEqual({ beforePower: [], cheapFirst: [], reproduce: [], stations: [], minds: [] });
    expect(askedBy(["eats tape"]).minds.join()).toMatch(/No reference tape/);
  });
});

describe("what is measured before anything is opened", () => {
  it("speed and flutter always, and what the symptoms ask for, in working order", () => {
    expect(ids([])).toEqual(["speed", "flutter"]);
    expect(ids(["dull"])).toEqual(["speed", "flutter", "azimuth", "level", "response"]);
    // what is worked through with eyes and hands is no figure
    expect(ids(["dead"])).toEqual(["speed", "flutter"]);
  });

  it("counts as taken with a reading as found, not with one that was taken later", () => {
    const taken = (phase: "as found" | "working") =>
      baselineOf(records([], { readings: [aReading({ phase })] })).stations.map((one) => one.taken);
    expect(taken("as found")).toEqual([true, false]);
    expect(taken("working")).toEqual([false, false]);
  });

  it("a station that the job leaves out is told", () => {
    const { leftOut } = baselineOf(
      records(["dull"], { job: aJob({ symptoms: ["dull"], leftOut: ["azimuth"] }) }),
    );
    expect(leftOut.map(({ id }) => id)).toEqual(["azimuth"]);
  });
});
