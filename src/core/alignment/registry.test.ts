import { describe, expect, it } from "vitest";
import { aMachine } from "@/testing/records";
import { GROUPS } from "@/core/stations/station";
import { TOLERANCE_CLASSES, type ToleranceClass } from "@/core/standards/tolerance-classes";
import { MEASURING, QUANTITIES, quantityOf, ROUTE, routeOf, stationById } from "./registry";
import { aJob } from "@/testing/records";

const CLASSES = Object.keys(TOLERANCE_CLASSES) as ToleranceClass[];

describe("the stations", () => {
  it("have ids, names and quantities of their own", () => {
    expect(new Set(ROUTE.map(({ id }) => id)).size).toBe(ROUTE.length);
    expect(new Set(ROUTE.map(({ name }) => name)).size).toBe(ROUTE.length);
    const all = MEASURING.flatMap(({ quantities }) => Object.keys(quantities));
    expect(new Set(all).size).toBe(all.length);
    expect(QUANTITIES).toEqual(all);
    expect(() => quantityOf("nothing")).toThrow(/no station logs/);
  });

  it("stand in the order of their groups, and the sheet comes last", () => {
    const groups = ROUTE.map(({ group }) => GROUPS.indexOf(group));
    expect(groups).toEqual(groups.toSorted((a, b) => a - b));
    expect(ROUTE.at(-1)!.kind).toBe("sheet");
  });

  it.each(ROUTE.map((station) => [station.id, station] as const))(
    "%s upsets stations that there are, itself among them where its readings move",
    (id, { upsets, kind }) => {
      for (const upset of upsets) expect(stationById(upset)?.kind).toBe("measure");
      if (kind === "measure" && id !== "flutter") expect(upsets).toContain(id);
    },
  );

  it.each(MEASURING.map((station) => [station.id, station] as const))(
    "%s: what decides is one of its quantities, and each limit of a machine's own is used",
    (_, { deciding, quantities, ownLimits, limitOf }) => {
      for (const toleranceClass of CLASSES)
        for (const channels of [1, 2] as const) {
          const machine = aMachine({ toleranceClass, channels });
          for (const quantity of deciding(machine)) expect(quantities).toHaveProperty([quantity]);
        }
      for (const { key, wanted } of ownLimits) {
        if (wanted) continue;
        const all = Object.fromEntries(ownLimits.map((one) => [one.key, 1]));
        const own = aMachine({ limits: { ...all, [key]: 0.0123 } });
        expect(deciding(own).map((quantity) => limitOf(own, quantity))).toContain(0.0123);
      }
    },
  );

  // what is told of a recording is told through playback, and at the level and bias that it was made with
  it.each<[string, string[]]>([
    ["azimuth", ["level", "response", "bias", "record-response"]],
    ["level", ["record-level", "reduction", "settings"]],
    ["response", ["level", "bias", "record-response", "reduction", "settings"]],
    ["bias", ["record-level", "record-response", "distortion", "reduction", "settings"]],
    ["record-level", ["distortion", "noise", "reduction", "settings"]],
    ["record-response", ["bias", "distortion", "reduction", "settings"]],
    ["distortion", ["bias", "record-level", "noise"]],
    ["oscillator", ["bias", "distortion", "erase", "noise", "reduction", "settings"]],
    ["noise", ["azimuth", "response"]],
  ])("what is turned at %s puts in doubt what rests on it", (id, resting) => {
    expect(stationById(id)!.upsets).toEqual(expect.arrayContaining(resting));
  });

  it("record stations are for machines that can be heard off tape", () => {
    const names = (monitorsTape?: boolean) =>
      routeOf({ job: aJob(), machine: aMachine({ monitorsTape }) }).map(({ id }) => id);
    expect(names()).not.toContain("record-level");
    expect(names(true)).toContain("record-level");
    expect(names(true).indexOf("record-level")).toBeGreaterThan(names(true).indexOf("response"));
  });
});
