import { describe, expect, it } from "vitest";
import { taught } from "@/core/guidance/taught";
import { azimuthByPhase } from "@/core/stations/azimuth";
import { responseCorridor } from "@/core/stations/response";
import type { Machine } from "@/core/records/machine";
import type { ChannelLevel } from "@/core/playback/playback-level";
import type { HeardTone } from "@/core/playback/playback-now";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";
import { limitFor, MEASURING, QUANTITIES, quantityOf, unitOf } from "./registry";
import { laidBench } from "@/testing/laid-bench";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";

import type { Adjuster } from "@/core/records/machine";
import type { JobRecords } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import { allCurves, curvesOf } from "./response-curves";
import { secondPass } from "./second-pass";
import { sheetOf } from "./sheet";
import { presentStation, seriesOf, stationState, upsetBy } from "./station-state";
import { routeOf, stationById } from "@/core/alignment/registry";

const turned = (id: string, sets: Adjuster["sets"], acts: Partial<Adjuster> = {}): Adjuster => ({
  id,
  name: id,
  where: "",
  sets,
  kind: "turn",
  ...acts,
});
const MACHINE = aMachine({
  toleranceClass: "hifi",
  adjusters: [
    turned("az-a", "azimuth", { side: "A" }),
    turned("az-b", "azimuth", { side: "B" }),
    turned("level-left", "level", { channel: "left" }),
    turned("level-right", "level", { channel: "right" }),
    turned("eq-left", "response", { channel: "left" }),
  ],
});
const records = (over: Partial<JobRecords>): JobRecords => ({
  job: aJob(),
  machine: MACHINE,
  readings: [],
  adjustments: [],
  ...over,
});
const reading = (
  quantity: string,
  minutes: number,
  value: number,
  {
    channel = "both",
    side,
    nominalHz = 10_000,
    ...fields
  }: Partial<Reading> & {
    channel?: string;
    side?: "A" | "B";
    nominalHz?: number;
  } = {},
): Reading =>
  aReading({
    minutes,
    station: quantity.split(".")[0],
    quantity,
    unit: unitOf(quantity),
    value,
    uncertainty: 0.1,
    phase: "as left",
    context: { channel, tapeId: "t1", nominalHz, speedCmPerS: 19.05, seconds: 5, ...(side && { side }) },
    ...fields,
  });
const upset = (all: JobRecords, id: string) =>
  upsetBy(
    all,
    MEASURING.find((one) => one.id === id)!,
  );
const deciding = (id: string, machine: Machine) => MEASURING.find((one) => one.id === id)!.deciding(machine);
const state = (all: JobRecords, id: string) => stationState(all, stationById(id)!);

describe("quantities of the playback stations", () => {
  it("each has a unit, a name and its way of being shown", () => {
    expect(unitOf("azimuth.phase")).toBe("°");
    expect(unitOf("azimuth.tilt")).toBe("′");
    expect(unitOf("level.balance")).toBe("dB");
    expect(unitOf("flutter.wow")).toBe("%");
    expect(quantityOf("azimuth.phase").signed).toBe(true);
    expect(quantityOf("azimuth.belowPeak").signed).toBe(false);
    expect(quantityOf("flutter.weighted.peak").signed).toBe(false);
    expect(new Set(QUANTITIES.map((quantity) => quantityOf(quantity).name)).size).toBe(QUANTITIES.length);
  });

  it("limits come from the class, or from the machine where it has its own", () => {
    expect(limitFor(MACHINE, "azimuth.phase")).toBe(30);
    expect(limitFor(aMachine({ limits: { azimuthDegrees: 10 } }), "azimuth.phase")).toBe(10);
    expect(limitFor(MACHINE, "level.error")).toBe(1);
    expect(responseCorridor(aMachine({ toleranceClass: "portable" }))).toEqual({
      db: 3,
      fromHz: 125,
      toHz: 8000,
    });
    expect(responseCorridor(aMachine({ limits: { responseDb: 1.5 } })).db).toBe(1.5);
    expect(limitFor(MACHINE, "response.point")).toBeNull();
  });

  it("one channel, or a class without a limit for phase, is set by the loudest point", () => {
    expect(azimuthByPhase(MACHINE)).toBe(true);
    expect(azimuthByPhase(aMachine({ channels: 1 }))).toBe(false);
    const toy = aMachine({ toleranceClass: "toy" });
    expect(deciding("azimuth", toy)).toEqual(["azimuth.belowPeak"]);
    expect(deciding("level", aMachine({ channels: 1 }))).not.toContain("level.balance");
  });
});

describe("the state of a playback station", () => {
  it("each direction is a series of its own: the other one not left is not settled", () => {
    const a = reading("azimuth.phase", 1, 5, { side: "A" });
    const b = reading("azimuth.phase", 2, 50, { side: "B", phase: "as found" });
    expect(seriesOf([a, b])).toHaveLength(2);
    expect(state(records({ readings: [a] }), "azimuth")).toBe("settled");
    expect(state(records({ readings: [a, b] }), "azimuth")).toBe("found");
    expect(state(records({ readings: [a, { ...b, phase: "as left" }] }), "azimuth")).toBe("failed");
  });

  it("one channel outside fails the station", () => {
    const left = reading("level.error", 1, 0.2, { channel: "left" });
    const right = reading("level.error", 1, -1.8, { channel: "right" });
    expect(state(records({ readings: [left, right] }), "level")).toBe("failed");
  });

  it("the screw of one direction does not upset the other; the speed upsets all, and flutter work nothing here", () => {
    const a = reading("azimuth.phase", 1, 5, { side: "A" });
    const after = (adjusterId: string, station: "azimuth" | "speed" | "flutter") =>
      records({ readings: [a], adjustments: [anAdjustment({ minutes: 5, adjusterId, station })] });
    expect(state(after("az-b", "azimuth"), "azimuth")).toBe("settled");
    expect(state(after("az-a", "azimuth"), "azimuth")).toBe("stale");
    expect(state(after("speed", "speed"), "azimuth")).toBe("stale");
    expect(state(after("belt", "flutter"), "azimuth")).toBe("settled");
  });

  it("azimuth upsets level and response, the equaliser upsets level, and back", () => {
    const level = reading("level.error", 1, 0, { channel: "left" });
    const response = reading("response.worst", 1, 0.5, { channel: "left" });
    const all = (adjusterId: string, station: "azimuth" | "level" | "response") =>
      records({
        readings: [level, response],
        adjustments: [anAdjustment({ minutes: 5, adjusterId, station })],
      });
    expect(upset(all("az-a", "azimuth"), "level")).toHaveLength(1);
    expect(upset(all("az-a", "azimuth"), "response")).toHaveLength(1);
    expect(upset(all("eq-left", "response"), "level")).toHaveLength(1);
    expect(upset(all("level-right", "level"), "response")).toEqual([]);
    expect(upset(all("level-left", "level"), "response")).toHaveLength(1);
  });

  it("a station that is left out is neither on the route nor where the work is", () => {
    const job = aJob({
      leftOut: [
        "intake",
        "service",
        "path",
        "clean",
        "speed",
        "flutter",
        "azimuth",
        "level",
        "functions",
        "listening",
      ],
    });
    expect(routeOf({ job, machine: MACHINE }).map(({ id }) => id)).toEqual(["response", "sheet"]);
    expect(presentStation(records({ job })).id).toBe("response");
  });
});

describe("a second pass", () => {
  const left = reading("level.error", 1, 0.1, { channel: "left" });
  const turn = anAdjustment({ minutes: 3, adjusterId: "eq-left", station: "response" });
  const again = (value: number, fields: Partial<Reading> = {}) =>
    reading("level.error", 5, value, { channel: "left", phase: "working", ...fields });
  const moved = (...readings: Reading[]) => secondPass(records({ readings, adjustments: [turn] }));

  it("is suggested when an adjustment elsewhere moved a reading by more than its tolerance", () => {
    const [one] = moved(left, again(1.4));
    expect(one).toMatchObject({ station: { id: "level" }, turnedAt: { id: "response" } });
    expect(one.by).toBeCloseTo(1.3, 9);
  });
  it("is not for a move within tolerance, before it was read again, or once it was left anew", () => {
    expect(moved(left, again(0.9))).toEqual([]);
    expect(moved(left)).toEqual([]);
    expect(
      moved(left, again(1.4), again(0, { phase: "as left", at: again(0).at.replace("11:05", "11:09") })),
    ).toEqual([]);
  });
  it("is not for a turn that cannot have moved it: flutter work moves speed, setting a level does not", () => {
    const speed = (minutes: number, value: number, fields: Partial<Reading> = {}) =>
      reading("speedError", minutes, value, { station: "speed", ...fields });
    const readings = [speed(1, 0), speed(5, 3, { phase: "working" })];
    const turnedAt = (station: string) => [anAdjustment({ minutes: 3, adjusterId: station, station })];
    expect(secondPass(records({ readings, adjustments: turnedAt("level") }))).toEqual([]);
    expect(secondPass(records({ readings, adjustments: turnedAt("flutter") }))).toHaveLength(1);
  });
  it("is not for what was turned at the station itself", () => {
    const own = anAdjustment({ minutes: 4, adjusterId: "level-left", station: "level" });
    expect(secondPass(records({ readings: [left, again(1.6)], adjustments: [turn, own] }))).toEqual([]);
  });
});

const LEVEL = { quantity: "level.error", unit: "dB", ofBothChannels: false } as const;

describe("what turns teach", () => {
  const level = (minutes: number, value: number, channel: string) =>
    reading("level.error", minutes, value, { channel, phase: "working" });
  const turn = (minutes: number, adjusterId: string) =>
    anAdjustment({ minutes, adjusterId, station: "level", turns: 0.25 });
  const all = records({
    readings: [level(1, -2, "left"), level(1, 1, "right"), level(4, -1, "left"), level(4, 0.5, "right")],
    adjustments: [turn(2, "level-left"), turn(3, "level-right")],
  });

  it("each trimmer from the readings of its own channel, though both were turned in between", () => {
    const [left] = taught(all, MACHINE.adjusters[2], LEVEL);
    expect(left).toMatchObject({ turns: 0.25, change: 1 / 4 });
    const [right] = taught(all, MACHINE.adjusters[3], LEVEL);
    expect(right).toMatchObject({ turns: 0.25, change: -0.5 / 4 });
  });

  it("advice: a trial first, then as far as it taught, then enough", () => {
    const station = MEASURING.find(({ id }) => id === "level")!;
    const advise = (value: number | null, uncertaintyDb: number, of = all) => {
      const bench = laidBench(of);
      const channel = { channel: "left", errorDb: value, uncertaintyDb } as ChannelLevel;
      const tone = { fresh: true, index: 0 } as HeardTone;
      const numbers = {
        now: { playing: null },
        level: value === null ? null : { tone, numbers: { channels: [channel], balanceDb: null } },
      } as PlaybackNumbers;
      return station.advise({ ...bench, numbers }, "level-left").advice;
    };
    expect(advise(-1, 0.05, records({})).kind).toBe("trial");
    expect(advise(-1, 0.05)).toMatchObject({ kind: "turn" });
    expect(advise(0.1, 0.05).kind).toBe("leave");
    expect(advise(null, 0, records({})).kind).toBe("wait");
    // which way it is off cannot be told
    expect(advise(-1, 1.2).kind).toBe("unclear");
  });
});

describe("responses among the readings", () => {
  const at = (minutes: number, phase: Reading["phase"], channel = "left") =>
    [1000, 63, 10_000].map((nominalHz) =>
      reading("response.point", minutes, nominalHz / 1000, { channel, nominalHz, phase }),
    );
  const readings = [
    ...at(1, "as found"),
    ...at(1, "as found", "right"),
    ...at(3, "as left"),
    ...at(5, "as left"),
  ];

  it("are put together by moment and channel, lowest frequency first", () => {
    const curves = allCurves(readings);
    expect(curves).toHaveLength(4);
    expect(curves[0].points.map(({ frequencyHz }) => frequencyHz)).toEqual([63, 1000, 10_000]);
  });

  it("the sheet has the first as found and the last as left of each channel, and no row for each point", () => {
    expect(curvesOf(readings).map(({ phase, at: when }) => [phase, when.slice(14, 16)])).toEqual([
      ["as found", "01"],
      ["as found", "01"],
      ["as left", "05"],
    ]);
    const worst = reading("response.worst", 5, 1, { channel: "left", side: "B" });
    const sheet = sheetOf(records({ readings: [...readings, worst] }));
    const response = sheet.stations.find(({ station }) => station.id === "response")!;
    expect(response.curves).toHaveLength(3);
    expect(response.rows.map(({ name }) => name)).toEqual(["Largest response error, left, side B"]);
  });
});
