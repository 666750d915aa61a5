import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { followTheRecorder, type RecorderFollowed } from "@/testing/follow-the-recorder";

type Settings = Partial<TransportParameters>;

/** Record faults that the practice machine comes in with. */
export const FAULTS: Record<string, Settings> = {
  "over-biased": { "bias.leftDb": 2.4, "bias.rightDb": 1.8 },
  "under-biased": { "bias.leftDb": -2.6, "bias.rightDb": -1.9 },
  "one type off": { "typeII.biasDb": -2.2, "typeII.levelDb": -1.8 },
  "left and right apart": { "bias.leftDb": -1.5, "bias.rightDb": 1.6 },
  "tired amplifier": { "record.amplifierThirdPercent": 2.2 },
  "record levels off": { "record.leftDb": -2.8, "record.rightDb": 1.9 },
  "record equaliser off": { "record.leftTrebleDb": -3.5, "record.rightTrebleDb": 3 },
  magnetised: { "head.magnetised": 0.8 },
};
const PAIRS: ReadonlyArray<[string, string]> = [
  ["under-biased", "tired amplifier"],
  ["over-biased", "record levels off"],
  ["left and right apart", "record equaliser off"],
  ["one type off", "magnetised"],
  ["under-biased", "record equaliser off"],
  ["tired amplifier", "record levels off"],
];
/** Three heads and two, each on two types of tape. */
const MACHINES = ["ellesby-c-3h", "ellesby-c-1r"];

/** Each fault alone and six pairs, set by doing what the screens say: what it was, how long it took, what came of it. */
export function* recordFaultRuns(most: number): Generator<[string, number, RecorderFollowed]> {
  const faults = [...Object.keys(FAULTS).map((name) => [name]), ...PAIRS];
  const runs = faults.flatMap((names) => MACHINES.map((machine) => ({ names, machine })));
  for (const { names, machine } of runs.slice(0, most)) {
    const settings = Object.assign({}, ...names.map((name) => FAULTS[name])) as Settings;
    const start = performance.now();
    const followed = followTheRecorder(machine, DEMO_BLANKS.slice(0, 2), settings, 21);
    yield [`${names.join(" and ")}, ${machine}`, (performance.now() - start) / 1000, followed];
  }
}
