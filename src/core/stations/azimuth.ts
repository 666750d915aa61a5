import { meanLevelDb } from "@/core/measure/mean-level";
import type { PlaybackNow, PlayingTone } from "@/core/playback/playback-now";
import { judgedTone } from "@/core/playback/ladder";
import type { Machine } from "@/core/records/machine";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import type { ToSet } from "./advised";
import { adviseSearch } from "./azimuth-search";
import { heardFrom } from "./heard-from";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import type { MeasuringStation } from "./station";
import { nothingToLog, onceSettled } from "./station-readings";

const quantities = {
  "azimuth.phase": { name: "Azimuth phase at 10 kHz", unit: "°", decimals: 1, signed: true },
  "azimuth.tilt": { name: "Tilt of the gap", unit: "′", decimals: 1, signed: true },
  "azimuth.wander": { name: "Wander of the phase at 10 kHz", unit: "°", decimals: 1, signed: false },
  "azimuth.monoLoss": { name: "Loss of the mono sum at 10 kHz", unit: "dB", decimals: 2, signed: false },
  "azimuth.belowPeak": { name: "Treble below its loudest", unit: "dB", decimals: 2, signed: false },
  "azimuth.treble": {
    name: "Level of the treble tone",
    unit: "dBFS",
    decimals: 1,
    signed: true,
    unprinted: true,
  },
} as const;

const TEN_KHZ = 10_000;
const LEAST_TREBLE_HZ = 4000;
/** A restless phase is not chased beyond this share of its limit. */
const RESTLESS_SHARE = 0.5;
/** Before the screw was turned the loudest so far is only where it stands: so much may be lost, dB. */
const PEAK_NOT_SEEN_DB = 10;

const phaseLimit = ({ limits, toleranceClass }: Machine): number | null =>
  limits.azimuthDegrees ?? TOLERANCE_CLASSES[toleranceClass].azimuthDegrees;

/** Whether it is set by the phase of two channels; by the loudest point where there is one, or no limit for phase. */
export const azimuthByPhase = (machine: Machine): boolean =>
  machine.channels !== 1 && phaseLimit(machine) !== null;

/** ± dB of how far a level is below its peak. */
export const belowPeakUncertainty = ({
  peakSeen,
  wanderDb,
}: Pick<PlayingTone, "peakSeen" | "wanderDb">): number => (peakSeen ? wanderDb : PEAK_NOT_SEEN_DB);

/** How far the treble is below the loudest that it has been; null before it stood anywhere for a second. */
export const belowPeakDb = ({ heldDbfs, levelsDbfs }: PlayingTone): number | null =>
  Number.isFinite(heldDbfs) ? Math.max(0, heldDbfs - meanLevelDb(levelsDbfs)) : null;

function peakReadings(playing: PlayingTone, context: LogContext) {
  const { heldDbfs, levelsDbfs, wanderDb, frequencyHz: nominalHz } = playing;
  const levelDbfs = meanLevelDb(levelsDbfs);
  return readingsOfMoment(azimuth, context, { seconds: 1, method: "loudest point of the treble tone" }, [
    {
      quantity: "azimuth.belowPeak",
      value: Math.max(0, heldDbfs - levelDbfs),
      uncertainty: belowPeakUncertainty(playing),
      nominalHz,
    },
    { quantity: "azimuth.treble", value: levelDbfs, uncertainty: wanderDb, nominalHz },
  ]);
}

function phaseReadings({ now }: NonNullable<OnTheBench["numbers"]>, context: LogContext) {
  const { phase, azimuth: view, tones } = now;
  if (!phase) return [];
  const { degrees, uncertaintyDegrees, spreadDegrees, counted } = phase;
  const method = counted
    ? "phase between the channels, cycles counted by the tone ladder"
    : "phase between the channels, cycles not counted";
  const seconds = Math.max(0, ...tones.map(({ pair }) => pair.seconds));
  const known = view?.resolved ? view : null;
  return readingsOfMoment(azimuth, { ...context, nominalHz: TEN_KHZ }, { seconds, method }, [
    { quantity: "azimuth.phase", value: degrees, uncertainty: uncertaintyDegrees },
    { quantity: "azimuth.wander", value: spreadDegrees, uncertainty: 0.1 * spreadDegrees },
    known && {
      quantity: "azimuth.tilt",
      value: known.tiltArcMinutes!,
      uncertainty: Math.abs(
        (known.tiltArcMinutes! * known.delayUncertaintySeconds!) / (known.delaySeconds || 1e-9),
      ),
    },
    known &&
      known.monoSumDbAt10kHz !== null && {
        quantity: "azimuth.monoLoss",
        value: -known.monoSumDbAt10kHz,
        uncertainty: 0.1,
      },
  ]);
}

/** Whether the tone that azimuth is judged at is the one that plays. */
const judgedPlays = ({ playing, azimuth: view }: PlaybackNow): boolean =>
  playing !== null &&
  view !== null &&
  view.tones.length > 0 &&
  judgedTone(view.tones).index === playing.index;

/** What the phase was before the tone that plays began to move. */
function movedBy(now: PlaybackNow): number {
  const { playing } = now;
  return playing?.before && judgedPlays(now)
    ? ((playing.before.phaseDegrees ?? 0) - (playing.phaseDegrees ?? 0)) * (TEN_KHZ / playing.frequencyHz)
    : 0;
}

function belowPeak({ numbers }: OnTheBench): ToSet {
  const playing = numbers?.now.playing ?? null;
  return {
    quantity: "azimuth.belowPeak",
    value: playing && belowPeakDb(playing),
    uncertainty: playing ? belowPeakUncertainty(playing) : 0,
    settled: playing?.settled ?? false,
  };
}

/** Why the screw cannot be told to be turned by what is heard; null where it can, and before anything was. */
function notToTurn(now: PlaybackNow | null, ladder: boolean): { headline: string; reason: string } | null {
  const { tones = [], doubt = null } = now?.azimuth ?? {};
  // tones are heard, though not in both channels
  if (doubt && tones.length > 0 && now?.phase === null)
    return { headline: "look at the input", reason: doubt };
  return now?.phase?.counted === false
    ? {
        headline: ladder ? "play the ladder again" : "cannot be told",
        reason: "Whole cycles are not counted: a turn by this number could go the wrong way.",
      }
    : null;
}

export const azimuth: MeasuringStation<"azimuth", keyof typeof quantities> = {
  id: "azimuth",
  kind: "measure",
  name: "Azimuth",
  group: "playback",
  onRoute: () => true,
  quantities,
  deciding: (machine) => [azimuthByPhase(machine) ? "azimuth.phase" : "azimuth.belowPeak"],
  limitOf: (machine, quantity) =>
    quantity === "azimuth.phase"
      ? phaseLimit(machine)
      : quantity === "azimuth.belowPeak"
        ? TOLERANCE_CLASSES[machine.toleranceClass].belowPeakDb
        : null,
  ownLimits: [{ key: "azimuthDegrees", label: "Own azimuth limit ±, °", most: 360 }],
  corridorOf: () => null,
  // one screw for every tape speed: it is set at one of them
  apartBy: ["side", "channel", "head"],
  circumstances: ["side", "head"],
  adjusters: [{ kind: "turn", says: "turned, sets azimuth", actsOn: ["side", "head"] }],
  hears: {
    what: "reference tape",
    flutter: false,
    role: "azimuth",
    sequence: null,
    follows: null,
    steady: null,
  },
  tapeLacks: ({ tape, here: { machine } }) => {
    const tones = tape.bands.filter(({ kind }) => kind === "tone");
    if (Math.max(0, ...tones.map(({ frequencyHz }) => frequencyHz)) < LEAST_TREBLE_HZ)
      return "has no tone above 4 kHz: azimuth cannot be set by it";
    return azimuthByPhase(machine) && tones.length < 2
      ? "has a single tone: whole cycles cannot be counted"
      : null;
  },
  upsets: ["azimuth", "level", "response", "bias", "record-response", "reduction", "settings"],
  readings: ({ numbers, here: { machine } }) => {
    if (!numbers) return nothingToLog("Nothing of the tape was heard yet: play it.");
    const { playing, phase } = numbers.now;
    if (azimuthByPhase(machine)) {
      if (!phase) return nothingToLog("No tone of the ladder was heard in both channels yet.");
      const readings = (context: LogContext) => phaseReadings(numbers, context);
      return {
        ...onceSettled(phase.settled, readings),
        beforeTurn: (context) =>
          playing?.before
            ? readings(context)
                .filter(({ quantity }) => quantity === "azimuth.phase")
                .map((reading) => ({ ...reading, value: reading.value + movedBy(numbers.now) }))
            : phase.settled
              ? readings(context)
              : null,
      };
    }
    if (!playing) return nothingToLog("Play the treble tone first: the loudest point is sought on it.");
    const readings = (context: LogContext) => peakReadings(playing, context);
    const { before } = playing;
    return {
      ...onceSettled(playing.settled, readings),
      beforeTurn: (context) =>
        before
          ? readings(context)
              .filter(({ quantity }) => quantity === "azimuth.treble")
              .map((reading) => ({
                ...reading,
                value: reading.value + before.levelsDbfs[0] - playing.levelsDbfs[0],
              }))
          : playing.settled
            ? readings(context)
            : null,
    };
  },
  advise: (bench, chosen) => {
    const { machine } = bench.here;
    const limit = phaseLimit(machine);
    if (!azimuthByPhase(machine) || limit === null) return adviseSearch(bench, belowPeak(bench), chosen);
    const now = bench.numbers?.now ?? null;
    const phase = now?.phase ?? null;
    const ladder = bench.tape.bands.filter(({ kind }) => kind === "tone").length > 1;
    return adviseByNumber(
      bench,
      {
        station: azimuth,
        quantity: "azimuth.phase",
        limit,
        live: () =>
          now &&
          phase && {
            value: phase.degrees,
            uncertainty: phase.uncertaintyDegrees,
            settled: phase.settled,
            from: heardFrom(now.playing, judgedPlays(now)),
          },
        restless: ({ uncertainty }) => Math.min(RESTLESS_SHARE * limit, uncertainty),
        hearFirst: "The tones of the ladder come first, from the lowest up.",
        held: () => notToTurn(now, ladder),
      },
      chosen,
    );
  },
  seeksPeak: (machine) => !azimuthByPhase(machine),
  learns: () => [],
  nothingToTurn: "This machine has no azimuth screw written down for this direction and head.",
  setUp: [
    "Play the tones of the tape from the lowest up; then stay on the one at 10 kHz and turn.",
    "Each direction for itself. One channel: the loudest point of a low tone first, then of the treble.",
  ],
  checks: [],
  caution: "A screwdriver near the head: not magnetic, and never across the gap.",
};
