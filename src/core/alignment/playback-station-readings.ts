import type { LogContext } from "./log-reading";
import { azimuthByPhase } from "./limits";
import { azimuthReadings, levelReadings, responseReadings } from "./playback-readings";
import type { Machine, Reading, StationId } from "./records";
import { judgedTone } from "@/core/listen/ladder";
import type { StationReadings } from "./station-readings";
import type { PlaybackNumbers } from "./playback-numbers";

const NOTHING = "Nothing of the tape was heard yet: play it.";

/** What a playback station logs, from what was heard so far. */
export function playbackReadings(
  station: StationId,
  machine: Machine,
  numbers: PlaybackNumbers | null,
): StationReadings {
  if (!numbers) return { toLog: () => NOTHING, afterTurn: () => null, beforeTurn: () => null };
  const one = { azimuth: azimuthStation, level: levelStation }[station as string] ?? responseStation;
  return one(numbers, machine);
}

function azimuthStation({ now }: PlaybackNumbers, machine: Machine): StationReadings {
  const { playing, phase, azimuth } = now;
  const byPhase = azimuthByPhase(machine);
  const settled = byPhase ? phase?.settled : playing?.settled;
  const readings = (context: LogContext) => azimuthReadings(now, machine, context);
  return {
    toLog: (context) => {
      if (byPhase && !phase) return "No tone of the ladder was heard in both channels yet.";
      if (!byPhase && !playing) return "Play the treble tone first: the loudest point is sought on it.";
      return settled ? readings(context) : "Still settling; log when the number is steady.";
    },
    afterTurn: (context) => (settled ? readings(context) : null),
    beforeTurn: (context) => {
      const { before } = playing ?? {};
      if (!playing || !before) return settled ? readings(context) : null;
      const shift = byPhase
        ? azimuth && azimuth.tones.length > 0 && judgedTone(azimuth.tones).index === playing.index
          ? ((before.phaseDegrees ?? 0) - (playing.phaseDegrees ?? 0)) * (10_000 / playing.frequencyHz)
          : 0
        : before.levelsDbfs[0] - playing.levelsDbfs[0];
      return readings(context)
        .filter(({ quantity }) => quantity === "azimuth.phase" || quantity === "azimuth.treble")
        .map((reading) => ({ ...reading, value: reading.value + shift }));
    },
  };
}

function levelStation({ now, level }: PlaybackNumbers): StationReadings {
  const readings = (context: LogContext) =>
    level ? levelReadings(level.numbers, level.tone.pair.seconds, context) : [];
  const { playing } = now;
  return {
    toLog: (context) => {
      if (!level) return "The reference fluxivity band was not heard yet: play it.";
      if (!level.tone.fresh) return "Something was turned since: play the reference fluxivity band again.";
      return readings(context);
    },
    afterTurn: (context) => (level?.tone.fresh ? readings(context) : null),
    beforeTurn: (context) => {
      const before = playing?.index === level?.tone.index ? playing?.before : null;
      if (!before || !playing) return level?.tone.fresh ? readings(context) : null;
      return shifted(readings(context), playing.levelsDbfs, before.levelsDbfs);
    },
  };
}

function responseStation({ now, response }: PlaybackNumbers, machine: Machine): StationReadings {
  const { channels, missing, indexes } = response;
  const { playing } = now;
  const all = (context: LogContext) => responseReadings(response, machine, context);
  /** The equaliser is set by one band: while that plays it shows every turn. */
  const treble = (context: LogContext) =>
    all(context).filter(
      ({ quantity, context: { nominalHz } }) =>
        quantity === "response.treble" &&
        playing &&
        indexes.includes(playing.index) &&
        Math.abs(nominalHz / playing.frequencyHz - 1) < 0.02,
    );
  return {
    toLog: (context) => {
      if (channels.every(({ judged }) => judged.worst === null)) return NOTHING;
      if (missing.length > 0) return `Not heard yet, or not since the last turn: ${missing.join("; ")}.`;
      return all(context);
    },
    afterTurn: (context) => (playing?.settled ? treble(context) : null),
    beforeTurn: (context) =>
      playing?.before
        ? shifted(treble(context), playing.levelsDbfs, playing.before.levelsDbfs)
        : playing?.settled
          ? treble(context)
          : null,
  };
}

/** The readings as they were when the tone that plays stood elsewhere. */
function shifted(readings: Reading[], now: number[], before: number[]): Reading[] {
  const moved = now.map((level, c) => before[c] - level);
  return readings.map((reading) => {
    const { channel } = reading.context;
    const shift =
      reading.quantity === "level.balance" ? moved[0] - (moved[1] ?? 0) : moved[channel === "right" ? 1 : 0];
    return { ...reading, value: reading.value + shift };
  });
}
