import { judgeResponse, type JudgedResponse } from "./judge-response";
import { corridorOf } from "./limits";
import { levelTone, playbackLevel, type FullScale, type PlaybackLevel } from "./playback-level";
import type { HeardTone, PlaybackNow } from "@/core/listen/playback-now";
import type { ResponsePoint } from "@/core/measure/response";
import { bandName, type Band, type ReferenceTape } from "@/core/reference/reference-tape";
import type { Machine } from "./records";

export interface ResponseOfChannel {
  channel: string;
  points: ResponsePoint[];
  judged: JudgedResponse<ResponsePoint>;
  /** Whether the band that the equaliser is set by was heard since the last turn. */
  trebleFresh: boolean;
}

/** What the tones that were heard say at the playback stations. */
export interface PlaybackNumbers {
  now: PlaybackNow;
  /** The reference fluxivity band; null before it was heard. */
  level: { tone: HeardTone; numbers: PlaybackLevel } | null;
  response: {
    referenceHz: number | null;
    channels: ResponseOfChannel[];
    /** Places on the tape of the bands that the response is read from. */
    indexes: number[];
    /** Bands inside the corridor that were not heard since the last turn. */
    missing: string[];
  };
}

const SPARE = 1.01;
/** A certified frequency may be so far off the one that the band is named by. */
const SAME_BAND = 0.02;

/** The bands that make a whole response on a tape: those of that role, or every tone. */
export function bandsForResponse(bands: Band[]): Band[] {
  const tones = bands.filter(({ kind }) => kind === "tone");
  const meant = tones.filter(({ role }) => role === "response");
  return meant.length > 0 ? meant : tones;
}

/** @param fullScale level in dBu of a full-scale sine of the source; null when it is not known */
export function playbackNumbers(
  { tape, machine }: { tape: ReferenceTape; machine: Machine },
  now: PlaybackNow,
  fullScale: FullScale | null,
): PlaybackNumbers {
  const corridor = corridorOf(machine);
  const tone = levelTone(
    now.tones.filter(({ index }) => index >= 0),
    tape,
  );
  const mono = machine.channels === 1;
  const meant = bandsForResponse(tape.bands);
  const freshIndexes = now.tones.filter((one) => one.fresh).map(({ index }) => index);
  const isFresh = (point: ResponsePoint | null) =>
    point !== null &&
    freshIndexes.some((index) => {
      const band = tape.bands[index];
      return band && meant.includes(band) && Math.abs(band.frequencyHz / point.frequencyHz - 1) < SAME_BAND;
    });
  const wanted = meant.filter(
    ({ frequencyHz }) => frequencyHz >= corridor.fromHz / SPARE && frequencyHz <= corridor.toHz * SPARE,
  );
  const fresh = now.tones.filter((one) => one.fresh).map(({ index }) => tape.bands[index]);
  return {
    now,
    level: tone && {
      tone,
      numbers: playbackLevel(
        mono ? { ...tone, pair: { ...tone.pair, channels: tone.pair.channels.slice(0, 1) } } : tone,
        tape,
        machine,
        fullScale,
      ),
    },
    response: {
      referenceHz: now.response.referenceHz,
      channels: now.response.channels.slice(0, mono ? 1 : 2).map(({ channel, points }) => {
        const judged = judgeResponse(points, corridor);
        return { channel: mono ? "both" : channel, points, judged, trebleFresh: isFresh(judged.treble) };
      }),
      indexes: meant.map((band) => tape.bands.indexOf(band)),
      missing: wanted.filter((band) => !fresh.includes(band)).map(bandName),
    },
  };
}
