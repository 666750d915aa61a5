import type { Adjuster, Machine } from "@/core/alignment/records";
import type { MachinePart } from "@/core/workshop/machine-part";

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
  flutterLimit: string;
  speedLimit: string;
  azimuthLimit: string;
  balanceLimit: string;
  responseLimit: string;
  channels: "mono" | "stereo";
  capstans: "one" | "two";
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
    flutterLimit: machine.limits.flutterPercent?.toString() ?? "",
    speedLimit: machine.limits.speedErrorPercent?.toString() ?? "",
    azimuthLimit: machine.limits.azimuthDegrees?.toString() ?? "",
    balanceLimit: machine.limits.balanceDb?.toString() ?? "",
    responseLimit: machine.limits.responseDb?.toString() ?? "",
    channels: machine.channels === 1 ? "mono" : "stereo",
    capstans: machine.dualCapstan ? "two" : "one",
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

const number = (text: string | undefined): number | undefined =>
  text === undefined || text.trim() === "" ? undefined : Number(text.trim().replace(",", "."));
const WORDS = new Set(["ratioTo", "pulleyPart", "reel"]);

/** The machine as typed, to be checked by its schema; what is no number becomes NaN and is refused. */
export function machineOf(typed: TypedMachine, before: Machine): Record<string, unknown> {
  const limits = {
    flutterPercent: number(typed.flutterLimit),
    speedErrorPercent: number(typed.speedLimit),
    azimuthDegrees: number(typed.azimuthLimit),
    balanceDb: number(typed.balanceLimit),
    responseDb: number(typed.responseLimit),
  };
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
    operatingLevel,
    headInductanceMh: number(typed.headMh),
    limits: Object.fromEntries(Object.entries(limits).filter(([, value]) => value !== undefined)),
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
