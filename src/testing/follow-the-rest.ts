import { limitFor } from "@/core/alignment/registry";
import type { Verdict } from "@/core/judging/verdict";
import type { BlankTape } from "@/core/records/blank-tape";
import { SIDES } from "@/core/records/fields";
import type { Circumstances } from "@/core/records/reading";
import { PRESETS } from "@/core/signals/presets";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { practiceMachine } from "@/core/simulator/practice-machines";
import type { MeasuringStationId } from "@/core/stations";
import { eraseCausesNow } from "@/core/stations/erase-causes";
import { noiseCauses } from "@/core/stations/noise-causes";
import { holdsCauses, holdsNow } from "@/core/stations/oscillator";
import { reductionNow } from "@/core/stations/reduction";
import { reductionCauses } from "@/core/stations/reduction-causes";
import { setTheRecorder, SHORT, type RecorderFollowed } from "./follow-the-recorder";
import { RecordBench } from "./record-bench";

const TONE = PRESETS.find(({ id }) => id === "erase-tone")!;
/** A recording has to hold for so long. */
const WATCHED_SECONDS = 124;
/** What was mended may show what stood behind it. */
const MOST_ROUNDS = 4;

/** What is done about a cause, by words of it; where one sentence names several, in its own order. */
const WORK: ReadonlyArray<[RegExp, string]> = [
  [/oscillator's amplitude|oscillator stopped|no bias any more/i, "oscillator"],
  [/erase head/i, "erase-head"],
  [/its own circuit/i, "reduction"],
  [/both share|leads that lie/i, "separation"],
  [/set its height/i, "head-height"],
  [/heads are magnetised/i, "demagnetise"],
];
/** What cannot go on as it was after work on it. */
const UPSETS_BIAS = ["oscillator"];

export interface RestFollowed {
  recorder: RecorderFollowed[];
  /** What was done, in its order. */
  work: string[];
  /** Every cause that was named, in its order, with its station. */
  causes: string[];
  refused: string[];
  verdicts: Record<string, Array<Verdict | null>>;
  /** Nothing fails and nothing is accused any more. */
  inClass: boolean;
}

/**
 * Sets a recorder for one tape by doing what its stations say, then goes through erase, oscillator, noise, separation and
 * noise reduction, and does what their causes name, until none is left.
 * @param setsFirst whether its record side is set first; it is set again after work that upsets it in any case
 */
export function followTheRest(
  machineId: string,
  blank: BlankTape,
  settings: Partial<TransportParameters>,
  seed: number,
  setsFirst = true,
): RestFollowed {
  const bench = new RecordBench(machineId, blank, settings, seed, { sequences: SHORT, sampleRateHz: 48_000 });
  const sides = practiceMachine(machineId).transport["deck.autoReverse"] ? SIDES : [undefined];
  const done: RestFollowed = {
    recorder: [],
    work: [],
    causes: [],
    refused: [],
    verdicts: {},
    inClass: false,
  };
  const log = (station: MeasuringStationId) => {
    const refused = bench.log(station, done.work.length > 0 ? "as left" : "as found");
    if (refused) done.refused.push(`${station}: ${refused}`);
  };
  const judged = (station: MeasuringStationId, name: string = station) => {
    done.verdicts[name] = bench.verdicts(station);
  };

  const erase = (side: Circumstances["side"]): string[] => {
    bench.recordOver("erase", TONE, side);
    // before it is logged: what is heard is held against what was logged before
    const causes = eraseCausesNow(bench.laid("erase"));
    log("erase");
    judged("erase", `erase ${side ?? ""}`);
    return causes;
  };
  const oscillator = (): string[] => {
    bench.watchRecording(TONE, WATCHED_SECONDS);
    log("oscillator");
    judged("oscillator");
    const { run } = holdsNow(bench.laid("oscillator"));
    return run ? holdsCauses(run) : [];
  };
  const noise = (): string[] => {
    bench.sayNoiseOf(undefined);
    bench.hear("noise");
    log("noise");
    const leaks = noiseCauses(bench.laid("noise"));
    bench.sayNoiseOf("other side");
    bench.hearOtherSide();
    log("noise");
    const other = noiseCauses(bench.laid("noise"));
    bench.sayNoiseOf(undefined);
    return [...leaks, ...other];
  };
  const limitDb = limitFor(bench.kept.machine, "reduction.worst") ?? 0;
  const reduction = (): string[] => {
    bench.switchOn();
    bench.hearBoth("reduction");
    log("reduction");
    bench.switchOn("reduction");
    bench.hear("reduction");
    const causes = reductionCauses(reductionNow(bench.laid("reduction")), limitDb);
    log("reduction");
    judged("reduction");
    bench.switchOn("multiplex");
    bench.hear("reduction");
    log("reduction");
    judged("reduction", "multiplex filter");
    bench.switchOn();
    return causes;
  };

  /** Where nothing is to be done any more, as long as nothing upsets it. */
  const good = new Set<MeasuringStationId>();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const sets = (round === 0 && setsFirst) || UPSETS_BIAS.includes(done.work.at(-1) ?? "");
    if (sets) done.recorder.push(setTheRecorder(bench, [blank]));
    const rounds: ReadonlyArray<[MeasuringStationId, () => string[]]> = [
      ["erase", () => sides.flatMap(erase)],
      ["oscillator", oscillator],
      ["noise", noise],
      ["reduction", reduction],
    ];
    let next: [MeasuringStationId, string] | null = null;
    for (const [station, look] of rounds) {
      if (good.has(station)) continue;
      const named = look();
      done.causes.push(...named.map((cause) => `${station}: ${cause}`));
      const multiplex = done.verdicts["multiplex filter"]?.includes("fail") && station === "reduction";
      const work = [
        ...named.flatMap((cause) => WORK.filter(([words]) => words.test(cause)).map(([, id]) => id)),
        ...(multiplex ? ["multiplex-filter"] : []),
      ].find((id) => !done.work.includes(id));
      if (work) {
        next = [station, work];
        break;
      }
      if (named.length === 0) good.add(station);
    }
    if (!next) {
      done.inClass =
        good.size === rounds.length &&
        Object.values(done.verdicts)
          .flat()
          .every((one) => one === "pass");
      break;
    }
    done.work.push(next[1]);
    if (UPSETS_BIAS.includes(next[1])) good.clear();
    bench.work(next[0], next[1]);
  }
  return done;
}
