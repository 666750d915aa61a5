import { SWITCHES, type Adjuster, type FrontSwitch, type Machine } from "@/core/records/machine";
import { MEASURING } from "@/core/alignment/registry";
import { typedOrNothing } from "@/core/text/typed-number";
import type { MachinePart } from "@/core/workshop/machine-part";

/** Every limit that a machine may have of its own. */
export const OWN_LIMITS = MEASURING.flatMap(({ ownLimits }) => ownLimits);

/** What ties a part's turns to the tape, as one chooses it. */
export const PART_KINDS = {
  surface: { says: "touches the tape", fields: [["tapeDiameterMm", "Diameter, mm"]] },
  ratio: {
    says: "geared to a part",
    fields: [
      ["ratioTo", "Driven by"],
      ["ratio", "Turns for one of it"],
      ["poles", "Poles"],
    ],
  },
  belt: {
    says: "belt",
    fields: [
      ["beltLengthMm", "Length, mm"],
      ["pulleyPart", "Over the pulley on"],
      ["pulleyDiameterMm", "Pulley, mm"],
    ],
  },
  reel: {
    says: "reel",
    fields: [
      ["reel", "supply or take-up"],
      ["hubRadiusMm", "Hub radius, mm"],
      ["fullRadiusMm", "Full radius, mm"],
      ["tapeThicknessMicrometres", "Tape, µm"],
    ],
  },
  counted: {
    says: "turns counted",
    fields: [
      ["countedTurns", "Turns"],
      ["countedSeconds", "in seconds"],
    ],
  },
} as const;
export type PartKind = keyof typeof PART_KINDS;

export interface TypedPart {
  kind: PartKind;
  texts: Record<string, string>;
}

export interface TypedMachine {
  name: string;
  description: string;
  speeds: string;
  toleranceClass: Machine["toleranceClass"];
  flutterMeter: Machine["flutterMeter"];
  /** Limits of its own, as typed, by their names. */
  limits: Record<string, string>;
  channels: "mono" | "stereo";
  capstans: "one" | "two";
  heads: "two, plays only" | "two, records" | "three";
  /** Words on its switches; empty for one that it does not have. */
  switches: Record<FrontSwitch, string>;
  fluxivity: string;
  outputDbu: string;
  headMh: string;
  adjusters: TypedAdjuster[];
  parts: TypedPart[];
}

export interface TypedAdjuster extends Omit<Adjuster, "speedsCmPerS"> {
  /** Speeds it acts at, as typed; every one when empty. */
  speeds: string;
}

const kindOf = (part: MachinePart): PartKind =>
  "tapeDiameterMm" in part
    ? "surface"
    : "ratioTo" in part
      ? "ratio"
      : "beltLengthMm" in part
        ? "belt"
        : "reel" in part
          ? "reel"
          : "counted";

export function typedMachine(machine: Machine): TypedMachine {
  return {
    name: machine.name,
    description: machine.description,
    speeds: machine.speedsCmPerS.join("; "),
    toleranceClass: machine.toleranceClass,
    flutterMeter: machine.flutterMeter,
    limits: Object.fromEntries(OWN_LIMITS.map(({ key }) => [key, machine.limits[key]?.toString() ?? ""])),
    channels: machine.channels === 1 ? "mono" : "stereo",
    capstans: machine.dualCapstan ? "two" : "one",
    heads: machine.monitorsTape ? "three" : machine.records ? "two, records" : "two, plays only",
    switches: {
      reduction: machine.switches?.reduction ?? "",
      multiplex: machine.switches?.multiplex ?? "",
      headroom: machine.switches?.headroom ?? "",
    },
    fluxivity: machine.operatingLevel?.fluxivityNwbPerM.toString() ?? "",
    outputDbu: machine.operatingLevel?.outputDbu.toString() ?? "",
    headMh: machine.headInductanceMh?.toString() ?? "",
    adjusters: machine.adjusters.map(({ speedsCmPerS = [], ...adjuster }) => ({
      ...adjuster,
      speeds: speedsCmPerS.join("; "),
    })),
    parts: machine.parts.map((part) => ({
      kind: kindOf(part),
      texts: Object.fromEntries(Object.entries(part).map(([key, value]) => [key, String(value)])),
    })),
  };
}

const number = typedOrNothing;
const WORDS = new Set(["ratioTo", "pulleyPart", "reel"]);

/** The machine as typed, to be checked by its schema; what is no number becomes NaN and is refused. */
export function machineOf(typed: TypedMachine, before: Machine): Record<string, unknown> {
  const limits = Object.entries(typed.limits).map(([key, text]) => [key, number(text)] as const);
  const switches = SWITCHES.flatMap((one) =>
    typed.switches[one].trim() === "" ? [] : [[one, typed.switches[one].trim()]],
  );
  const [fluxivityNwbPerM, outputDbu] = [number(typed.fluxivity), number(typed.outputDbu)];
  const operatingLevel =
    fluxivityNwbPerM === undefined && outputDbu === undefined
      ? null
      : { fluxivityNwbPerM, method: before.operatingLevel?.method ?? "din", outputDbu };
  return {
    ...before,
    name: typed.name,
    description: typed.description,
    speedsCmPerS: numbers(typed.speeds),
    toleranceClass: typed.toleranceClass,
    flutterMeter: typed.flutterMeter,
    channels: typed.channels === "mono" ? 1 : 2,
    dualCapstan: typed.capstans === "two" || undefined,
    monitorsTape: typed.heads === "three" || undefined,
    records: typed.heads === "two, records" || undefined,
    switches: switches.length > 0 ? Object.fromEntries(switches) : undefined,
    operatingLevel,
    headInductanceMh: number(typed.headMh),
    limits: Object.fromEntries(limits.filter(([, value]) => value !== undefined)),
    adjusters: typed.adjusters.map(({ speeds, ...adjuster }) => ({
      ...adjuster,
      ...(speeds.trim() !== "" && { speedsCmPerS: numbers(speeds) }),
    })),
    parts: typed.parts.map(partOf),
  };
}

const numbers = (text: string) =>
  text
    .split(/[;\s]+/)
    .filter((one) => one !== "")
    .map(number);

export function partOf({ kind, texts }: TypedPart): Record<string, unknown> {
  const fields = PART_KINDS[kind].fields.map(([key]): [string, unknown] => [
    key,
    WORDS.has(key) ? texts[key]?.trim() || undefined : number(texts[key]),
  ]);
  const tolerancePercent = number(texts.tolerancePercent);
  return {
    name: texts.name?.trim() ?? "",
    ...(texts.role && { role: texts.role }),
    ...(tolerancePercent !== undefined && { tolerancePercent }),
    ...Object.fromEntries(fields.filter(([, value]) => value !== undefined)),
  };
}
