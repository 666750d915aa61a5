import { describe, expect, it } from "vitest";
import { type ReductionNow } from "./reduction";
import { MAP_HZ, MAP_LEVELS, switchDoes, worstOf, type MapPoint } from "./reduction-map";
import { reductionCauses } from "./reduction-causes";

/** A map of both channels whose errors are as told. */
const mapWith = (errorOf: (channel: string, level: number, hz: number) => number): MapPoint[] =>
  ["left", "right"].flatMap((channel) =>
    MAP_LEVELS.flatMap((level) =>
      MAP_HZ.map((frequencyHz) => ({
        channel,
        level,
        frequencyHz,
        errorDb: errorOf(channel, level, frequencyHz),
        uncertaintyDb: 0.2,
      })),
    ),
  );
const now = (points: MapPoint[], off: MapPoint[] | null): ReductionNow => ({
  switchedOn: ["reduction"],
  points,
  off,
  lacks: null,
  agoSeconds: 0,
});
const FLAT = mapWith(() => 0);

describe("what the map of a noise reduction says", () => {
  it("nothing where all of it comes back, where it is off, or where nobody heard it off", () => {
    expect(reductionCauses(now(FLAT, FLAT), 2)).toEqual([]);
    const bad = mapWith((_, __, hz) => (hz > 4000 ? 4 : 0));
    expect(reductionCauses({ ...now(bad, FLAT), switchedOn: [] }, 2)).toEqual([]);
    expect(reductionCauses(now(bad, null), 2)).toEqual([]);
  });

  it.each<[string, MapPoint[], MapPoint[], RegExp]>([
    ["level", mapWith(() => -3.4), mapWith(() => -2), /a level error of −2.0 dB/],
    [
      "its own circuit",
      mapWith((channel, _, hz) => (channel === "right" && hz > 2000 ? 3.5 : 0)),
      FLAT,
      /^right: level is right and noise reduction adds \+3.5 dB: its own circuit on this channel/,
    ],
    [
      "the response in front of it",
      mapWith((_, __, hz) => (hz > 9000 ? 4.6 : 0)),
      mapWith((_, __, hz) => (hz > 9000 ? 2 : 0)),
      /without it 10 kHz is off by \+2.0 dB.*set bias and record response/,
    ],
    [
      "its own circuit, where the response is off elsewhere",
      mapWith((_, __, hz) => (hz > 9000 ? 4.6 : hz < 500 ? 2.5 : 0)),
      mapWith((_, __, hz) => (hz > 9000 ? 2 : 0)),
      /level is right and noise reduction adds/,
    ],
    [
      "the response without it",
      mapWith((_, __, hz) => (hz > 9000 ? -3 : 0)),
      mapWith((_, __, hz) => (hz > 9000 ? -2.8 : 0)),
      /the record response, not the noise reduction/,
    ],
  ])("%s", (_, on, off, says) => {
    expect(reductionCauses(now(on, off), 2)[0]).toMatch(says);
  });

  it("the worst of the map leaves the tones beside it out; a switch does what it adds", () => {
    const beside: MapPoint = {
      channel: "left",
      level: -20,
      frequencyHz: 19_000,
      errorDb: -30,
      uncertaintyDb: 0.2,
    };
    const on = [...mapWith((_, level) => (level === -40 ? 1.5 : 0)), beside];
    expect(worstOf(on, 2)).toMatchObject({ level: -40, errorDb: 1.5 });
    const off = [...FLAT, { ...beside, errorDb: -6 }];
    expect(switchDoes(on, off, -20, 19_000)!.db).toBe(-24);
    expect(switchDoes(on, FLAT, -20, 19_000)).toBeNull();
  });
});
