import { writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { wavFile } from "@/core/formats/wav-writer";
import { writeSequenceJson } from "@/core/formats/sequence-json";
import { sequenceSchema } from "@/core/signals/sequence";
import { commandLine } from "@/testing/command-line";
import { fmTone, sumOf } from "@/testing/fm-tone";
import { sampled } from "@/core/dsp/sampled";

const { at, run } = commandLine();

const short = sequenceSchema.parse({
  format: "unzel-sequence",
  version: 1,
  id: "short-bias",
  name: "Short bias",
  marked: true,
  leaderSeconds: 1,
  gapSeconds: 0.3,
  passGapSeconds: 1.5,
  segments: [
    { kind: "sine", frequencyHz: 315, levelDb: -32, seconds: 2 },
    { kind: "sine", frequencyHz: 10000, levelDb: -32, seconds: 2 },
    { kind: "sine", frequencyHz: 315, levelDb: -12, seconds: 2 },
  ],
});
const sequence = at("short-bias.json");
writeFileSync(sequence, writeSequenceJson(short));

describe("measure distortion", () => {
  const tone = (third: number) =>
    sumOf(fmTone(4, 48000, 400, [], 0.25), fmTone(4, 48000, 1200, [], 0.25 * third));
  const file = (name: string, third: number) => {
    writeFileSync(at(name), wavFile([tone(third), new Float64Array(4 * 48000)], 48000, "int24"));
    return at(name);
  };

  it("prints harmonics beside those of the source, and nulls for a silent channel", () => {
    const [tape, source] = [file("tape.wav", 0.01), file("source.wav", 0.0005)];
    const { status, answer } = run("measure", "distortion", tape, "--nominal", "400", "--source", source);
    expect(status).toBe(0);
    const [left, right] = answer.channels;
    expect(left.thirdPercent).toBeCloseTo(1, 2);
    expect(left.thdPercent).toBeCloseTo(1, 2);
    const third = left.harmonics.find(({ order }: { order: number }) => order === 3);
    expect(third).toMatchObject({ measurable: true });
    expect(third.levelDb).toBeCloseTo(-40, 1);
    expect(third.sourceDb).toBeCloseTo(-66, 1);
    expect(third.floorDb).toBeLessThan(-100);
    expect(right).toMatchObject({ frequencyHz: null, thirdPercent: null, harmonics: [] });
    expect(answer.warnings.join()).toMatch(/right channel holds no such tone/);
  });

  it("says what was heard instead of the tone that was asked for", () => {
    const { status, answer } = run("measure", "distortion", file("other.wav", 0), "--nominal", "1000");
    expect(status).toBe(0);
    expect(answer.warnings.join()).toMatch(/near 1 kHz was heard; heard was 400 Hz/);
  });
});

describe("from a sequence to what its recording tells", () => {
  const back = at("back.wav");
  const practice = run(
    "practice",
    ...[
      "--machine",
      "ellesby-c-1r",
      "--record",
      sequence,
      "--record-tape",
      "demo-blank-plain",
      "--passes",
      "3",
    ],
    ...["--bias-turns", "-0.35,0,0.35", "--set", "bias.leftDb=1", "--out", back],
  );

  it("practice prints what it recorded and on what", () => {
    expect(practice.status).toBe(0);
    expect(practice.answer).toMatchObject({ passes: 3, tape: "demo-blank-plain", sequence });
  });

  it("measure returned: every pass and segment, re what was sent", () => {
    const { status, answer } = run("measure", "returned", back, "--sequence", sequence);
    expect(status).toBe(0);
    expect(answer.sequence).toBe("short-bias");
    expect(answer.speedFactor).toBeCloseTo(1, 3);
    expect(answer.passes.map(({ pass }: { pass: number }) => pass)).toEqual([1, 2, 3]);
    const [{ segments }] = answer.passes;
    expect(segments.map(({ index, kind }: { index: number; kind: string }) => [index, kind])).toEqual([
      [0, "sine"],
      [1, "sine"],
      [2, "sine"],
    ]);
    expect(segments[0].channels.map(({ channel }: { channel: string }) => channel)).toEqual([
      "left",
      "right",
    ]);
  });

  it("measure bias: the left channel's bias was 1 dB higher, so its screw stands so much lower", () => {
    const { status, answer } = run(
      "measure",
      ...["bias", back, "--turns", "-0.35,0,0.35", "--sequence", sequence, "--over-bias-db", "3"],
    );
    expect(status).toBe(0);
    expect(answer.passes).toHaveLength(3);
    const flat = answer.channels.map(
      ({ answers }: { answers: Array<{ school: string; turns: number }> }) =>
        answers.find(({ school }) => school === "flatness")!.turns,
    );
    // 8 dB a turn
    expect(8 * (flat[1] - flat[0])).toBeCloseTo(1, 0);
    expect(answer.channels[0].sentence).toMatch(/flatness at/i);
  });

  it("a recording without the sequence: nothing found, and why; exit 0", () => {
    writeFileSync(at("tone.wav"), wavFile([fmTone(3, 48000, 1000, [], 0.2)], 48000, "int24"));
    const { status, answer } = run("measure", "returned", at("tone.wav"), "--sequence", "record-level");
    expect(status).toBe(0);
    expect(answer).toMatchObject({ passes: [], speedFactor: null });
    expect(answer.warnings.join()).toMatch(/was not heard/);
  });

  it.each([
    [["returned", "x.wav"], /which sequence/],
    [["returned", "x.wav", "--sequence", "nothing"], /no signal or sequence "nothing"/],
    [["bias", "x.wav"], /where the screw stood/],
    [["bias", "x.wav", "--turns", "0,abc"], /takes numbers/],
  ])("%j: exit 2 with a sentence", (args, says) => {
    const { status, stderr } = run("measure", ...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(says);
  });

  it("passes of a signal, or of a sequence without marks, are refused", () => {
    for (const name of ["sine", "level-tone"])
      expect(run("signals", name, "--passes", "3", "--out", at("x.wav")).status).toBe(2);
    const { answer } = run(
      "signals",
      "record-level",
      "--passes",
      "2",
      "--rate",
      "44100",
      "--out",
      at("two.wav"),
    );
    expect(answer.passes).toBe(2);
  });
});

describe("measure noise and dropouts", () => {
  const rate = 48000;
  const tone = (hz: number, amplitude: number, seconds: number) =>
    sampled(seconds * rate, (i) => amplitude * Math.sin((2 * Math.PI * hz * i) / rate));

  it("noise is told re the reference, hum by its lines, and a file at its own floor is called so", () => {
    const left = sumOf(tone(1000, 0.001, 4), tone(50, 0.003, 4));
    writeFileSync(at("noise.wav"), wavFile([left, new Float64Array(4 * rate)], rate, "int16"));
    const { status, answer } = run("measure", "noise", at("noise.wav"), "--reference-dbfs", "-12");
    expect(status).toBe(0);
    const [heard, silent] = answer.channels;
    expect(heard.aDb).toBeCloseTo(-48, 0);
    // the hum's peaks add to the tone's
    expect(heard.itu468Db).toBeGreaterThan(-48.2);
    expect(heard.itu468Db).toBeLessThan(-46.5);
    expect(heard.flatDb).toBeGreaterThan(heard.aDb + 8);
    expect(heard.hum[0].frequencyHz).toBeCloseTo(50, 0);
    expect(heard.hum[0].levelDb).toBeCloseTo(-50.5 + 12, 0);
    expect(heard.floorLimited).toBe(false);
    expect(silent.floorLimited).toBe(true);
  });

  it("drop-outs are listed by place, length and depth, and counted per minute", () => {
    const dips = (places: number[]) =>
      tone(3150, 0.2, 6).map((v, i) =>
        places.some((s) => i >= s * rate && i < (s + 0.01) * rate) ? 0.3 * v : v,
      );
    writeFileSync(at("dips.wav"), wavFile([dips([1, 2, 4]), dips([2])], rate, "int24"));
    const { status, answer } = run("measure", "dropouts", at("dips.wav"));
    expect(status).toBe(0);
    const [left, right] = answer.channels;
    expect(left.events.map(({ atSeconds }: { atSeconds: number }) => Math.round(atSeconds))).toEqual([
      1, 2, 4,
    ]);
    expect(left.events[0].depthDb).toBeCloseTo(10.5, 0);
    expect(left.perMinute).toBeCloseTo(30, 0);
    expect(right.perMinute).toBeCloseTo(10, 0);
    expect(answer.both).toBeCloseTo(10, 0);
    expect(run("measure", "dropouts", at("dips.wav"), "--depth-db", "0").status).toBe(2);
  });
});
