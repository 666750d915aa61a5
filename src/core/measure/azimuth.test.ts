import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { pairTone, type PairToneOptions } from "@/testing/pair-tone";
import { azimuthOf, monoSumDb, tiltOf, type LadderTone } from "./azimuth";
import { TonePairMeter, type TonePair } from "./tone-pair";

const CASSETTE = { spacingMm: 0.9, speedCmPerS: 4.76 };

function measured(options: PairToneOptions): TonePair {
  const { sampleRateHz = 48000, frequencyHz } = options;
  const meter = new TonePairMeter(sampleRateHz, 2, frequencyHz);
  const [left, right] = pairTone(options);
  for (let at = 0; at < left.length; at += 4801)
    meter.push([left.subarray(at, at + 4801), right.subarray(at, at + 4801)]);
  return meter.result()!;
}

/** Difference of two angles, −180 … 180. */
const apart = (a: number, b: number) => a - b - 360 * Math.round((a - b) / 360);

describe("phase between two channels", () => {
  it.each<[string, Partial<PairToneOptions>]>([
    ["steady, 40 dB", { snrDb: 40 }],
    ["0.1 % flutter, 40 dB", { snrDb: 40, flutter: [[0.1, 6]] }],
    ["0.3 % flutter, 25 dB", { snrDb: 25, flutter: [[0.2, 4], [0.1, 70]] }], // prettier-ignore
    ["fast tape", { flutter: [[0.1, 3]], frequencyHz: 10300 }],
    ["96 kHz", { sampleRateHz: 96000, snrDb: 40 }],
  ])("%s: within 0.2° at 10 kHz", (_, options) => {
    for (const delaySeconds of [0, 1.234e-5, -0.000287]) {
      const all = { frequencyHz: 10000, seconds: 6, delaySeconds, ...options };
      const { pair, frequencyHz } = measured(all);
      expect(Math.abs(apart(pair!.phaseDegrees, 360 * all.frequencyHz * delaySeconds))).toBeLessThan(0.2);
      expect(frequencyHz).toBeCloseTo(all.frequencyHz, -1);
      expect(pair!.coherence).toBeGreaterThan(0.98);
    }
  });

  it("says how restless it is", () => {
    const still = measured({ frequencyHz: 10000, seconds: 10 }).pair!;
    const weaving = measured({ frequencyHz: 10000, seconds: 10, weaveSeconds: 1e-5 }).pair!;
    expect(still.spreadDegrees).toBeLessThan(0.2);
    expect(weaving.spreadDegrees).toBeCloseTo(36 / Math.SQRT2, -1);
    expect(weaving.uncertaintyDegrees).toBeGreaterThan(3);
    expect(weaving.track.length).toBeGreaterThan(90);
  });

  it("strangers have no coherence, one channel has no phase", () => {
    const meter = new TonePairMeter(48000, 2, 1000);
    meter.push([
      pairTone({ frequencyHz: 1000, seconds: 5 })[0],
      pairTone({ frequencyHz: 1013, seconds: 5 })[0],
    ]);
    expect(meter.result()!.pair!.coherence).toBeLessThan(0.1);
    const mono = new TonePairMeter(48000, 1, 1000);
    mono.push([pairTone({ frequencyHz: 1000, seconds: 2 })[0]]);
    expect(mono.result()!.pair).toBeNull();
    expect(new TonePairMeter(48000, 2, 1000).result()).toBeNull();
    expect(() => new TonePairMeter(44100, 2, 21000)).toThrow(/21000 Hz/);
  });
});

describe("level of a tone", () => {
  it.each<[string, number, Partial<PairToneOptions>, number]>([
    ["1 kHz, steady", 1000, {}, 0.005],
    ["315 Hz beside hum at −40 dBFS", 315, { humDbfs: -40 }, 0.05],
    ["63 Hz beside hum at −50 dBFS", 63, { humDbfs: -50 }, 0.05],
    ["40 Hz beside hum at −50 dBFS", 40, { humDbfs: -50 }, 0.05],
    ["10 kHz with 0.3 % flutter", 10000, { flutter: [[0.3, 6]] }, 0.02],
    ["10 kHz with fast flutter", 10000, { flutter: [[0.2, 4], [0.1, 90]] }, 0.1], // prettier-ignore
    ["16 kHz, 25 dB over noise", 16000, { snrDb: 25, flutter: [[0.1, 5]] }, 0.03],
  ])("%s", (_, frequencyHz, options, within) => {
    const { channels } = measured({ frequencyHz, seconds: 8, leftDbfs: -32, rightDbfs: -33.5, ...options });
    expect(Math.abs(channels[0].levelDbfs + 32)).toBeLessThan(within);
    expect(Math.abs(channels[1].levelDbfs + 33.5)).toBeLessThan(within);
  });

  it("a channel that will not hold still is seen", () => {
    const [left, right] = pairTone({ frequencyHz: 1000, seconds: 6 });
    const meter = new TonePairMeter(48000, 2, 1000);
    meter.push([left, right.map((x, i) => x * (i % 48000 < 20000 ? 0.7 : 1))]);
    const { channels } = meter.result()!;
    expect(channels[0].spreadDb).toBeLessThan(0.02);
    expect(channels[1].spreadDb).toBeGreaterThan(1);
  });
});

describe("the ladder", () => {
  const TONES = [1000, 3150, 8000, 10000];
  const ladder = (
    delaySeconds: number,
    frequencies: readonly number[],
    error: (hz: number) => number = () => 0,
    spreadDegrees = 1,
  ): LadderTone[] =>
    frequencies.map((frequencyHz) => {
      const phase = 360 * frequencyHz * delaySeconds + error(frequencyHz);
      return {
        frequencyHz,
        phaseDegrees: phase - 360 * Math.round(phase / 360),
        spreadDegrees,
        coherence: 0.99,
        uncertaintyDegrees: spreadDegrees / 2,
      };
    });

  it("counts cycles right from −3 to +3 at 10 kHz, or says that it cannot: never wrong", () => {
    const random = new SeededRandom(4);
    let resolved = 0;
    for (let run = 0; run < 600; run++) {
      const delay = (random.uniform() - 0.5) * 6e-4;
      const weave = 30 * random.uniform();
      const tones = ladder(
        delay,
        TONES,
        (hz) => 3 * random.normal() + ((weave * hz) / 10000) * 0.3 * random.normal(),
        weave,
      );
      const { delaySeconds } = azimuthOf(tones, CASSETTE);
      if (delaySeconds === null) continue;
      resolved++;
      expect(Math.abs(delaySeconds - delay)).toBeLessThan(1 / 20000);
    }
    expect(resolved).toBeGreaterThan(570);
  });

  it.each<[string, number[], RegExp | null]>([
    ["a ladder from 1 kHz", TONES, null],
    ["a low tone alone tells little, but no cycle is in question", [1000], null],
    ["only the top", [10000], /Play a lower one/],
    ["no low tone", [8000, 10000], /Play a lower one|nearly as well/],
    ["nothing", [], /No tone/],
  ])("%s", (_, frequencies, doubt) => {
    const { resolved, doubt: said } = azimuthOf(ladder(1.1e-4, frequencies), CASSETTE);
    expect(resolved).toBe(doubt === null);
    if (doubt) expect(said).toMatch(doubt);
  });

  it("phases that are no delay are refused, and so are strangers", () => {
    const wild = ladder(0, TONES, (hz) => ({ 1000: 70, 3150: -80, 8000: 90, 10000: -60 })[hz]!);
    expect(azimuthOf(wild, CASSETTE).doubt).toMatch(/no single delay/);
    const strangers = ladder(0, TONES).map((tone) => ({ ...tone, coherence: 0.1 }));
    expect(azimuthOf(strangers, CASSETTE).doubt).toMatch(/nothing in common/);
  });

  it("one arc-minute of a cassette head is 19.8° at 10 kHz", () => {
    const delay = 19.8 / 360 / 10000;
    expect(tiltOf(delay, CASSETTE)).toBeCloseTo(1, 2);
    expect(azimuthOf(ladder(delay, TONES), CASSETTE).tiltArcMinutes).toBeCloseTo(1, 2);
    expect(monoSumDb(delay, 10000)).toBeCloseTo(20 * Math.log10(Math.cos((9.9 * Math.PI) / 180)), 3);
    expect(monoSumDb(0.5e-4, 10000)).toBeLessThan(-100);
  });
});
