import type { BlankTape } from "@/core/records/blank-tape";
import { formulaOf } from "./blank-formula";
import { Tape } from "@/core/simulator/tape";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { SequenceRenderer } from "@/core/signals/render-sequence";
import type { Sequence } from "@/core/signals/sequence";
import type { RecordInput } from "@/core/simulator/practice-deck";

/** A reference tape as it lies in the practice machine: its flux is written from its bands, on both sides. */
export function practiceTape(tape: ReferenceTape): Tape {
  const { id, name, speedCmPerS, equalisation, bands } = tape;
  return new Tape({ id, name, speedCmPerS, ...timeConstants(equalisation, speedCmPerS), bands });
}

/** Three minutes a side, long enough for every preset that is recorded at a station. */
export const BLANK_SECONDS = 180;

interface BlankOptions {
  /** Which blank tape of the library it is; an ordinary one of the machine's kind when left out. */
  blank?: BlankTape | null;
  equalisation?: string;
  seconds?: number;
}

/** The blank tape of the library that a tape of the practice machine is; null for an ordinary one. */
export const blankIdOf = (tapeId: string): string | null => /^blank-[\d.]+-(.+)$/.exec(tapeId)?.[1] ?? null;

export const blankTape = (
  speedCmPerS: number,
  { blank, equalisation, seconds = BLANK_SECONDS }: BlankOptions = {},
): Tape =>
  new Tape({
    id: `blank-${speedCmPerS}${blank ? `-${blank.id}` : ""}`,
    name: blank?.name ?? "blank tape",
    speedCmPerS,
    ...timeConstants(equalisation, speedCmPerS),
    bands: [],
    ...(blank && { formula: formulaOf(blank) }),
    seconds,
  });

/** Away from where a tone swells and fades; no block is longer. */
const EDGE_SECONDS = 1;

/**
 * Steady tones alone are sent for as long as somebody records, as a generator would: towards a second near their end they go
 * on from so many whole seconds before, which hold whole cycles. Null for a sequence that has an end.
 */
function goesOn({ marked, leaderSeconds, segments: [tone, ...more] }: Sequence) {
  if (marked || more.length > 0 || (tone.kind !== "sine" && tone.kind !== "two-tone")) return null;
  const tones = tone.kind === "sine" ? [tone.frequencyHz] : [tone.frequencyHz, tone.secondHz];
  const backSeconds = Math.floor(tone.seconds - 3 * EDGE_SECONDS);
  if (backSeconds <= 0 || !tones.every(Number.isInteger)) return null;
  return { backSeconds, lastSeconds: leaderSeconds + tone.seconds - EDGE_SECONDS };
}

/**
 * A test sequence from its start, or from a second of it, as the input of a deck that records, silence after its end; steady
 * tones alone have none.
 */
export function sequenceInput(sequence: Sequence, sampleRateHz: number, fromSeconds = 0): RecordInput {
  const renderer = new SequenceRenderer(sequence, sampleRateHz);
  const steady = goesOn(sequence);
  let at = Math.round(fromSeconds * sampleRateHz);
  return (frames) => {
    if (steady)
      while (at + frames > steady.lastSeconds * sampleRateHz) at -= steady.backSeconds * sampleRateHz;
    const block = renderer.block(at, frames);
    at += frames;
    return block;
  };
}
