import { describe, expect, it } from "vitest";
import type { TonePair } from "@/core/measure/tone-pair";
import type { WideLevel } from "@/core/measure/wide-levels";
import { timeConstants, type Band, type ReferenceTape } from "@/core/reference/reference-tape";
import { responseRuns } from "./response-runs";
import type { WideBand } from "./wide-band";

const band = (kind: Band["kind"], frequencyHz: number, levelDb: number, role = "response"): Band => ({
  kind,
  role,
  frequencyHz,
  levelDb,
  seconds: 20,
  ...(kind === "sweep" && { toFrequencyHz: 12_500 }),
});
const LEVEL = band("tone", 315, 0, "level");
const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "t",
  name: "t",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  frequencyUncertaintyPercent: 0.1,
  bands: [LEVEL],
};
const SAME = timeConstants(TAPE.equalisation, TAPE.speedCmPerS);

/** A tone as it was heard in two channels, the right one a decibel down. */
const tone = (of: Band, levelDbfs: number, fresh?: boolean) => {
  const channel = (dbfs: number) => ({
    levelDbfs: dbfs,
    spreadDb: 0,
    track: new Float64Array(),
    uncertaintyDb: 0.01,
    clipped: false,
  });
  const pair: TonePair = {
    frequencyHz: of.frequencyHz,
    seconds: 5,
    channels: [channel(levelDbfs), channel(levelDbfs - 1)],
    pair: null,
  };
  return { index: 0, band: of, startSeconds: 0, endSeconds: 5, pair, fresh };
};
const wide = (of: Band, gain: (hz: number) => number, frequencies: number[]): WideBand => {
  const levels = frequencies.map((frequencyHz): WideLevel => ({
    frequencyHz,
    levelDb: gain(frequencyHz),
    spreadDb: 0.1,
    uncertaintyDb: 0.2,
  }));
  return { index: 1, band: of, endSeconds: 60, levels: [levels], clipped: false, whole: true, fresh: true };
};
const SERIES = [63, 125, 224, 316, 447, 1000, 4000, 10_000];
const levelsOf = (run: ReturnType<typeof responseRuns>[number], c = 0) =>
  run.channels[c].points.map(({ levelDb }) => levelDb);

describe("a response from the tones of a tape", () => {
  const points = [band("tone", 315, -20), band("tone", 1000, -20), band("tone", 10_000, -20)];

  it("is re the reference band, each channel for itself", () => {
    const heard = [tone(LEVEL, -12), ...points.map((one, i) => tone(one, -32 - i))];
    const [run] = responseRuns(heard, [], TAPE, SAME);
    expect(run).toMatchObject({ from: "bands", referenceHz: 315 });
    expect(levelsOf(run)).toEqual([0, -1, -2]);
    expect(levelsOf(run, 1)).toEqual([0, -1, -2]);
  });

  it.each<[string, boolean | undefined, number[]]>([
    ["a level band from before a turn gives way to one of its frequency heard since", false, [0, -1, -2]],
    ["one that was heard since is what it is", true, [-3, -4, -5]],
    ["of a recording nothing is old", undefined, [-3, -4, -5]],
  ])("%s", (_, fresh, expected) => {
    // the level band was heard 3 dB higher than what plays now
    const heard = [tone(LEVEL, -9, fresh), ...points.map((one, i) => tone(one, -32 - i, true))];
    expect(levelsOf(responseRuns(heard, [], TAPE, SAME)[0])).toEqual(expected);
  });

  it("nothing heard is no response", () => expect(responseRuns([], [], TAPE, SAME)).toEqual([]));
});

describe("a response along a sweep", () => {
  const sweep = band("sweep", 40, -20);

  it("is re the reference band of the tape, and beside the one from the tones", () => {
    const runs = responseRuns([tone(LEVEL, -12)], [wide(sweep, () => -34, SERIES)], TAPE, SAME);
    expect(runs.map(({ from }) => from)).toEqual(["bands", "sweep"]);
    expect(runs[1].referenceHz).toBe(315);
    // 22 dB under the level band, 20 of them on the tape
    levelsOf(runs[1]).forEach((db) => expect(db).toBeCloseTo(-2, 9));
  });

  it("by itself is re its own level nearest to the reference frequency", () => {
    const gain = (hz: number) => (hz > 5000 ? -38 : -34);
    const [run] = responseRuns([], [wide(sweep, gain, SERIES)], TAPE, SAME);
    expect(run.referenceHz).toBe(316);
    expect(levelsOf(run)).toEqual([0, 0, 0, 0, 0, 0, 0, -4]);
  });

  it("certificate and another equalisation are taken away as from a tone", () => {
    const certified = { ...sweep, correctionDb: { left: 0.5, right: 0 } };
    const machine = timeConstants("3180/70", 4.76);
    const heard = wide(certified, () => -31.5, SERIES);
    const run = responseRuns([tone(LEVEL, -12)], [heard], TAPE, machine)[1];
    const at = run.channels[0].points.find(({ frequencyHz }) => frequencyHz === 10_000)!;
    expect(at.certificateDb).toBe(0.5);
    expect(at.equalisationDb).toBeLessThan(-4);
    expect(at.levelDb).toBeCloseTo(-19.5 + 20 - 0.5 - at.equalisationDb, 9);
  });

  it("waves shorter than any tape holds are left out, and so is a sweep of which too little was heard", () => {
    const [run] = responseRuns([], [wide(sweep, () => -34, [1000, 15_800, 17_800])], TAPE, SAME);
    expect(run.channels[0].points.map(({ frequencyHz }) => frequencyHz)).toEqual([1000, 15_800]);
    expect(responseRuns([], [wide(sweep, () => -34, [])], TAPE, SAME)).toEqual([]);
  });
});

describe.each(["sweep", "noise"] as const)("a response from %s", (kind) => {
  const heard = wide(band(kind, 0, -20), () => -34, SERIES);

  it("of a channel that plays nothing, or has only what comes across, says nothing of it", () => {
    for (const down of [45, 100]) {
      const [left] = heard.levels;
      const right = left.map((level) => ({ ...level, levelDb: level.levelDb - down }));
      const [run] = responseRuns([], [{ ...heard, levels: [left, right] }], TAPE, SAME);
      expect(run.channels.map(({ points }) => points.length)).toEqual([SERIES.length, 0]);
      expect(run.doubts).toMatchObject([{ kind: "dead", channel: 1 }]);
    }
  });

  it("that clipped is told, and known to some decibels only", () => {
    const [calm] = responseRuns([], [heard], TAPE, SAME);
    expect(calm.doubts).toEqual([]);
    const [run] = responseRuns([], [{ ...heard, clipped: true }], TAPE, SAME);
    expect(run.doubts).toMatchObject([{ kind: "clipped" }]);
    for (const { uncertaintyDb } of run.channels[0].points) expect(uncertaintyDb).toBeGreaterThan(5);
  });
});

describe("a response from noise", () => {
  it("is re its own mean around the reference frequency, which is better known than any band of it", () => {
    const gain = (hz: number) => ({ 224: 7.4, 316: 6.6, 447: 7 })[hz] ?? 4;
    const heard = wide(band("noise", 0, -20), gain, SERIES);
    const [, run] = responseRuns([tone(LEVEL, -12)], [heard], TAPE, SAME);
    expect(run).toMatchObject({ from: "noise", referenceHz: 316 });
    // 224 to 447 Hz have a mean of 7 dB
    levelsOf(run).forEach((db, i) => expect(db).toBeCloseTo(gain(SERIES[i]) - 7, 9));
    expect(run.channels[0].points[0].uncertaintyDb).toBeLessThan(0.2 * Math.SQRT2);
  });
});
