import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { joined } from "@/core/dsp/joined";
import { amplitudeSpectrum, rmsBetween } from "@/core/dsp/amplitude-spectrum";
import { noisePeriod } from "@/core/dsp/periodic-noise";
import { bytesInMemory } from "@/core/formats/byte-source";
import { openSound } from "@/core/formats/open-sound";
import { harmonicsOf } from "@/testing/steady-harmonics";
import { LevelMeter } from "@/core/measure/level-meter";
import { whiteNoise } from "@/testing/fm-tone";
import { ProgrammeRecogniser } from "@/core/programme/programme-recogniser";
import { PRESETS, single } from "./presets";
import { programmeOfSequence } from "./programme-of-sequence";
import { SequenceRenderer } from "./render-sequence";
import { segmentSeconds, sequenceSchema, type Segment, type Sequence } from "./sequence";
import { digitOf, digitRatio, markDigits, markSlots, markWords } from "@/core/programme/sync-mark";
import { sequenceDigit, timelineOf } from "./timeline";
import { wavExport } from "@/core/formats/wav-export";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
const sine = (fields: Partial<Extract<Segment, { kind: "sine" }>> = {}): Segment => ({
  kind: "sine",
  channels: "both",
  frequencyHz: 1000,
  levelDb: -12,
  seconds: 1,
  ...fields,
});
const render = (sequence: Sequence, rate = RATE) => {
  const renderer = new SequenceRenderer(sequence, rate);
  return renderer.block(0, renderer.frames);
};

describe("the marks of the presets", () => {
  it("tell apart those that begin with the same tone", () => {
    const begins = PRESETS.filter(({ marked }) => marked).map((preset) => {
      const [first] = preset.segments;
      return `${sequenceDigit(preset)} ${"frequencyHz" in first ? first.frequencyHz : first.kind}`;
    });
    expect(new Set(begins).size).toBe(begins.length);
  });
});

describe("single signals", () => {
  it.each([44100, 48000, 96000])("a sine at %i Hz is the sine, from the first sample to the last", (rate) => {
    const [left] = render(single(sine({ frequencyHz: 997.3 })), rate);
    const worst = left.reduce(
      (most, v, i) =>
        Math.max(most, Math.abs(v - 10 ** (-12 / 20) * Math.sin((2 * Math.PI * 997.3 * i) / rate))),
      0,
    );
    expect(left).toHaveLength(rate);
    expect(worst).toBeLessThan(1e-11);
  });

  it("a sweep begins and ends at its frequencies, and rises evenly by octaves", () => {
    const sweep: Segment = {
      kind: "sweep",
      channels: "both",
      frequencyHz: 20,
      toFrequencyHz: 20000,
      levelDb: 0,
      seconds: 10,
    };
    const [x] = render(single(sweep), 96000);
    const pace = Math.log(1000) / 10;
    x.forEach((v, i) => {
      if (i % 997 === 0)
        expect(v).toBeCloseTo(Math.sin(((2 * Math.PI * 20) / pace) * Math.expm1((pace * i) / 96000)), 6);
    });
  });

  it("pink noise falls by 3.01 dB per octave, third-octave by third-octave", () => {
    const period = noisePeriod("pink", RATE);
    const x = sampled(12 * period.length, (i) => period[i % period.length]);
    const spectrum = amplitudeSpectrum(x, RATE, 65536);
    const levels = Array.from({ length: 30 }, (_, i) => {
      const middle = 20 * 2 ** (i / 3);
      return 20 * Math.log10(rmsBetween(spectrum, middle / 2 ** (1 / 6), middle * 2 ** (1 / 6)));
    });
    // equal power in each third-octave; the lowest hold few bins of this analysis
    const mean = levels.slice(6).reduce((a, b) => a + b, 0) / levels.slice(6).length;
    for (const level of levels.slice(6)) expect(Math.abs(level - mean)).toBeLessThan(0.1);
    for (const level of levels.slice(0, 6)) expect(Math.abs(level - mean)).toBeLessThan(0.6);
  });

  it.each(["pink", "white"] as const)("%s noise has the RMS of a sine of its level", (kind) => {
    const [x] = render(single({ kind, channels: "both", levelDb: -20, seconds: 5 }));
    const meter = new LevelMeter();
    meter.push(x);
    expect(meter.level.rmsDbfs).toBeCloseTo(-23.01, 2);
  });

  it("one side only leaves the other silent", () => {
    const [left, right] = render(single(sine({ channels: "right" })));
    expect(left.every((v) => v === 0)).toBe(true);
    expect(Math.max(...right.slice(0, 1000))).toBeGreaterThan(0.2);
  });

  it.each([
    [sine({ frequencyHz: 23_900 }), /23900 Hz does not fit a sample rate of 48000/],
    [
      { kind: "white" as const, channels: "both" as const, levelDb: -3, seconds: 1 },
      /white noise at -3 dB would clip/,
    ],
  ])("what cannot be rendered is said", (segment, why) => {
    expect(() => new SequenceRenderer(single(segment), RATE)).toThrow(why);
  });
});

describe("exported files", () => {
  const exported = async (sequence: Sequence, rate: number, bits: number) => {
    const { pieces, byteLength } = wavExport(sequence, { rate, bits });
    const bytes = new Uint8Array(byteLength);
    let at = 0;
    for (const piece of pieces()) {
      bytes.set(piece, at);
      at += piece.length;
    }
    expect(at).toBe(byteLength);
    const sound = await openSound(bytesInMemory(bytes));
    const left: number[] = [];
    for await (const [block] of sound.blocks()) left.push(...block);
    return { sound, left: Float64Array.from(left) };
  };

  it.each([
    [48000, 16, 0.01],
    [44100, 24, 0.001],
    [96000, 32, 0.001],
  ])("at %i Hz and %i bits the level is right within %f dB", async (rate, bits, tolerance) => {
    const { sound, left } = await exported(single(sine({ levelDb: -20 })), rate, bits);
    expect([sound.sampleRateHz, sound.bitsPerSample, sound.channelCount]).toEqual([rate, bits, 2]);
    const meter = new LevelMeter();
    meter.push(left);
    expect(Math.abs(meter.level.rmsDbfs + 23.0103)).toBeLessThan(tolerance);
  });

  it("the harmonics of a 24-bit sine stay below −130 dB", async () => {
    const { left } = await exported(single(sine({ levelDb: -6, seconds: 4 })), 48000, 24);
    expect(Math.max(...harmonicsOf(left, 48000, 1000).harmonicsDb)).toBeLessThan(-130);
  });

  it("dither makes a tone below one step of 16 bits audible instead of losing it", async () => {
    const { left } = await exported(single(sine({ levelDb: -98, seconds: 4 })), 48000, 16);
    expect(harmonicsOf(left, 48000, 1000).fundamentalDbfs).toBeCloseTo(-98, 0);
  });

  it("silence is silent", async () => {
    const { left } = await exported(single({ kind: "silence", channels: "both", seconds: 0.2 }), 48000, 16);
    expect(left.every((v) => v === 0)).toBe(true);
  });
});

describe("sequences", () => {
  it("any block is the same as that part of the whole", () => {
    const renderer = new SequenceRenderer(
      PRESETS.find(({ id }) => id === "record-level")!,
      RATE,
    );
    const whole = renderer.block(0, 12 * RATE)[0];
    fc.assert(
      fc.property(fc.nat(11 * RATE), fc.integer({ min: 1, max: 3000 }), (start, length) => {
        expect(renderer.block(start, length)[0]).toEqual(whole.subarray(start, start + length));
      }),
      { numRuns: 40 },
    );
  });

  it("every preset is valid, fits every rate that is offered, and nothing in it overlaps", () => {
    for (const preset of PRESETS) {
      expect(sequenceSchema.parse(preset)).toEqual(preset);
      expect(new SequenceRenderer(preset, 44100).frames).toBeGreaterThan(44100);
      const { parts } = timelineOf(preset);
      parts.slice(1).forEach(({ startSeconds }, i) => {
        expect(startSeconds).toBeGreaterThanOrEqual(parts[i].startSeconds + parts[i].seconds - 1e-9);
      });
    }
  });

  it.each([
    [{ segments: [] }, /at least one segment/],
    [{ segments: [sine({ seconds: 7000 }), sine({ seconds: 7000 })] }, /2 hours/],
    [{ segments: [sine({ levelDb: 3 })] }, /./],
    [{ name: " " }, /Give it a name/],
  ])("a bad description %# is refused", (fields, why) => {
    const parsed = sequenceSchema.safeParse({ ...PRESETS[0], ...fields });
    expect(parsed.success).toBe(false);
    expect(parsed.error!.issues[0].message).toMatch(why);
  });
});

describe("synchronisation marks", () => {
  it("write digits that can be read back, with a check", () => {
    for (let digit = 0; digit < 8; digit++) expect(digitOf(digitRatio(digit))).toMatchObject({ digit });
    fc.assert(
      fc.property(
        fc.record({
          sequence: fc.integer({ min: 0, max: 7 }),
          segment: fc.integer({ min: 0, max: 63 }),
          pass: fc.option(fc.integer({ min: 1, max: 8 })),
        }),
        fc.nat(),
        fc.integer({ min: 1, max: 7 }),
        (words, place, off) => {
          const digits = markDigits(words);
          expect(markWords(digits)).toEqual(words);
          expect(markSlots(words)).toHaveLength(digits.length + 2);
          // any one digit that is taken for another is noticed
          const wrong = digits.map((digit, i) => (i === place % digits.length ? (digit + off) % 8 : digit));
          expect(markWords(wrong)).toBeNull();
        },
      ),
    );
  });

  const sequence: Sequence = sequenceSchema.parse({
    ...PRESETS[0],
    marked: true,
    leaderSeconds: 1,
    gapSeconds: 0.4,
    segments: [
      sine({ seconds: 2, levelDb: -30 }),
      sine({ seconds: 2, frequencyHz: 6300, levelDb: -30 }),
      { kind: "pink", channels: "both", levelDb: -30, seconds: 2 },
      sine({ seconds: 2, frequencyHz: 315, levelDb: -30 }),
    ],
  });
  const [sound] = render(sequence);
  const starts = timelineOf(sequence)
    .parts.filter(({ role }) => role === "segment")
    .map((p) => p.startSeconds);

  /** As a deck plays it back: its own speed and flutter, hum and hiss. */
  function played(ratio: number, flutter: number) {
    const n = Math.floor(sound.length / ratio);
    const place = (i: number) => {
      const t = i / RATE;
      return ratio * (t + (flutter * Math.sin(2 * Math.PI * 5 * t)) / (2 * Math.PI * 5)) * RATE;
    };
    const noise = whiteNoise(n, 0.002, 3);
    const x = sampled(n, (i) => {
      const at = place(i);
      const k = Math.floor(at);
      const value = sound[k] + (at - k) * ((sound[k + 1] ?? 0) - sound[k]);
      return value + noise[i] + 0.01 * Math.sin((2 * Math.PI * 50 * i) / RATE);
    });
    return { x, when: (seconds: number) => seconds / ratio };
  }
  const heard = (x: Float64Array) => {
    const recogniser = new ProgrammeRecogniser(RATE, 1, { marks: true });
    for (let at = 0; at < x.length; at += 5000) recogniser.push([x.subarray(at, at + 5000)]);
    return recogniser.recognise(programmeOfSequence(sequence)).sections;
  };

  it.each([
    [1, 0],
    [0.9, 0.005],
    [1.1, 0.005],
    [1.03, 0.005],
  ])("place every segment within 6 ms at %f times the speed, flutter ±%f", (ratio, flutter) => {
    const { x, when } = played(ratio, flutter);
    const found = heard(x);
    expect(found.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
    found.forEach(({ startSeconds, endSeconds, index }) => {
      expect(Math.abs(startSeconds - when(starts[index]))).toBeLessThan(0.006);
      expect(
        Math.abs(endSeconds - when(starts[index] + segmentSeconds(sequence.segments[index]))),
      ).toBeLessThan(0.012);
    });
  });

  it("serve a recording that begins in the middle, or goes back and begins again", () => {
    const { x } = played(1, 0);
    expect(heard(x.subarray(5 * RATE)).map(({ index }) => index)).toEqual([2, 3]);
    const again = new Float64Array(x.length + 7 * RATE);
    again.set(x.subarray(0, 6 * RATE));
    again.set(x, 7 * RATE);
    const found = heard(again);
    expect(found.map(({ index }) => index)).toEqual([0, 1, 2, 3]);
    expect(found[0].startSeconds).toBeGreaterThan(7); // the last whole play
  });

  it.each([0.91, 1, 1.09])(
    "count the passes at %f times the speed: in another order, one twice, one broken off, one missing",
    (ratio) => {
      const passes = sequenceSchema.parse({ ...sequence, leaderSeconds: 0, passes: 5, passGapSeconds: 1 });
      const [whole] = render(passes);
      const pass = Math.round((timelineOf(passes).seconds + 1) * RATE) / 5;
      const piece = (number: number, seconds = Infinity) =>
        whole.subarray((number - 1) * pass, Math.min(number * pass, (number - 1) * pass + seconds * RATE));
      const tape = joined(
        piece(5),
        piece(1, 7),
        new Float64Array(3 * RATE),
        piece(1),
        piece(4),
        piece(2, 6),
        piece(4),
      );
      const n = Math.floor(tape.length / ratio) - 1;
      const x = sampled(n, (i) => {
        const k = Math.floor(i * ratio);
        return tape[k] + (i * ratio - k) * (tape[k + 1] - tape[k]);
      });
      const recogniser = new ProgrammeRecogniser(RATE, 1, { marks: true });
      recogniser.push([x]);
      recogniser.finish();
      const found = recogniser.passes(programmeOfSequence(passes));
      const rows = found.map((one) => [one.pass, one.retries, one.sections.map(({ index }) => index)]);
      expect(rows).toEqual([
        [1, 1, [0, 1, 2, 3]],
        [2, 0, [0, 1]],
        [4, 1, [0, 1, 2, 3]],
        [5, 0, [0, 1, 2, 3]],
      ]);
      for (const { speedRatio } of found) expect(speedRatio).toBeCloseTo(ratio, 3);
    },
  );

  it("are not heard in noise, nor are those of another sequence taken for ours", () => {
    expect(heard(whiteNoise(10 * RATE, 0.1, 8))).toEqual([]);
    const other = sequenceSchema.parse({ ...sequence, segments: sequence.segments.slice(0, 2) });
    expect(heard(render(other)[0])).toEqual([]);
  });
});
