import { mkdirSync, writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { wavFile } from "@/core/formats/wav-writer";
import { commandLine } from "@/testing/command-line";
import { pairTone } from "@/testing/pair-tone";

const { folder, at, run } = commandLine();
mkdirSync(folder, { recursive: true });

const RATE = 48000;
const LADDER = [315, 1000, 3150, 8000, 10000];
const RESPONSE = [315, 63, 1000, 6300, 10000];
const tape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "ladder",
  name: "ladder and response",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  bands: [
    { kind: "tone", role: "level", frequencyHz: 315, levelDb: 0, seconds: 3 },
    ...LADDER.map((frequencyHz) => ({
      kind: "tone",
      role: "azimuth",
      frequencyHz,
      levelDb: -10,
      seconds: 3,
    })),
    ...RESPONSE.map((frequencyHz) => ({
      kind: "tone",
      role: "response",
      frequencyHz,
      levelDb: -20,
      seconds: 3,
      correctionDb: { left: 0.3, right: -0.2 },
    })),
  ],
};
writeFileSync(at("tape.json"), JSON.stringify(tape));

/** The tape as a deck plays it: right later, 1 dB down, and 2 dB of treble lost from 5 kHz up. */
function played(delaySeconds: number): string {
  const flutter = [[0.2, 5]] as const;
  const silence = new Float64Array(RATE / 2);
  const parts = tape.bands.map(({ frequencyHz, levelDb, seconds }, i) => {
    const loss = frequencyHz > 5000 ? 2 : 0;
    const level = -10 + levelDb - loss + (i > LADDER.length ? 0.3 : 0);
    const right = -11 + levelDb - loss - (i > LADDER.length ? 0.2 : 0);
    return pairTone({
      frequencyHz,
      seconds,
      delaySeconds,
      flutter,
      leftDbfs: level,
      rightDbfs: right,
      snrDb: 45,
      seed: i + 1,
    });
  });
  const channel = (c: 0 | 1) => {
    const pieces = parts.flatMap((part) => [part[c], silence]);
    const out = new Float64Array(pieces.reduce((sum, { length }) => sum + length, 0));
    pieces.reduce((from, piece) => (out.set(piece, from), from + piece.length), 0);
    return out;
  };
  const file = at(`played-${Math.round(delaySeconds * 1e6)}.wav`);
  writeFileSync(file, wavFile([channel(0), channel(1)], RATE, "int24"));
  return file;
}

describe("measure azimuth", () => {
  it.each([2.2e-5, -2.6e-4])("finds the delay of %d s, cycles and all", (delay) => {
    const { answer } = run("measure", "azimuth", played(delay), "--tape", at("tape.json"));
    expect(answer.resolved).toBe(true);
    expect(Math.abs(answer.delaySeconds - delay)).toBeLessThan(1e-7);
    expect(answer.tiltArcMinutes).toBeCloseTo((delay / (19.8 / 360 / 10000)) * 1, 1);
    const top = answer.bands.find(({ frequencyHz }: { frequencyHz: number }) => frequencyHz === 10000);
    expect(Math.cos(((top.phaseDegrees - 3.6e6 * delay) * Math.PI) / 180)).toBeCloseTo(1, 4);
    expect(top.coherence).toBeGreaterThan(0.99);
    expect(answer.monoSumLossDbAt10kHz).toBeCloseTo(
      20 * Math.log10(Math.abs(Math.cos(Math.PI * 1e4 * delay))),
      0,
    );
  });

  it("one channel has no phase, and it says so", () => {
    const [left] = pairTone({ frequencyHz: 1000, seconds: 3 });
    writeFileSync(at("mono.wav"), wavFile([left], RATE, "int24"));
    const { answer, status } = run("measure", "azimuth", at("mono.wav"), "--tape", at("tape.json"));
    expect(status).toBe(0);
    expect(answer).toMatchObject({ resolved: false, delaySeconds: null, bands: [] });
    expect(answer.warnings).toContain("One channel only: there is no phase to measure.");
  });
});

describe("measure response", () => {
  it("gives each band re the reference band, certificate taken away", () => {
    const { answer } = run("measure", "response", played(2.2e-5), "--tape", at("tape.json"));
    expect(answer.channels.map(({ channel }: { channel: string }) => channel)).toEqual(["left", "right"]);
    for (const { points } of answer.channels)
      for (const { frequencyHz, levelDb } of points)
        expect(Math.abs(levelDb - (frequencyHz > 5000 ? -2 : 0)), `${frequencyHz} Hz`).toBeLessThan(0.05);
  });

  it("a machine of another equalisation is expected to differ", () => {
    const { answer } = run(
      "measure",
      "response",
      played(2.2e-5),
      "--tape",
      at("tape.json"),
      "--equalisation",
      "3180/70",
    );
    const [{ points }] = answer.channels;
    const top = points.find(({ frequencyHz }: { frequencyHz: number }) => frequencyHz === 10000);
    expect(top.equalisationDb).toBeCloseTo(-4.38, 2);
    expect(top.levelDb).toBeCloseTo(-2 + 4.38, 1);
  });
});

describe("measure doctor", () => {
  it("names dirt on the head, and a capacitor for what is missing", () => {
    const rows = [63, 250, 1000, 4000, 8000, 12500].map((hz) => `${hz},${(-54.6 * 1.6 * hz) / 47600}`);
    writeFileSync(at("curve.csv"), ["frequencyHz,levelDb", ...rows].join("\n"));
    const { answer } = run(
      "measure",
      "doctor",
      at("curve.csv"),
      "--speed-cm-s",
      "4.76",
      "--inductance-mh",
      "100",
    );
    expect(answer.explanations[0]).toMatchObject({ cause: "spacing" });
    expect(answer.explanations[0].parameters.spacingMicrometres).toBeCloseTo(1.6, 1);
    expect(answer.sentence).toMatch(/Clean the head/);
    expect(answer.capacitor).toBeNull(); // 23 dB is more than a resonance can give
  });

  it.each<[string, string, number, RegExp]>([
    ["a file that is no curve", "colour,taste\n1,2", 1, /not a response curve/],
    ["a level that is no number", "frequencyHz,levelDb\n100,loud", 1, /Row 2/],
    ["too few points", "frequencyHz,levelDb\n100,0\n200,0", 1, /at least 4 points/],
  ])("%s: exit status and a sentence", (_, text, status, why) => {
    writeFileSync(at("bad.csv"), text);
    const result = run("measure", "doctor", at("bad.csv"));
    expect(result.status).toBe(status);
    expect(result.stderr).toMatch(why);
  });

  it.each<[string[], RegExp]>([
    [["azimuth", "x.wav"], /--tape/],
    [["azimuth", "x.wav", "--tape", "ssa-10", "--spacing-mm", "wide"], /--spacing-mm takes/],
    [["response", "x.wav", "--tape", "ssa-10", "--equalisation", "flat"], /--equalisation takes/],
    [["doctor", "x.csv", "--inductance-mh", "0"], /--inductance-mh takes/],
  ])("%j is wrong usage", (args, why) => {
    const result = run("measure", ...args);
    expect(result.status).toBe(2);
    expect(result.stderr).toMatch(why);
  });
});
