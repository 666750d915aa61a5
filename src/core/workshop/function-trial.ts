import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

/** What a machine may have to have for a function to be tried on it. */
interface Has {
  reverses: boolean;
  records: boolean;
  severalSpeeds: boolean;
}

interface TransportFunction {
  name: string;
  /** How it is tried, in the fewest runs. */
  how: string;
  /** Where to look when it is faulty, the likeliest first. */
  look: string;
  /** It is timed with a watch. */
  timed?: true;
  /** Not every machine can have it; every one when left out. */
  only?: (machine: Has) => boolean;
}

/** What a deck does beside recording and playing, in the order in which it is tried: nothing is run twice for it. */
export const FUNCTIONS = {
  door: {
    name: "Door, loading and eject",
    how: "Load a worthless tape and take it out again; the door closes flush and opens slowly.",
    look: "Damper, hinge springs, a bent shell guide.",
  },
  play: {
    name: "Play and stop",
    how: "Press play, then stop: the tape neither loops nor jerks.",
    look: "Brakes, take-up torque, idler tyre.",
  },
  pause: {
    name: "Pause",
    how: "Hold it for a few seconds and let go: it starts without a slur and without a loop.",
    look: "Pinch roller arm, its spring and old grease at the pivot.",
  },
  meters: {
    name: "Meters",
    how: "With the level tone both stand alike, and fall alike when it stops.",
    look: "Meter trimmers and rectifiers, then the lamp behind them.",
  },
  lamps: {
    name: "Lamps and indicators",
    how: "Power, record, direction, tape type: each lights when it should and not otherwise.",
    look: "The lamp, then its contact.",
  },
  headphones: {
    name: "Headphone output",
    how: "Both sides, alike, no crackle while the plug is turned.",
    look: "Socket springs, output coupling capacitors.",
  },
  outputs: {
    name: "Line sockets",
    how: "Each socket by itself: no hum, no channel that comes and goes while the plug is moved.",
    look: "Cracked solder at the sockets, a leaf that no longer opens.",
  },
  cue: {
    name: "Cue and review",
    how: "Both ways out of play, and back into play: no loop, the head leaves the tape far enough.",
    look: "Head plate return spring, idler.",
  },
  wind: {
    name: "Wind forwards",
    how: "From one end to the other in one go, with the watch running; listen for a change of pitch.",
    look: "Wind idler and its tyre, clutch, brake that drags, belt.",
    timed: true,
  },
  windEnd: {
    name: "Stops at the end of winding",
    how: "It stops by itself within a few seconds; nothing goes on turning.",
    look: "Auto-stop lever or sensor, its belt or magnet.",
  },
  rewind: {
    name: "Wind back",
    how: "The same way back, with the watch running.",
    look: "Wind idler and its tyre, clutch, brake that drags, belt.",
    timed: true,
  },
  counter: {
    name: "Counter",
    how: "It followed both ways, comes back to where it was, and resets.",
    look: "Counter belt, slipping on its pulley.",
  },
  memory: {
    name: "Memory stop",
    how: "Winding back stops just before zero.",
    look: "Contact in the counter.",
  },
  playEnd: {
    name: "Stops at the end of playing",
    how: "Wind to just before the end, play into it: it stops and the keys come up.",
    look: "Auto-stop lever or sensor, take-up that no longer turns it.",
  },
  reverse: {
    name: "Auto-reverse",
    how: "At the end of the side it turns, once, and plays on; then once by its key.",
    look: "Sensor, direction lever, old grease at the head's turning cam.",
    only: ({ reverses }) => reverses,
  },
  speeds: {
    name: "Each speed engages",
    how: "Change while it stands, then play: it holds each speed and says which.",
    look: "Speed switch contacts, the belt's step on the pulley.",
    only: ({ severalSpeeds }) => severalSpeeds,
  },
  safety: {
    name: "Record safety",
    how: "A shell without tabs, or no tape: record does not go down.",
    look: "Feeler lever, bent or stuck.",
    only: ({ records }) => records,
  },
  supply: {
    name: "Cells and mains",
    how: "Runs on cells as on mains; changing over makes no thump.",
    look: "Cell springs, the switch in the mains socket.",
  },
} as const satisfies Record<string, TransportFunction>;

export type FunctionId = keyof typeof FUNCTIONS;
export const FUNCTION_IDS = Object.keys(FUNCTIONS) as [FunctionId, ...FunctionId[]];

/** What a function is tried by and named by. */
export const functionOf = (of: FunctionId): TransportFunction => FUNCTIONS[of];

export const TRIAL_PHASES = ["as found", "as left"] as const;
export type TrialPhase = (typeof TRIAL_PHASES)[number];

/** One trial of a function. Trials are appended; the last of its phase counts. */
export const functionTrialSchema = z.object({
  id,
  at: time,
  of: z.enum(FUNCTION_IDS),
  phase: z.enum(TRIAL_PHASES),
  works: z.boolean(),
  /** From end to end, where it was timed. */
  seconds: z.number().positive().max(3600).nullable().default(null),
  note: z.string().max(300).default(""),
});
export type FunctionTrial = z.infer<typeof functionTrialSchema>;

/** The functions that a machine has. @param without those that somebody said it has not */
export const functionsFor = (has: Has, without: readonly string[]): FunctionId[] =>
  FUNCTION_IDS.filter((one) => (functionOf(one).only?.(has) ?? true) && !without.includes(one));

export const lastTrial = (
  trials: readonly FunctionTrial[],
  of: FunctionId,
  phase: TrialPhase,
): FunctionTrial | null => trials.findLast((trial) => trial.of === of && trial.phase === phase) ?? null;

/** So often a phase may have a function of an old mechanism run before it is told to let it be. */
const ENOUGH_RUNS = 3;

/** Why a function is better not run again; null while there is nothing against it. */
export function whyNoMoreRuns(
  trials: readonly FunctionTrial[],
  of: FunctionId,
  phase: TrialPhase,
): string | null {
  const runs = trials.filter((trial) => trial.of === of && trial.phase === phase).length;
  return runs < ENOUGH_RUNS
    ? null
    : `Tried ${runs} times ${phase}. Each run wears an old mechanism: mend it first, then try it once.`;
}

/** One way takes so much longer than the other that something drags. */
const UNLIKE_SHARE = 1.25;

/** What the two wind times of a phase say of each other; null where one is missing. */
export function windTimesSay(trials: readonly FunctionTrial[], phase: TrialPhase): string | null {
  const [forwards, back] = (["wind", "rewind"] as const).map(
    (of) => lastTrial(trials, of, phase)?.seconds ?? null,
  );
  if (forwards === null || back === null) return null;
  const [slow, fast] = forwards > back ? [forwards, back] : [back, forwards];
  if (slow < UNLIKE_SHARE * fast)
    return `Forwards ${Math.round(forwards)} s, back ${Math.round(back)} s: alike.`;
  const way = forwards > back ? "Forwards" : "Back";
  return `${way} takes ${Math.round(slow)} s against ${Math.round(fast)} s: what serves that way alone drags or slips; ${FUNCTIONS.wind.look.toLowerCase()}`;
}

/** What the trials of a machine's functions come to. */
export interface FunctionsStanding {
  state: "blank" | "found" | "failed" | "settled";
  /** What is not yet as it should be, in words. */
  open: string[];
}

export function functionsStanding(
  trials: readonly FunctionTrial[],
  of: readonly FunctionId[],
): FunctionsStanding {
  const mine = trials.filter((trial) => of.includes(trial.of));
  const left = of.map((one) => ({ one, trial: lastTrial(mine, one, "as left") }));
  const faulty = left.filter(({ trial }) => trial?.works === false);
  const untried = left.filter(({ trial }) => trial === null);
  return {
    state:
      mine.length === 0 ? "blank" : faulty.length > 0 ? "failed" : untried.length > 0 ? "found" : "settled",
    open: [
      ...faulty.map(
        ({ one, trial }) => `${FUNCTIONS[one].name}: faulty as left${trial?.note ? ` (${trial.note})` : ""}`,
      ),
      ...untried.map(({ one }) => `${FUNCTIONS[one].name} was not tried as left`),
    ],
  };
}
