import { judgeResponse, type JudgedResponse } from "@/core/judging/judge-response";
import type { Corridor } from "@/core/standards/tolerance-classes";
import { levelTone, playbackLevel, type FullScale, type PlaybackLevel } from "./playback-level";
import type { HeardTone, PlaybackNow } from "./playback-now";
import { isWide } from "./wide-band";
import type { ResponseDoubt, ResponseRun, ResponseSource } from "./response-runs";
import type { ResponsePoint } from "@/core/measure/response";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { type Section, sectionName } from "@/core/programme/programme";
import type { Machine } from "@/core/records/machine";

export interface ResponseOfChannel {
  channel: string;
  points: ResponsePoint[];
  /** Nothing is heard on it, though the other plays. */
  silent: boolean;
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
    /** What the response is read from; null before anything was heard. */
    from: ResponseSource | null;
    /** In which ways it was heard. */
    sources: ResponseSource[];
    referenceHz: number | null;
    channels: ResponseOfChannel[];
    /** Places on the tape of the bands that the response is read from. */
    indexes: number[];
    /** Bands inside the corridor that were not heard since the last turn, and channels that are silent. */
    missing: string[];
    /** What makes it doubtful; that a machine of one channel leaves the other silent does not. */
    doubts: ResponseDoubt[];
  };
}

const SPARE = 1.01;
/** A certified frequency may be so far off the one that the band is named by. */
const SAME_BAND = 0.02;

/** The bands that make a whole response on a tape: those of that role, or every tone. */
export function bandsForResponse<T extends Section>(bands: T[]): T[] {
  const tones = bands.filter(({ kind }) => kind === "tone");
  const meant = tones.filter(({ role }) => role === "response");
  return meant.length > 0 ? meant : tones;
}

/** Fewer bands say nothing of a response. */
const FEWEST_BANDS = 4;

/** Whether a tape tells a response at all. */
export const tellsResponse = ({ bands }: ReferenceTape): boolean =>
  bandsForResponse(bands).length >= FEWEST_BANDS || bands.some(isWide);

/**
 * @param corridor what the response has to stay within
 * @param fullScale level in dBu of a full-scale sine of the source; null when it is not known
 * @param wanted what the response is to be read from; what was heard last when that is null or was not heard
 */
export function playbackNumbers(
  { tape, machine, corridor }: { tape: ReferenceTape; machine: Machine; corridor: Corridor },
  now: PlaybackNow,
  fullScale: FullScale | null,
  wanted: ResponseSource | null = null,
): PlaybackNumbers {
  const tone = levelTone(
    now.tones.filter(({ index }) => index >= 0),
    tape,
  );
  const mono = machine.channels === 1;
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
    response: responseNumbers(tape, machine.channels === 1, corridor, now, wanted),
  };
}

/** What all are relative to is 0 dB by definition: by itself it is no response. */
function isReferenceAlone({ channels, referenceHz }: ResponseRun): boolean {
  const points = channels.flatMap((one) => one.points);
  return (
    points.length > 0 &&
    points.every(({ frequencyHz }) => Math.abs(frequencyHz / referenceHz - 1) < SAME_BAND)
  );
}

function responseNumbers(
  tape: ReferenceTape,
  mono: boolean,
  corridor: Corridor,
  now: PlaybackNow,
  wanted: ResponseSource | null,
): PlaybackNumbers["response"] {
  const meant = bandsForResponse(tape.bands);
  const heard = now.tones.filter(({ index }) => meant.includes(tape.bands[index]));
  const lastHeard = ({ from, endSeconds }: ResponseRun) =>
    from === "bands" ? Math.max(-1, ...heard.map((one) => one.endSeconds)) : endSeconds;
  const runs = now.responses.filter((run) => !isReferenceAlone(run));
  const latest = runs.toSorted((a, b) => lastHeard(b) - lastHeard(a)).at(0) ?? null;
  const run = runs.find(({ from }) => from === wanted) ?? latest;
  const freshBands = heard.filter(({ fresh }) => fresh).map(({ index }) => tape.bands[index]);
  const isFresh = (point: ResponsePoint | null) =>
    point !== null &&
    (run?.from === "bands"
      ? freshBands.some(({ frequencyHz }) => Math.abs(frequencyHz / point.frequencyHz - 1) < SAME_BAND)
      : (run?.fresh ?? false));
  const wantedBands = meant.filter(
    ({ frequencyHz }) => frequencyHz >= corridor.fromHz / SPARE && frequencyHz <= corridor.toHz * SPARE,
  );
  const channels = (run?.channels ?? []).slice(0, mono ? 1 : 2);
  const isHeard = channels.some(({ points }) => points.length > 0);
  const isSilent = ({ points }: (typeof channels)[number]) => isHeard && points.length === 0;
  return {
    from: run?.from ?? null,
    sources: runs.map(({ from }) => from),
    referenceHz: run?.referenceHz ?? null,
    channels: channels.map((one) => {
      const judged = judgeResponse(one.points, corridor);
      return {
        channel: mono ? "both" : one.channel,
        points: one.points,
        silent: isSilent(one),
        judged,
        trebleFresh: isFresh(judged.treble),
      };
    }),
    doubts: (run?.doubts ?? []).filter((doubt) => !(mono && doubt.kind === "dead" && doubt.channel > 0)),
    indexes: run && run.from !== "bands" ? [] : meant.map((band) => tape.bands.indexOf(band)),
    missing: [
      ...channels.filter(isSilent).map(({ channel }) => `the ${channel} channel, which is silent`),
      ...(run === null || run.from === "bands"
        ? wantedBands.filter((band) => !freshBands.includes(band)).map(sectionName)
        : run.whole && run.fresh
          ? []
          : [run.from === "sweep" ? "the sweep to its end" : "more of the noise"]),
    ],
  };
}
