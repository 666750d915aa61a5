import type { Verdict } from "@/core/judging/verdict";
import { shortSequences } from "@/core/practice/short-sequences";
import type { BlankTape } from "@/core/records/blank-tape";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { actingAdjusters } from "@/core/stations/acting-adjusters";
import { distortion, distortionOf } from "@/core/stations/distortion";
import { distortionCauses } from "@/core/stations/distortion-causes";
import { recordedHere } from "@/core/stations/recorded";
import { RecordBench } from "./record-bench";

/** What is said where flatness was misled. */
const BY_OVER_BIAS = /Choose over-bias/;
const STATIONS = ["bias", "record-level", "record-response"] as const;
const MOST_TURNS = 5;
/** Setting one moves the others a little: gone through so often at most. */
const MOST_ROUNDS = 2;
/** Hum beside a low tone takes three seconds to be told from it. */
export const SHORT = shortSequences(3);

/** What is done about a cause that no screw sets, by words of what to try first. */
const WORK: ReadonlyArray<[RegExp, string]> = [
  [/demagnetise/i, "demagnetise"],
  [/capacitors/i, "record-capacitors"],
];

export interface RecorderFollowed {
  turns: number;
  work: string[];
  /** Of each tape, by its name: the last verdicts of each station. */
  verdicts: Record<string, Array<Verdict | null>>;
  /** Everything passes; what distortion is left of a tape at its right bias may be close to its limit. */
  inClass: boolean;
}

/** Sets the record side of a practice machine on some tapes by doing what the stations say, in their order. */
export function followTheRecorder(
  machineId: string,
  blanks: readonly BlankTape[],
  settings: Partial<TransportParameters>,
  seed: number,
): RecorderFollowed {
  return setTheRecorder(
    new RecordBench(machineId, blanks, settings, seed, { sequences: SHORT, sampleRateHz: 48_000 }),
    blanks,
  );
}

/** The same on a bench that stands there. */
export function setTheRecorder(bench: RecordBench, blanks: readonly BlankTape[]): RecorderFollowed {
  const work: string[] = [];
  /** Bias screws that were turned up against distortion, of each tape: once each. */
  const raised = new Set<string>();
  let justRaised = false;
  const verdicts: Record<string, Array<Verdict | null>> = {};
  bench.haveLooked();

  const set = (station: (typeof STATIONS)[number], asFound: boolean) => {
    const watched = bench.canWatch(station);
    if (watched) bench.watch(station);
    else bench.hearBoth(station);
    if (asFound) bench.log(station, "as found");
    // what was raised on purpose stays so: it is only heard again
    const screws =
      station === "bias" && justRaised ? [] : actingAdjusters(bench.stationOf(station), bench.laid(station));
    for (const { id } of screws) {
      if (watched) bench.set(station, id);
      else bench.setByPasses(station, id, MOST_TURNS, () => bench.hear(station));
    }
    bench.log(station, "as left");
    return bench.verdicts(station);
  };

  /** What is wrong with the distortion is cured as it says, once each. */
  const cure = (blank: BlankTape): boolean => {
    justRaised = false;
    bench.hearBoth("distortion");
    bench.log("distortion", "as left");
    const laid = bench.laid("distortion");
    const last = recordedHere(laid).recorded.at(-1);
    const causes = last ? distortionCauses(laid, distortionOf(last, laid.here.machine.channels)) : [];
    verdicts[`${blank.name}, ${distortion.name}`] = bench.verdicts("distortion");
    if (causes.some(({ tryFirst }) => BY_OVER_BIAS.test(tryFirst)) && bench.chooseSchool("over-bias"))
      return true;
    const raise = causes.flatMap(({ turn }) => (turn ? [turn] : [])).at(0);
    if (raise && !raised.has(`${blank.name}, ${raise.adjusterId}`)) {
      raised.add(`${blank.name}, ${raise.adjusterId}`);
      bench.turnBy("bias", raise.adjusterId, raise.turns);
      justRaised = true;
      return true;
    }
    const next = causes
      .flatMap(({ tryFirst }) => WORK.flatMap(([words, id]) => (words.test(tryFirst) ? [id] : [])))
      .find((id) => !work.includes(id));
    if (next === undefined) return false;
    work.push(next);
    bench.work("distortion", next);
    return true;
  };

  const isGood = ({ name }: BlankTape) => {
    const own = Object.entries(verdicts).filter(([station]) => station.startsWith(name));
    return own.length > 0 && areGood(own);
  };
  const setOn = (blank: BlankTape) => {
    bench.on(blank);
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const asFound = !(`${blank.name}, bias` in verdicts);
      for (const station of STATIONS) verdicts[`${blank.name}, ${station}`] = set(station, asFound);
      if (!cure(blank) && isGood(blank)) break;
    }
  };
  blanks.forEach(setOn);
  // what was told on the second tape, or mended there, may be what the first one lacked
  blanks.filter((blank) => !isGood(blank)).forEach(setOn);
  return { turns: bench.turns, work, verdicts, inClass: areGood(Object.entries(verdicts)) };
}

const areGood = (entries: ReadonlyArray<[string, Array<Verdict | null>]>): boolean =>
  entries.every(
    ([name, all]) =>
      all.length > 0 &&
      all.every((verdict) => verdict === "pass" || (verdict === "close" && name.endsWith(distortion.name))),
  );
