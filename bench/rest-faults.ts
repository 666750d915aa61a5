import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { followTheRest, type RestFollowed } from "@/testing/follow-the-rest";
import { FAULTS as RECORD_FAULTS } from "./record-faults";

type Settings = Partial<TransportParameters>;

/** Faults of the rest of a recorder, by what cures them: what is done beyond that accuses something sound. */
const FAULTS: Record<string, { settings: Settings; cures: readonly string[] }> = {
  // an amplitude is looked at with a meter before an erase head is cleaned
  "weak erase": { settings: { "erase.depthDb": 44 }, cures: ["oscillator", "erase-head"] },
  "weak erase in reverse": { settings: { "erase.reverseWeakerDb": 24 }, cures: ["erase-head"] },
  "weak oscillator": { settings: { "oscillator.amplitudeDb": -4 }, cures: ["oscillator"] },
  "dies warm": { settings: { "oscillator.diesAfterSeconds": 40 }, cures: ["oscillator"] },
  "reduction wrong": { settings: { "reduction.leftErrorDb": 4 }, cures: ["reduction"] },
  "multiplex low": { settings: { "multiplex.cornerHz": 12_500 }, cures: ["multiplex-filter"] },
  "other side heard": { settings: { "head.otherSideDb": -30 }, cures: ["head-height"] },
  "channels leak": { settings: { "head.crosstalkDb": -26 }, cures: ["separation"] },
};
/** A fault, and a record fault beside it or none. */
const RUNS: ReadonlyArray<[fault: string, beside: string | null]> = [
  ...Object.keys(FAULTS).map((fault): [string, null] => [fault, null]),
  ["weak oscillator", "under-biased"],
  ["weak erase", "left and right apart"],
  ["dies warm", "record levels off"],
  ["reduction wrong", "record levels off"],
  ["multiplex low", "record equaliser off"],
  ["channels leak", "under-biased"],
];
/** Three heads, and two with both directions. */
const MACHINES = ["ellesby-c-3h", "ellesby-c-1r"];
const ONE_WAY = ["weak erase in reverse"];

export interface RestRun {
  name: string;
  followed: RestFollowed;
  /** Everything is within its class at the end, and nothing was done that did not cure it. */
  good: boolean;
}

/** Each fault alone and six pairs, followed by what the screens say. */
export function* restFaultRuns(most: number): Generator<RestRun> {
  const runs = RUNS.flatMap(([fault, beside]) =>
    MACHINES.map((machine) => ({ fault, beside, machine })),
  ).filter(({ fault, machine }) => !ONE_WAY.includes(fault) || machine === "ellesby-c-1r");
  for (const { fault, beside, machine } of runs.slice(0, most)) {
    const { settings, cures } = FAULTS[fault];
    const both = { ...settings, ...(beside && RECORD_FAULTS[beside]) };
    const followed = followTheRest(machine, DEMO_BLANKS[0], both, 21, beside !== null);
    yield {
      name: `${fault}${beside ? ` and ${beside}` : ""}, ${machine}`,
      followed,
      good: followed.inClass && followed.work.every((one) => cures.includes(one)),
    };
  }
}
