import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { wavFile } from "@/core/formats/wav-writer";
import { flacFile } from "@/testing/flac-encoder";
import { commandLine } from "@/testing/command-line";
import { fmTone } from "@/testing/fm-tone";

const { at, run, runText, folder } = commandLine();

describe("measure", () => {
  const tone = at("tone.wav");
  writeFileSync(
    tone,
    wavFile(
      [fmTone(6, 48000, 3150 * 0.99, [{ rateHz: 4, peak: 0.001 }]), new Float64Array(6 * 48000)],
      48000,
      "int24",
    ),
  );

  it("prints speed as one JSON object, with null figures and a warning for a silent channel", () => {
    const { status, answer } = run("measure", "speed", tone, "--nominal", "3150");
    expect(status).toBe(0);
    expect(answer).toMatchObject({
      measurement: "speed",
      file: tone,
      sampleRateHz: 48000,
      durationSeconds: 6,
      nominalHz: 3150,
    });
    expect(answer.channels[0].channel).toBe("left");
    expect(answer.channels[0].errorPercent).toBeCloseTo(-1, 4);
    expect(answer.channels[0].frequencyHz).toBeCloseTo(3118.5, 2);
    expect(answer.channels[1]).toEqual({
      channel: "right",
      frequencyHz: null,
      errorPercent: null,
      errorCents: null,
      uncertaintyPercent: null,
      driftPercentPerMinute: null,
    });
    expect(answer.warnings).toEqual(["right: silence; nothing arrives on this channel."]);
  });

  it("prints flutter with all meters and the components", () => {
    const { answer } = run("measure", "flutter", tone);
    const [left, right] = answer.channels;
    expect(Object.keys(left)).toEqual([
      "channel",
      "carrierHz",
      "weighted",
      "unweighted",
      "wowRmsPercent",
      "flutterRmsPercent",
      "uncertainty",
      "seconds",
      "components",
    ]);
    expect(left.weighted.peakPercent).toBeCloseTo(0.1, 2);
    expect(left.components[0].rateHz).toBeCloseTo(4, 1);
    expect(right.weighted).toEqual({
      peakPercent: null,
      twoSigmaPercent: null,
      rmsPercent: null,
      averagePercent: null,
    });
  });

  it("--help tells the usage, and is no mistake", () => {
    for (const command of ["measure", "signals", "practice"] as const) {
      const { status, stdout, stderr } = runText(command, "--help");
      expect(status).toBe(0);
      expect(stdout).toMatch(new RegExp(`usage: npm run --silent ${command}`));
      expect(stderr).toBe("");
    }
  });

  it.each<[string, string[], number, RegExp]>([
    ["a file that is not there", ["speed", at("nowhere.wav")], 1, /There is no file/],
    ["a folder", ["speed", folder], 1, /it is a folder/],
    ["a file that is no WAV", ["speed", "package.json"], 1, /not a WAV file/],
    ["an unknown measurement", ["colour", tone], 2, /cannot measure "colour"/],
    ["no file", ["speed"], 2, /which file/],
    ["a nominal that is no number", ["speed", tone, "--nominal", "high"], 2, /--nominal takes/],
    ["an unknown option", ["speed", tone, "--loud"], 2, /--loud/],
  ])("%s: exit status and a sentence", (_, args, status, why) => {
    const result = run("measure", ...args);
    expect(result.status).toBe(status);
    expect(result.stderr).toMatch(why);
    expect(result.answer).toBeNull();
  });
});

describe("practice", () => {
  it("writes what it says, and that is what is measured", () => {
    const out = at("practice.wav");
    const made = run(
      "practice",
      "--machine",
      "ellesby-c-1r",
      "--tape",
      "ssa-01",
      "--seconds",
      "8",
      "--rate",
      "44100",
      "--set",
      "speed.errorPercent=1.5",
      "--set",
      "wander.percent=0",
      "--out",
      out,
    );
    expect(made.status).toBe(0);
    expect(readFileSync(out).length).toBe(44 + 8 * 44100 * 6);
    const { answer } = run("measure", "speed", out);
    expect(Math.abs(answer.channels[0].errorPercent - 1.5)).toBeLessThan(0.02);
  });

  it("lists machines, tapes and parameters with units and ranges", () => {
    const { answer } = run("practice", "--list");
    expect(answer.machines.map(({ id }: { id: string }) => id)).toContain("tarnvik-t-2");
    expect(answer.tapes.map(({ id }: { id: string }) => id)).toContain("ssa-03");
    expect(answer.parameters["belt.lumpPercent"]).toMatchObject({ unit: "%", from: 0 });
  });

  it.each<[string[], RegExp]>([
    [["--machine", "ellesby-c-1r", "--tape", "ssa-01"], /--out/],
    [["--machine", "nobody", "--tape", "ssa-01", "--out", at("x.wav")], /no practice machine "nobody"/],
    [["--machine", "ellesby-c-1r", "--tape", "none", "--out", at("x.wav")], /no tape "none"/],
    [
      [
        "--machine",
        "ellesby-c-1r",
        "--tape",
        "ssa-01",
        "--out",
        at("x.wav"),
        "--set",
        "speed.errorPercent=99",
      ],
      /-14 to 14/,
    ],
    [["--machine", "ellesby-c-1r", "--tape", "ssa-01", "--out", at("x.wav"), "--set", "speed"], /path=value/],
    [
      ["--machine", "ellesby-c-1r", "--tape", "ssa-01", "--out", at("x.wav"), "--seconds", "0"],
      /--seconds takes/,
    ],
  ])("refuses %j", (args, why) => {
    const { status, stderr } = run("practice", ...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(why);
  });
});

describe("measure level and bands", () => {
  const reference = {
    format: "unzel-reference-tape",
    version: 1,
    id: "two",
    name: "Two bands",
    speedCmPerS: 4.76,
    bands: [
      { kind: "tone", frequencyHz: 1000, levelDb: 0, seconds: 3 },
      { kind: "tone", frequencyHz: 6300, levelDb: -10, seconds: 3 },
    ],
  };
  const tape = at("two.json");
  writeFileSync(tape, JSON.stringify(reference));
  const gap = new Float64Array(48000);
  const sound = Float64Array.from([
    ...gap,
    ...fmTone(3, 48000, 1020, [], 0.25),
    ...gap,
    ...fmTone(3, 48000, 6426, [], 0.079),
    ...gap,
  ]);
  const wav = at("two.wav");
  writeFileSync(wav, wavFile([sound, sound.map((v) => v / 2)], 48000, "int16"));
  const flac = at("two.flac");
  const integers = (gain: number) => Int32Array.from(sound, (v) => Math.round(v * gain * 32768));
  writeFileSync(flac, flacFile([integers(1), integers(0.5)], 48000, 16));

  it("gives levels and hum per channel", () => {
    const { answer } = run("measure", "level", wav);
    expect(answer.measurement).toBe("level");
    const [left, right] = answer.channels;
    expect(Object.keys(left)).toEqual(
      expect.arrayContaining(["channel", "peakDbfs", "rmsDbfs", "dcPercent", "clippedSamples", "humDb"]),
    );
    expect(left.peakDbfs).toBeCloseTo(-12.04, 2);
    expect(right.peakDbfs).toBeCloseTo(-18.06, 2);
    expect(left.humDb).toEqual([]);
  });

  it("gives each band with its times, frequency and levels", () => {
    const { answer } = run("measure", "bands", wav, "--tape", tape);
    expect(answer.speedErrorPercent).toBeCloseTo(2, 1);
    expect(answer.bands).toHaveLength(2);
    expect(answer.bands.map(({ index }: { index: number }) => index)).toEqual([0, 1]);
    expect(answer.bands[0].startSeconds).toBeCloseTo(1, 1);
    expect(answer.bands[1].endSeconds).toBeCloseTo(8, 1);
    expect(answer.bands[0].frequencyHz).toBeCloseTo(1020, 0);
    expect(answer.bands[0].levelDb.left).toBeCloseTo(-12.04, 1);
    expect(answer.bands[1].levelDb.right).toBeCloseTo(-28.07, 1);
  });

  it.each([["level"], ["speed", "--nominal", "1000"], ["bands", "--tape", tape]])(
    "%s of a FLAC file is that of the WAV file, figure for figure",
    (kind, ...options) => {
      const [a, b] = [wav, flac].map((file) => run("measure", kind, file, ...options).answer);
      expect({ ...b, file: "" }).toEqual({ ...a, file: "" });
    },
  );

  it.each([
    [["bands", wav], 2, /--tape/],
    [["bands", wav, "--tape", "nothing"], 2, /there is no tape "nothing".*ssa-01/],
    [["bands", wav, "--tape", wav], 1, /complete JSON|not a reference tape/],
    [["bands", wav, "--tape", at("gone.json")], 1, /There is no file/],
  ])("%j: exit status and a sentence", (args, status, why) => {
    const result = run("measure", ...args);
    expect(result.status).toBe(status);
    expect(result.stderr).toMatch(why);
    expect(result.answer).toBeNull();
  });
});

describe("signals", () => {
  it("writes the sine that was asked for", () => {
    const out = at("sine.wav");
    const { status, answer } = run(
      "signals",
      ..."sine --frequency 1000 --seconds 2 --rate 48000 --bits 24 --level -12 --out".split(" "),
      out,
    );
    expect(status).toBe(0);
    expect(answer).toMatchObject({ sampleRateHz: 48000, bits: 24, seconds: 2 });
    expect(readFileSync(out)).toHaveLength(44 + 2 * 48000 * 6);
    const [left] = run("measure", "level", out).answer.channels;
    expect(left.rmsDbfs).toBeCloseTo(-15.01, 2);
    expect(run("measure", "speed", out, "--nominal", "1000").answer.channels[0].errorPercent).toBeCloseTo(
      0,
      6,
    );
  });

  it("lists every signal with its options, and every sequence", () => {
    const { answer } = run("signals", "--list");
    expect(answer.signals.map(({ name }: { name: string }) => name)).toEqual(
      expect.arrayContaining(["sine", "two-tone", "steps", "staircase", "sweep", "pink", "white", "silence"]),
    );
    expect(answer.signals[0].options[0]).toHaveProperty("default");
    expect(answer.sequences.length).toBeGreaterThan(5);
  });

  it.each([
    [["sine"], /--out/],
    [["hum", "--out", at("x.wav")], /no signal or sequence "hum"/],
    [["pink", "--frequency", "100", "--out", at("x.wav")], /pink has no --frequency/],
    [["sine", "--level", "6", "--out", at("x.wav")], /levelDb/],
    [["sine", "--frequency", "fast", "--out", at("x.wav")], /frequencyHz/],
    [["sine", "--rate", "8000", "--out", at("x.wav")], /44100, 48000, 96000/],
    [["sine", "--colour", "red"], /colour/],
  ])("%j is refused", (args, why) => {
    const { status, stderr } = run("signals", ...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(why);
  });
});

it("practice plays every band of a tape", () => {
  const out = at("deck.wav");
  const made = run(
    "practice",
    ..."--machine ellesby-c-3h --tape azimuth-cassette --seconds 40 --set speed.errorPercent=-1 --out".split(
      " ",
    ),
    out,
  );
  expect(made.status).toBe(0);
  const { answer } = run("measure", "bands", out, "--tape", "azimuth-cassette");
  expect(answer.bands.map(({ index }: { index: number }) => index)).toEqual([0, 1, 2]);
  expect(answer.speedErrorPercent).toBeCloseTo(-1, 1);
});
