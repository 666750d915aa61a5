import { describe, expect, it } from "vitest";
import { compareRuns } from "@/core/advice/compare-runs";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { ImportError } from "./import-error";
import { readMachineJson, writeMachineJson } from "./machine-json";

const LEAST = { format: "unzel-machine", version: 1, id: "x", name: "X", speedsCmPerS: [4.76] };

describe("machine files", () => {
  it.each(DEMO_MACHINES.map((machine) => [machine.name, machine] as const))(
    "%s comes back whole",
    (_, machine) => {
      expect(readMachineJson(writeMachineJson(machine))).toEqual(machine);
    },
  );

  it("need a name and a speed, no more", () => {
    expect(readMachineJson(JSON.stringify(LEAST))).toMatchObject({ parts: [], toleranceClass: "hifi" });
  });

  it.each([
    ["no JSON", "{", /not complete JSON/],
    ["another file", '{"format":"unzel-job"}', /not a machine/],
    ["a newer version", JSON.stringify({ ...LEAST, version: 9 }), /version 9/],
    ["no speed", JSON.stringify({ ...LEAST, speedsCmPerS: [] }), /speed/],
    ["a part of nothing", JSON.stringify({ ...LEAST, parts: [{ name: "a" }] }), /parts 1.*tapeDiameterMm/],
    ["a text of any length", `{"a":"${"x".repeat(5_000_000)}"}`, /larger than any machine/],
  ])("with %s are refused in a sentence", (_, text, message) => {
    expect(() => readMachineJson(text)).toThrow(ImportError);
    expect(() => readMachineJson(text)).toThrow(message);
  });
});

it("two runs tell what went and what stayed", () => {
  const run = (parts: Record<string, number>) => ({
    parts: Object.entries(parts).map(([part, peakPercent]) => ({ part, peakPercent })),
  });
  const changes = compareRuns(
    run({ belt: 0.5, capstan: 0.03, roller: 0.1, motor: 0.02 }),
    run({ capstan: 0.032, roller: 0.04, motor: 0.05, idler: 0.02 }),
  );
  expect(Object.fromEntries(changes.map(({ part, change }) => [part, change]))).toEqual({
    belt: "gone",
    capstan: "stayed",
    roller: "less",
    motor: "more",
    idler: "new",
  });
  expect(changes[0].part).toBe("belt");
});
