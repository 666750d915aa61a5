import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { followTheRest, type RestFollowed } from "@/testing/follow-the-rest";

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
const RECORD_FAULTS: Record<string, Settings> = {
  "under-biased": { "bias.leftDb": -2.6, "bias.rightDb": -1.9 },
  "left and right apart": { "bias.leftDb": -1.5, "bias.rightDb": 1.6 },
  "record levels off": { "record.leftDb": -2.8, "record.rightDb": 1.9 },
  "record equaliser off": { "record.leftTrebleDb": -3.5, "record.rightTrebleDb": 3 },
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
export function* restFaultRuns(only: (name: string) => boolean = () => true): Generator<RestRun> {
  for (const [fault, beside] of RUNS)
    for (const machine of MACHINES) {
      const name = `${fault}${beside ? ` and ${beside}` : ""}, ${machine}`;
      if (!only(name) || (ONE_WAY.includes(fault) && machine !== "ellesby-c-1r")) continue;
      const { settings, cures } = FAULTS[fault];
      const followed = followTheRest(
        machine,
        DEMO_BLANKS[0],
        { ...settings, ...(beside && RECORD_FAULTS[beside]) },
        21,
        beside !== null,
      );
      yield { name, followed, good: followed.inClass && followed.work.every((one) => cures.includes(one)) };
    }
}
