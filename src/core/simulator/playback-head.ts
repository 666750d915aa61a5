import { amplitudeOf } from "@/core/dsp/decibels";
import { azimuthDelay } from "./playback-gain";
import type { PlaybackSide } from "./playback-side";
import { silentStereo, type Stereo } from "./stereo";
import type { Tape, TapeSide } from "./tape";
import type { TransportParameters } from "./transport-parameters";

/** What comes from beside and is fainter is not there. */
const LEAST_HEARD_DB = -100;
const FARTHER_DB = 15;

/** A pair of tracks of a tape, and whether it runs backwards past the head. */
export interface Tracks {
  tape: Tape;
  side: 0 | 1;
  reverse: boolean;
}

/** The head that reads: how far apart in time its gaps read, and what comes in from the tracks beside. */
export class PlaybackHead {
  constructor(
    private readonly parameters: TransportParameters,
    private readonly playback: PlaybackSide,
    private readonly sampleRateHz: number,
  ) {}

  /** What it picks up over places of the side it reads, seconds, one for each sample. */
  read({ tape, side, reverse }: Tracks, places: Float64Array): Stereo {
    const { parameters: p, playback } = this;
    const ratio = p.speedCmPerS / tape.speedCmPerS;
    const delay = () => azimuthDelay(p, playback.wovenArcMinutes(reverse)) * ratio;
    const from = delay();
    playback.pass(places.length / this.sampleRateHz);
    const picked = silentStereo(places.length);
    readInto(tape.sides[side], 0, places, 0, 0, picked[0]);
    readInto(tape.sides[side], 1, places, from, delay(), picked[1]);
    this.addOtherSide(tape, side, places, picked);
    this.addEachOther(picked);
    return picked;
  }

  /** Tracks of the other direction that the head stands over beside its own: they run backwards. */
  private addOtherSide(tape: Tape, side: 0 | 1, places: Float64Array, [left, right]: Stereo): void {
    const db = this.parameters["head.otherSideDb"];
    const other = tape.sides[side === 0 ? 1 : 0];
    if (db < LEAST_HEARD_DB || other.isEmpty) return;
    // the right tracks are next to each other in the middle of the tape
    const near = amplitudeOf(db);
    const far = amplitudeOf(db - FARTHER_DB);
    const theirs = places.map((place) => tape.seconds - place);
    const heard = new Float64Array(places.length);
    other.readMany(1, theirs, heard);
    for (let i = 0; i < heard.length; i++) right[i] += near * heard[i];
    other.readMany(0, theirs, heard);
    for (let i = 0; i < heard.length; i++) left[i] += far * heard[i];
  }

  /** Each channel in the other. */
  private addEachOther([left, right]: Stereo): void {
    const db = this.parameters["head.crosstalkDb"];
    if (db < LEAST_HEARD_DB) return;
    const across = amplitudeOf(db);
    for (let i = 0; i < left.length; i++) {
      const l = left[i];
      const r = right[i];
      left[i] += across * r;
      right[i] += across * l;
    }
  }
}

/** Reads a track so many seconds late, the lateness going evenly from one value to the other. */
function readInto(
  side: TapeSide,
  track: 0 | 1,
  places: Float64Array,
  laterFrom: number,
  laterTo: number,
  out: Float64Array,
): void {
  const step = (laterTo - laterFrom) / places.length;
  const late = new Float64Array(places.length);
  for (let i = 0; i < late.length; i++) late[i] = places[i] - laterFrom - i * step;
  side.readMany(track, late, out);
}
