import { describe, expect, it } from "vitest";
import { soundInMemory } from "@/core/formats/sound-file";
import { responseRuns } from "@/core/playback/response-runs";
import { timeConstants, type Band, type ReferenceTape } from "@/core/reference/reference-tape";
import { sampled } from "@/core/dsp/sampled";
import { whiteNoise } from "@/testing/fm-tone";
import { sineWave } from "@/testing/sine-wave";
import { measureBands } from "./measure-bands";

const RATE = 24_000;
const tone = (frequencyHz: number, levelDb: number, role = "response"): Band => ({
  kind: "tone",
  role,
  frequencyHz,
  levelDb,
  seconds: 4,
});
const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "short",
  name: "short",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  frequencyUncertaintyPercent: 0.05,
  bands: [tone(315, 0, "level"), tone(63, -20), tone(315, -20), tone(1000, -20), tone(4000, -20)],
};
const GAP_SECONDS = 2;

type Spoil = (sample: number, seconds: number, band: number | null, channel: number) => number;

const FRAMES = Math.round(
  RATE * TAPE.bands.reduce((sum, { seconds }) => sum + seconds + GAP_SECONDS, GAP_SECONDS),
);
/** The tape played flat and at right speed in closed form, and which band each sample is of, −1 for none. */
const FLAT = new Float64Array(FRAMES);
const BAND = new Int8Array(FRAMES).fill(-1);
TAPE.bands.reduce((at, { frequencyHz, levelDb, seconds }, band) => {
  const from = Math.round(at * RATE);
  const amplitude = 10 ** ((levelDb - 12) / 20);
  FLAT.set(
    sineWave(Math.round(seconds * RATE), frequencyHz / RATE).map((x) => amplitude * x),
    from,
  );
  BAND.fill(band, from, from + Math.round(seconds * RATE));
  return at + seconds + GAP_SECONDS;
}, GAP_SECONDS);

/** That, each sample spoilt as told. */
async function played(spoil: Spoil, input = (x: number) => x) {
  const noise = whiteNoise(FRAMES, 10 ** (-70 / 20), 9);
  const channels = [0, 1].map((c) =>
    Float32Array.from(
      sampled(FRAMES, (i) => input(noise[i] + spoil(FLAT[i], i / RATE, BAND[i] < 0 ? null : BAND[i], c))),
    ),
  );
  const { bands, wide } = await measureBands(soundInMemory(channels, RATE), TAPE);
  return responseRuns(bands, wide, TAPE, timeConstants(TAPE.equalisation, TAPE.speedCmPerS))[0];
}

const says = ({ doubts }: Awaited<ReturnType<typeof played>>) => doubts.map((doubt) => doubt.says).join();

/** Every point that is shown is within its ± of flat, or the channel shows none. */
function expectHonest({ channels }: Awaited<ReturnType<typeof played>>) {
  for (const { points } of channels)
    for (const { levelDb, uncertaintyDb } of points)
      expect(Math.abs(levelDb)).toBeLessThanOrEqual(uncertaintyDb);
}
const mains = (hz: number, amplitude: number, t: number) => amplitude * Math.sin(2 * Math.PI * hz * t + 1);

describe("a response says what it rests on", () => {
  it("clean: flat, known well, without a doubt", async () => {
    const run = await played((x) => x);
    expect(run.doubts).toEqual([]);
    expectHonest(run);
    for (const { uncertaintyDb } of run.channels[0].points) expect(uncertaintyDb).toBeLessThan(0.1);
  });

  it("the reference band clipped: told, and every level is as uncertain", async () => {
    const run = await played(
      (x) => x,
      (x) => Math.max(-0.15, Math.min(0.15, x)),
    );
    expect(says(run)).toMatch(/Clipped: 315 Hz/);
    expectHonest(run);
  });

  it.each([
    ["silent", () => 0],
    ["crosstalk alone, 50 dB down", (x: number) => x * 10 ** (-50 / 20)],
  ])("a dead channel (%s): nothing is measured on it", async (_, dead) => {
    const run = await played((x, _t, _band, c) => (c === 0 ? x : dead(x)));
    expect(run.channels[1].points).toEqual([]);
    expect(says(run)).toMatch(/right: silent/);
    // and its noise is no level that moves
    expect(run.doubts.map(({ kind }) => kind)).toEqual(["dead"]);
    expect(run.channels[0].points.length).toBeGreaterThan(3);
  });

  it("a level that was turned between: the frequency that comes twice tells", async () => {
    const run = await played((x, _t, band) => (band !== null && band >= 2 ? x * 10 ** (-2.5 / 20) : x));
    expect(says(run)).toMatch(/heard 2\.5 dB apart/);
    expectHonest(run);
  });

  it.each([
    [
      "hum that wanders as real mains do",
      (t: number) => mains(60, 0.003, t + 0.004 * Math.sin(2 * Math.PI * 0.04 * t)),
    ],
    ["hum that is steady", (t: number) => mains(60, 0.003, t)],
  ])("%s, beside the low band", async (_, hum) => {
    expectHonest(await played((x, t) => x + hum(t)));
  });

  it("hum that is there only while the band plays", async () => {
    const run = await played((x, t, band) =>
      band === 1 ? x + mains(60, 0.01, t) + mains(120, 0.008, t) + mains(180, 0.01, t) : x,
    );
    expectHonest(run);
  });

  it.each([
    ["another tone 12 dB down", (t: number) => 1 + 0.25 * Math.sin(2 * Math.PI * 1.3 * t)],
    ["an automatic level control", (t: number) => 1 + 0.3 * Math.sin(2 * Math.PI * 0.5 * t)],
  ])("the level moves by %s: told", async (_, gain) => {
    const run = await played((x, t, band) => (band === 3 ? x * gain(t) : x));
    expect(says(run)).toMatch(/level moves while 1 kHz/);
    expectHonest(run);
  });
});
