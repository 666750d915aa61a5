import { describe, expect, it } from "vitest";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { PRESETS } from "@/core/signals/presets";
import { segmentSchema } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { machineSchema } from "@/core/records/machine";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { machinePartSchema } from "@/core/workshop/machine-part";
import { machineOf, PART_KINDS, partOf, typedMachine, type PartKind } from "./machines/typed-machine";
import { sequencePieces } from "./signals/sequence-pieces";
import { fieldsOf, KIND_NAMES, NEW_SEGMENTS, textsOf, typed } from "./signals/typed-segment";
import { tapePieces } from "./tapes/tape-pieces";
import { bandOf, tapeOf, textsOfTape } from "./tapes/typed-tape";

const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

describe("a segment that is typed", () => {
  it("of every kind begins valid, with a field for each of its numbers", () => {
    for (const kind of Object.keys(KIND_NAMES) as Array<keyof typeof KIND_NAMES>) {
      const segment = NEW_SEGMENTS[kind];
      expect(segmentSchema.parse(typed(textsOf(segment)))).toEqual(segment);
      const numbers = Object.keys(segment).filter((key) => key !== "kind" && key !== "channels");
      expect(
        fieldsOf(kind)
          .map(({ key }) => key)
          .sort(),
      ).toEqual(numbers.sort());
    }
  });

  it("of every preset goes through its texts unchanged", () => {
    for (const { segments } of PRESETS)
      for (const segment of segments) expect(segmentSchema.parse(typed(textsOf(segment)))).toEqual(segment);
  });

  it.each(["", "loud", "1e", "--3"])("with a level of “%s” is refused at that field", (levelDb) => {
    const form = textsOf(NEW_SEGMENTS.sine);
    const parsed = segmentSchema.safeParse(typed({ ...form, texts: { ...form.texts, levelDb } }));
    expect(parsed.success).toBe(false);
    expect(parsed.error!.issues[0].path).toEqual(["levelDb"]);
  });

  it("takes a true minus sign", () => {
    const form = textsOf(NEW_SEGMENTS.sine);
    expect(typed({ ...form, texts: { ...form.texts, levelDb: "−7.5" } })).toMatchObject({ levelDb: -7.5 });
  });
});

describe("a tape that is typed", () => {
  it("goes through its texts unchanged", () => {
    for (const tape of [...DEMO_TAPES, ...BUILT_IN_TAPES])
      expect(plain(referenceTapeSchema.parse(tapeOf(textsOfTape(tape), tape.id)))).toEqual(
        plain(referenceTapeSchema.parse(tape)),
      );
  });

  it("with a field emptied leaves it out, with one side of a correction has the other at nought", () => {
    const form = textsOfTape(DEMO_TAPES[0]);
    const tape = referenceTapeSchema.parse(tapeOf({ ...form, texts: { ...form.texts, plays: " " } }, "x"));
    expect(tape.plays).toBeUndefined();
    expect(
      bandOf({ kind: "tone", role: "", texts: { frequencyHz: "1000", correctionRight: "0,4" } }),
    ).toMatchObject({
      correctionDb: { left: 0, right: 0.4 },
    });
  });

  it("a noise band keeps no frequency that was typed for a tone before", () => {
    const noise = bandOf({
      kind: "noise",
      role: "",
      texts: { frequencyHz: "1000", levelDb: "-20", seconds: "5" },
    });
    expect(noise).toEqual({ kind: "noise", levelDb: -20, seconds: 5 });
  });
});

describe("drawn as tapes", () => {
  it("a sequence is as long as it plays", () => {
    for (const preset of PRESETS) {
      const seconds = sequencePieces(preset).reduce((sum, piece) => sum + piece.seconds, 0);
      expect(seconds).toBeCloseTo(timelineOf(preset).seconds, 9);
    }
  });

  it("a reference tape has a piece for each band, at its pitch", () => {
    const { bands } = DEMO_TAPES.find(({ id }) => id === "ssa-10")!;
    const pieces = tapePieces(bands);
    expect(pieces).toHaveLength(bands.length);
    expect(pieces[0]).toMatchObject({ kind: "tone", frequenciesHz: [315], seconds: 20, name: "315 Hz" });
  });
});

describe("a machine that is typed", () => {
  it.each(DEMO_MACHINES.map((machine) => [machine.name, machine] as const))(
    "%s goes through its texts unchanged",
    (_, machine) => {
      expect(machineSchema.parse(machineOf(typedMachine(machine), machine))).toEqual(machine);
    },
  );

  it("takes a decimal comma and several speeds; empty limits are left out", () => {
    const [machine] = DEMO_MACHINES;
    const typed = {
      ...typedMachine(machine),
      speeds: "9.53; 19.05",
      limits: { flutterPercent: "0,12", speedErrorPercent: "" },
    };
    expect(machineOf(typed, machine)).toMatchObject({
      speedsCmPerS: [9.53, 19.05],
      limits: { flutterPercent: 0.12 },
    });
  });

  it("an adjuster acts at every speed unless some are named", () => {
    const [machine] = DEMO_MACHINES;
    const typed = typedMachine(machine);
    const [first, ...rest] = typed.adjusters;
    const only = machineSchema.parse(
      machineOf({ ...typed, adjusters: [{ ...first, speeds: "38,1 19.05" }, ...rest] }, machine),
    );
    expect(only.adjusters[0].speedsCmPerS).toEqual([38.1, 19.05]);
    expect(only.adjusters[1].speedsCmPerS).toBeUndefined();
    const nameless = { ...typed, adjusters: [{ ...first, name: " " }] };
    expect(machineSchema.safeParse(machineOf(nameless, machine)).success).toBe(false);
    const nonsense = { ...typed, adjusters: [{ ...first, speeds: "fast" }] };
    expect(machineSchema.safeParse(machineOf(nonsense, machine)).success).toBe(false);
  });

  it.each(Object.keys(PART_KINDS) as PartKind[])("a part of kind %s has to be filled in", (kind) => {
    const name = { name: "part" };
    expect(machinePartSchema.safeParse(partOf({ kind, texts: name })).success).toBe(false);
    const texts = Object.fromEntries(
      PART_KINDS[kind].fields.map(([key], i) => [
        key,
        key === "reel"
          ? "supply"
          : key === "ratioTo" || key === "pulleyPart"
            ? "capstan"
            : String(10 + 5 * i),
      ]),
    );
    expect(machinePartSchema.safeParse(partOf({ kind, texts: { ...texts, ...name } })).success).toBe(true);
    const wrong = {
      ...texts,
      ...name,
      [PART_KINDS[kind].fields[1]?.[0] ?? PART_KINDS[kind].fields[0][0]]: "x",
    };
    if (kind !== "belt")
      expect(machinePartSchema.safeParse(partOf({ kind, texts: wrong })).success).toBe(false);
  });
});
