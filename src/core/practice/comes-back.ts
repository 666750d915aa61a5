import type { BlankTape } from "@/core/records/blank-tape";
import type { Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { slotOf } from "@/core/simulator/practice-slots";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { blankTape, sequenceInput } from "./practice-tape";

interface Recording {
  parameters: TransportParameters;
  seed: number;
  sampleRateHz: number;
  sequence: Sequence;
  blank: BlankTape | null;
  /** Where the bias trimmers of both channels stand at each pass; where they stood when empty. */
  turns: readonly number[];
}

/** Played a little longer than the sequence, in case the deck runs slow. */
const LONGER = 1.06;
const BLOCK_SECONDS = 0.1;

/** A sequence recorded on a blank tape by a practice machine, rewound, and ready to be played. */
export function comesBack({ parameters, seed, sampleRateHz, sequence, blank, turns }: Recording): {
  frames: number;
  render(frames: number): [Float64Array, Float64Array];
} {
  const { parts, seconds } = timelineOf(sequence);
  const tape = blankTape(parameters.speedCmPerS, {
    blank,
    equalisation: equalisationOf(parameters),
    seconds: 1.2 * seconds + 10,
  });
  const deck = new PracticeDeck({ parameters, seed, sampleRateHz, tape });
  const bias = (["left", "right"] as const).map((channel) => {
    const adjuster = { id: channel, sets: "bias", kind: "turn" as const, channel };
    return deck.trimmers[slotOf(adjuster, [adjuster])!];
  });
  deck.setInput(sequenceInput(sequence, sampleRateHz));
  deck.press("record");
  const block = Math.round(BLOCK_SECONDS * sampleRateHz);
  for (let at = 0; at < 1.02 * seconds * sampleRateHz; at += block) {
    // what is turned is turned between the passes
    const { pass } = parts.findLast(({ startSeconds }) => startSeconds * sampleRateHz < at + 2 * block) ?? {
      pass: 1,
    };
    const wanted = turns.at(pass - 1);
    if (wanted !== undefined) for (const trimmer of bias) trimmer.turn(wanted - trimmer.slotTurns);
    deck.render(block);
  }
  deck.press("rewind");
  while (deck.status.positionSeconds > 0) deck.render(block);
  deck.press("play");
  return { frames: Math.round(LONGER * seconds * sampleRateHz), render: (frames) => deck.render(frames) };
}

/** The equalisation that a machine plays with is the one that it records with. */
export const equalisationOf = (p: TransportParameters): string =>
  `${p["playback.t1Microseconds"] || "∞"}/${p["playback.t2Microseconds"]}`;
