import "./without-eval";
import { bytesOfBlob } from "@/core/formats/blob-bytes";
import { openSound } from "@/core/formats/open-sound";
import { humSpeedOf, type HumSpeed } from "@/core/measure/hum-speed";
import { listeningPair, type HeardSound, type ListeningPair } from "@/core/measure/listening-pair";
import { matchRecordings, MatchSound, type MatchResult } from "@/core/measure/match/match-recordings";
import { tuningOf, type Tuning } from "@/core/measure/tuning";
import { serve } from "./serve";

/** Recordings held against each other, or against what is known of music and mains. All reject with a sentence for a file that cannot be read. */
export interface ComparisonApi {
  match(recording: File, against: File): Promise<MatchResult>;
  tuning(recording: File, concertHz: number): Promise<Tuning>;
  hum(recording: File, mainsHz: 50 | 60): Promise<HumSpeed>;
  /** How two sounds are played against each other. */
  pair(a: HeardSound, b: HeardSound): Promise<ListeningPair>;
}

async function heard(file: File): Promise<MatchSound> {
  try {
    const sound = await openSound(bytesOfBlob(file));
    const kept = new MatchSound(sound.sampleRateHz);
    for await (const block of sound.blocks()) kept.push(block);
    return kept;
  } catch (error) {
    throw new Error(`${file.name}: ${(error as Error).message}`);
  }
}

const api: ComparisonApi = {
  async match(recording, against) {
    return matchRecordings(await heard(recording), await heard(against));
  },
  async tuning(recording, concertHz) {
    const sound = await heard(recording);
    return tuningOf(sound.samples, sound.rateHz, concertHz);
  },
  async hum(recording, mainsHz) {
    const sound = await heard(recording);
    return humSpeedOf(sound.samples, sound.rateHz, mainsHz);
  },
  pair: async (a, b) => listeningPair(a, b),
};

serve(api);
