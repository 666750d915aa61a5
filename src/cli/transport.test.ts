import { writeFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { wavFile } from "@/core/formats/wav-writer";
import { commandLine } from "@/testing/command-line";
import { fmTone } from "@/testing/fm-tone";
import { pluckedNotes } from "@/testing/plucked-notes";
import { sampled } from "@/core/dsp/sampled";

const { at, run } = commandLine();

describe("measure flutter --machine and match", () => {
  const part = at("part.wav");
  const machine = at("machine.json");
  const capstanHz = 47.6 / (Math.PI * 2.5);
  writeFileSync(
    part,
    wavFile([fmTone(20, 16000, 3150, [{ rateHz: capstanHz, peak: 0.002 }])], 16000, "int24"),
  );
  writeFileSync(
    machine,
    JSON.stringify({
      format: "unzel-machine",
      version: 1,
      id: "m",
      name: "M",
      speedsCmPerS: [4.76, 9.52],
      parts: [{ name: "shaft", tapeDiameterMm: 2.5 }],
    }),
  );

  it("names the parts with their shares", () => {
    const { status, answer } = run("measure", "flutter", part, "--machine", machine);
    expect(status).toBe(0);
    expect(answer.channels[0].weighted.peakPercent).toBeGreaterThan(0.1);
    expect(answer.parts).toHaveLength(1);
    expect(answer.parts[0]).toMatchObject({ part: "shaft", indistinguishableFrom: [], shape: "wave" });
    expect(answer.parts[0].rateHz).toBeCloseTo(capstanHz, 2);
    expect(answer.parts[0].peakPercent).toBeCloseTo(0.2, 2);
    expect(answer.parts[0].sharePercent).toBeGreaterThan(95);
    expect(run("measure", "flutter", part, "--machine", machine, "--speed", "9.52").answer.parts).toEqual([]);
  });

  it.each<[string[], number, RegExp]>([
    [["flutter", part, "--machine", "nothing"], 2, /there is no machine "nothing".*ellesby/],
    [["flutter", part, "--machine", part], 1, /complete JSON|not a machine/],
    [["flutter", part, "--machine", machine, "--speed", "fast"], 2, /--speed takes/],
    [["match", part], 2, /--against/],
    [["match", part, "--against", at("gone.wav")], 1, /There is no file/],
  ])("%j ends with status %i and says why", (args, code, message) => {
    const { status, stderr } = run("measure", ...args);
    expect(status).toBe(code);
    expect(stderr).toMatch(message);
  });

  it("compares two copies of music, and refuses strangers without an error", () => {
    const notes = pluckedNotes(3, 26);
    const [copy, original, tone] = ["copy.wav", "original.wav", "steady.wav"].map(at);
    const write = (file: string, seconds: number, sound: (t: number) => number) =>
      writeFileSync(file, wavFile([sampled(seconds * 16000, (i) => sound(i / 16000))], 16000, "int16"));
    write(original, 22, notes);
    write(copy, 16, (t) => 0.5 * notes(2 + 0.96 * t));
    write(tone, 10, (t) => 0.3 * Math.sin(3000 * t));
    const { answer } = run("measure", "match", copy, "--against", original);
    expect(answer).toMatchObject({ measurement: "match", against: original });
    expect(Math.abs(answer.speedErrorPercent + 4)).toBeLessThan(0.02);
    expect(answer.offsetSeconds).toBeCloseTo(2, 2);
    expect(answer.confidence).toBeGreaterThan(0.8);
    const refused = run("measure", "match", tone, "--against", original);
    expect(refused.status).toBe(0);
    expect(refused.answer.speedErrorPercent).toBeNull();
    expect(refused.answer.warnings.join()).toMatch(/not two copies/);
  });
});
