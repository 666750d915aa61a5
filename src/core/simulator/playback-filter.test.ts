import { describe, expect, it } from "vitest";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { PlaybackFilter } from "./playback-filter";
import { trebleGain, type Equalisation } from "./playback-gain";
import { practiceMachine } from "./practice-machines";
import type { TransportParameters } from "./transport-parameters";
import { largestDifference } from "@/testing/largest-difference";

const RATE = 48000;
const CASSETTE = practiceMachine("ellesby-c-3h").transport;
const TYPE_I: Equalisation = { t1Microseconds: 3180, t2Microseconds: 120 };
const db = (ratio: number) => 20 * Math.log10(ratio);

/** What a steady tone comes out at, as a ratio. */
function gainOf(parameters: TransportParameters, tape: Equalisation, hz: number): number {
  const out = new PlaybackFilter(parameters, tape, RATE).push(fmTone(1, RATE, hz, [], 1));
  const steady = out.subarray(RATE / 2);
  return Math.sqrt((2 * steady.reduce((sum, v) => sum + v * v, 0)) / steady.length);
}

describe("the playback filter", () => {
  const worn = { ...CASSETTE, "head.spacingMicrometres": 0.8, "head.gapMicrometres": 2 };

  it.each([315, 1000, 4000, 8000, 12500, 16000])("has the gain at %i Hz that the physics says", (hz) => {
    expect(db(gainOf(worn, TYPE_I, hz))).toBeCloseTo(db(trebleGain(worn, TYPE_I, hz)), 1);
  });

  it("leaves everything alone on a machine as it should be", () => {
    const x = whiteNoise(4000, 0.1);
    expect(new PlaybackFilter(CASSETTE, TYPE_I, RATE).push(x.slice())).toEqual(x);
  });

  it("gives the same in blocks as in one piece, and as many samples as it was given", () => {
    const x = whiteNoise(6000, 0.1);
    const whole = new PlaybackFilter(worn, TYPE_I, RATE).push(x.slice());
    expect(whole).toHaveLength(6000);
    const filter = new PlaybackFilter(worn, TYPE_I, RATE);
    let at = 0;
    for (const size of [1, 700, 299, 3000, 2000]) {
      const block = filter.push(x.slice(at, at + size));
      expect(block).toHaveLength(size);
      expect(largestDifference(block, whole, at)).toBeLessThan(5e-13);
      at += size;
    }
  });

  it.each([
    // a tape without bass lift on a machine that takes it away, and the other way round
    [0, 3180, 31.5, -10 * Math.log10(1 + 1 / (2 * Math.PI * 31.5 * 3180e-6) ** 2)],
    [3180, 0, 63, 10 * Math.log10(1 + 1 / (2 * Math.PI * 63 * 3180e-6) ** 2)],
    [3180, 3180, 40, 0],
  ])(
    "a tape of t1 %i µs on a machine of %i µs: %f Hz comes out at %f dB",
    (tapeT1, machineT1, hz, expected) => {
      const machine = { ...CASSETTE, "playback.t1Microseconds": machineT1 };
      expect(db(gainOf(machine, { ...TYPE_I, t1Microseconds: tapeT1 }, hz))).toBeCloseTo(expected, 1);
    },
  );
});

describe("losses of short wavelengths", () => {
  const gain = (settings: Partial<TransportParameters>, hz: number) =>
    db(trebleGain({ ...CASSETTE, ...settings }, TYPE_I, hz));

  it("a gap has its first null where 1.14 of it is one wavelength", () => {
    const gap = 4;
    const nullHz = 47.6 / (1.14 * gap * 1e-3);
    expect(gain({ "head.gapMicrometres": gap }, nullHz)).toBeLessThan(-50);
    expect(gain({ "head.gapMicrometres": gap }, nullHz / 10)).toBeGreaterThan(-0.5);
  });

  it("spacing loss is straight on a linear frequency axis", () => {
    const loss = (hz: number) => gain({ "head.spacingMicrometres": 1 }, hz);
    expect(loss(10000) / loss(5000)).toBeCloseTo(2, 6);
    expect(loss(10000)).toBeCloseTo((-54.6 * 1e-3) / (47.6 / 10000), 1);
  });

  it("tilt either way costs the same", () => {
    expect(gain({ "head.azimuthArcMinutes": 7 }, 9000)).toBeCloseTo(
      gain({ "head.azimuthArcMinutes": -7 }, 9000),
      12,
    );
  });
});
