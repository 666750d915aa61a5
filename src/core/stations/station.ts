import type { Followed } from "@/core/playback/source-and-tape";
import type { JobRecords } from "@/core/records/job-records";
import type { BiasScrew } from "@/core/guidance/bias-screw";
import type { FunctionsStanding } from "@/core/workshop/function-trial";
import type { Adjuster, Machine } from "@/core/records/machine";
import type { Circumstances } from "@/core/records/reading";
import type { Corridor } from "@/core/standards/tolerance-classes";
import type { Advised } from "./advised";
import type { OnTheBench } from "./on-the-bench";
import type { Quantity } from "./quantity";
import type { StationReadings } from "./station-readings";

/** Parts of the route, in working order. */
export const GROUPS = ["workshop", "transport", "playback", "record", "finish"] as const;

interface AnyStation<Id extends string> {
  id: Id;
  name: string;
  /** On the tape line, where its name is long. */
  short?: string;
  group: (typeof GROUPS)[number];
  /** Ids of the stations whose readings an adjustment made here puts in doubt. */
  upsets: readonly string[];
  /** How to set up. */
  setUp: readonly string[];
  /** What has to be ticked. */
  checks: readonly string[];
  caution: string | null;
}

/** A station that is worked through with eyes and hands. */
export interface ChecklistStation<Id extends string = string> extends AnyStation<Id> {
  kind: "checklist";
  /** The machine is taken apart here: it is done only when every line of the strip-down log is back in its place. */
  takesApart?: true;
  /** What a source is listened to for here: half-minutes to be compared by ear, or how long the mechanism runs. Nothing when left out. */
  listensTo?: "programme" | "mechanism";
  /** What it comes to, and what of it is open, where more than lines to tick tells that. */
  standing?(records: Pick<JobRecords, "job" | "machine">): FunctionsStanding;
}

/** Where the work is handed over. */
export interface SheetStation<Id extends string = string> extends AnyStation<Id> {
  kind: "sheet";
}

/** A limit that a machine may have of its own, in the words of the machine editor. */
export interface OwnLimit {
  key: string;
  label: string;
  most: number;
  /** It is what is wanted, not how far off that something may be. */
  wanted?: true;
}

/** What the readings of a station are kept apart by, each with its own as found and as left. */
export type Dimension = "speed" | "side" | "channel" | "head" | "recordingOn" | "switchedOn" | "control";

/** What is listened for while a station is worked at. */
export interface Hears {
  /** The tone for speed, the bands of a reference tape, a tone that is sent to a recorder and comes back, a sequence
   * that is, or a recording that is watched for the second at which it goes. */
  what: "speed tone" | "reference tape" | "source and tape" | "sequence" | "recording";
  /** All the flutter meters. */
  flutter: boolean;
  /** Which of several bands of one frequency is meant; null where tones are not collected. */
  role: string | null;
  /** The marked sequence whose passes are measured, by its id; null for none. */
  sequence: string | null;
  /** What is followed continuously into a recorder that can be heard off the tape, and back; null for nothing. */
  follows: Followed | null;
  /** The preset that holds it, by its id. */
  steady: string | null;
  /** Noise while nothing plays, or while nothing but faint tones do; not when left out. */
  quiet?: (circumstances: Circumstances) => "silence" | "faint tones";
  /** An old programme that goes quiet, where that is what is looked for; not when left out. */
  blanking?: true;
}

/** A kind of adjuster that a machine may have here, in the words of the machine editor. */
export interface AdjusterUse {
  kind: Adjuster["kind"];
  says: string;
  /** It may belong to one channel, direction, head or type of tape only. */
  actsOn: ReadonlyArray<"channel" | "side" | "head" | "tapeType" | "knob">;
}

/**
 * A station that measures: everything that makes it one. Whoever needs to know something of a station asks here.
 * `Id` and `Q` are the names by which its readings are stored.
 */
export interface MeasuringStation<
  Id extends string = string,
  Q extends string = string,
> extends AnyStation<Id> {
  kind: "measure";
  /** Whether a machine has it at all: one that only plays has nothing to set at the record stations. */
  onRoute(machine: Machine): boolean;
  /** A row for everything that it logs. */
  quantities: Readonly<Record<Q, Quantity>>;
  /** The quantities whose verdicts decide, first the one that is shown large. */
  deciding(machine: Machine): readonly [Q, ...Q[]];
  /** The largest magnitude that passes, in the quantity's unit; null where the machine has no limit for it. */
  limitOf(machine: Machine, quantity: Q): number | null;
  ownLimits: readonly OwnLimit[];
  /** What a curve of it has to stay within; null where it logs no curve. */
  corridorOf(machine: Machine): Corridor | null;
  apartBy: readonly Dimension[];
  /** What is said of the circumstances while it is worked at. */
  circumstances: ReadonlyArray<keyof Circumstances>;
  adjusters: readonly AdjusterUse[];
  hears: Hears;
  /** What the tape in the machine cannot tell here, to be said after its name; null for a tape that serves. */
  tapeLacks(bench: Pick<OnTheBench, "tape" | "here">): string | null;
  /** What it logs, from what was heard so far. */
  readings(bench: OnTheBench): StationReadings;
  /** What to turn and how far. */
  advise(bench: OnTheBench, chosenAdjusterId: string | null): Advised;
  /** Whether the loudest point of its screw is what is looked for on a machine. */
  seeksPeak(machine: Machine): boolean;
  /** Bias screws whose ways it asks for: they take a while to learn, and may be thought out aside. */
  learns(bench: OnTheBench): readonly BiasScrew[];
  /** What is said when nobody wrote down what sets it. */
  nothingToTurn: string;
}

export type Station = ChecklistStation | MeasuringStation | SheetStation;
