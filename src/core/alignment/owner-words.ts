import { inForce, type JobRecords } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import type { MeasuringStationId } from "@/core/stations";
import { fixed } from "@/core/text/number-text";
import { MEANINGS } from "@/core/workshop/symptoms";
import { stationById } from "./registry";
import { partsOf } from "./job-summary";
import { sheetOf, type SheetStation } from "./sheet";

/** A job as it is told to an owner who knows nothing of decibels. */
export interface OwnerWords {
  /** What was wrong, a sentence each. */
  wrong: string[];
  /** What was done and fitted. */
  done: string[];
  /** What is not as it should be, and why. */
  left: string[];
}

const abs = ({ value }: Reading, decimals: number) => fixed(Math.abs(value), decimals);

/** What a figure out of its limits meant to the ear, by the station that has it. */
const WAS: Record<MeasuringStationId, (reading: Reading) => string> = {
  speed: (one) => `It ran ${abs(one, 1)} % too ${one.value < 0 ? "slow" : "fast"}`,
  flutter: (one) => `It wavered by ${abs(one, 2)} %, more than it should`,
  azimuth: () => "The playback head stood at a slant, which dulls the treble",
  level: (one) =>
    one.quantity === "level.error" || one.quantity === "level.balance"
      ? "It played back at a wrong loudness, or one side louder than the other"
      : "A control crackled or lost the sound when it was moved",
  response: (one) =>
    `Playback had ${one.value < 0 ? "too little" : "too much"} of some tones, by up to ${abs(one, 0)} dB`,
  bias: () => "Recordings came out dull or harsh",
  "record-level": () => "Recordings came out louder or softer than what went in",
  "record-response": () => "Recordings had too much or too little of some tones",
  distortion: () => "Recordings were distorted",
  erase: () => "Old recordings were not wiped out whole",
  oscillator: () => "Recording did not hold",
  noise: () => "It hissed, hummed, or let one side be heard on the other, more than it should",
  reduction: () => "Its noise reduction did not work as it should",
  settings: () => "The knobs on its front did not do what they say",
};

type Deciding = SheetStation["rows"][number];

/** What was wrong, what was done about it and what is left, without a word of the trade. */
export function ownerWords(records: JobRecords, sheet = sheetOf(records)): OwnerWords {
  const { job } = records;
  const { fitted, missing } = partsOf(records.neededParts);
  const rowsOf = ({ rows }: SheetStation) => rows.filter(({ deciding }) => deciding);
  const wrong: string[] = [];
  const left: string[] = [];
  for (const one of sheet.stations) {
    const was = WAS[one.station.id as MeasuringStationId];
    const rows = rowsOf(one);
    const worst = rows.find(({ asFound }) => asFound?.verdict === "fail");
    if (worst) wrong.push(`${was(worst.asFound!.reading)}. ${nowIs(rows, one.stale)}`);
    else if (rows.some(({ asLeft }) => asLeft?.verdict === "fail"))
      left.push(`${one.station.name}: not within its limits.`);
    if (worst && rows.some(({ asLeft }) => asLeft?.verdict === "fail"))
      left.push(`${one.station.name}: better, but not within its limits.`);
  }
  return {
    wrong: wrong.length > 0 ? wrong : (job.symptoms ?? []).map((one) => `${MEANINGS[one].says}.`),
    done: [
      ...fitted.map((part) => `Fitted: ${part}.`),
      ...worksDone(records).map((work) => `${work}.`),
      ...setAnew(records),
    ],
    left: [
      ...left,
      ...missing.map((part) => `Not fitted: ${part}.`),
      ...sheet.checklists.flatMap(({ station, open }) =>
        station.standing ? open.filter((line) => line.includes("faulty")).map((line) => `${line}.`) : [],
      ),
    ],
  };
}

const inForceOf = ({ adjustments, machine }: JobRecords) =>
  inForce(adjustments)
    .filter(({ turns }) => turns !== 0)
    .flatMap((one) => machine.adjusters.find(({ id }) => id === one.adjusterId) ?? []);

/** Work that was done, each once. */
const worksDone = (records: JobRecords): string[] => [
  ...new Set(
    inForceOf(records)
      .filter(({ kind }) => kind === "work")
      .map(({ name }) => name),
  ),
];

/** What was set, by the names of the stations: the names of screws tell an owner nothing. */
function setAnew(records: JobRecords): string[] {
  const stations = inForceOf(records)
    .filter(({ kind }) => kind === "turn")
    .flatMap(({ sets }) => stationById(sets)?.name.toLowerCase() ?? []);
  return stations.length > 0 ? [`Set anew: ${[...new Set(stations)].join(", ")}.`] : [];
}

function nowIs(rows: readonly Deciding[], stale: boolean): string {
  if (stale) return "It has to be measured once more.";
  const verdicts = rows.map(({ asLeft }) => asLeft?.verdict ?? null);
  if (verdicts.includes("fail")) return "That could not be put right altogether.";
  if (verdicts.includes(null)) return "How it is left was not measured yet.";
  return verdicts.every((one) => one === "pass")
    ? "It is as it should be now."
    : "It is close to what it should be now.";
}
