import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { wavFile } from "@/core/formats/wav-writer";
import { fmTone } from "@/testing/fm-tone";

const folder = mkdtempSync(join(tmpdir(), "unzel-cli-"));
const at = (name: string) => join(folder, name);
const run = (command: "measure" | "practice", ...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ["scripts/run-ts.mjs", `src/cli/${command}.ts`, ...args],
    {
      encoding: "utf8",
    },
  );
  return { status, stderr, answer: stdout === "" ? null : JSON.parse(stdout) };
};

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

  it.each<[string, string[], number, RegExp]>([
    ["a file that is not there", ["speed", at("nowhere.wav")], 1, /There is no file/],
    ["a folder", ["speed", folder], 1, /not a file/],
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
