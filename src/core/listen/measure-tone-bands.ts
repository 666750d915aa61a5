import type { SoundFile } from "@/core/formats/sound-file";
import type { HeardBand } from "@/core/measure/response";
import { TonePairMeter, type TonePair } from "@/core/measure/tone-pair";
import { BandEar } from "@/core/reference/band-ear";
import { certifiedFrequencyHz, type Band, type ReferenceTape } from "@/core/reference/reference-tape";

/** A tone band of a tape as it was heard. */
export interface ToneBand {
  /** Its place on the tape, from 0. */
  index: number;
  band: Band;
  startSeconds: number;
  endSeconds: number;
  pair: TonePair;
}

export interface ToneBands {
  bands: ToneBand[];
  /** Speed of the tape relative to right; 1 when no tone tells. */
  speedRatio: number;
  warnings: string[];
}

/** Left out at both ends: the edges of bands are not steady. */
const EDGE_SECONDS = 0.2;
/** More of a long band is not needed. */
const MOST_SECONDS = 60;

/**
 * Levels and phase of every tone band that a recording of a reference tape holds, two channels or one. Reads the
 * recording twice, a block at a time: once to recognise the bands, once to measure them.
 */
export async function measureToneBands(sound: SoundFile, tape: ReferenceTape): Promise<ToneBands> {
  const ear = new BandEar(sound.sampleRateHz, sound.channelCount);
  for await (const block of sound.blocks()) ear.push(block);
  ear.finish();
  const { bands: heard, speedRatio, doubt } = ear.recognise(tape);
  const rate = sound.sampleRateHz;
  const meters = heard
    .filter(({ index }) => tape.bands[index].kind === "tone" && tape.bands[index].frequencyHz < 0.44 * rate)
    .map((found) => ({
      ...found,
      band: tape.bands[found.index],
      from: Math.round((found.startSeconds + EDGE_SECONDS) * rate),
      to: Math.round(
        Math.min(found.endSeconds - EDGE_SECONDS, found.startSeconds + EDGE_SECONDS + MOST_SECONDS) * rate,
      ),
      meter: new TonePairMeter(rate, sound.channelCount, found.frequencyHz),
    }));
  let at = 0;
  for await (const block of sound.blocks()) {
    const end = at + block[0].length;
    for (const { from, to, meter } of meters)
      if (from < end && to > at)
        meter.push(block.map((x) => x.subarray(Math.max(0, from - at), Math.min(to, end) - at)));
    at = end;
  }
  const bands = meters.flatMap(({ index, band, startSeconds, endSeconds, meter }) => {
    const pair = meter.result();
    return pair ? [{ index, band, startSeconds, endSeconds, pair }] : [];
  });
  const warnings = [
    ...(doubt ? [doubt] : []),
    ...(bands.length === 0 ? [`No tone of ${tape.name} was heard.`] : []),
  ];
  return { bands, speedRatio: speedRatio ?? 1, warnings };
}

/** A band in one channel, with what the tape says of it. */
export function heardBand({ band, pair }: Pick<ToneBand, "band" | "pair">, channel: number): HeardBand {
  const { levelDbfs, spreadDb } = pair.channels[channel];
  return {
    frequencyHz: certifiedFrequencyHz(band),
    levelDbfs,
    spreadDb,
    bandLevelDb: band.levelDb,
    correctionDb: (channel === 0 ? band.correctionDb?.left : band.correctionDb?.right) ?? 0,
    correctionUncertaintyDb: band.correctionUncertaintyDb ?? 0,
    fringingDb: band.fringingDb ?? 0,
  };
}

/** The bands that a response is read from, and the one that it is relative to; null when none was heard. */
export function responseBands(bands: ToneBand[]): { reference: ToneBand; points: ToneBand[] } | null {
  const of = (role: string) => bands.filter(({ band }) => band.role === role);
  const points = of("response").length > 0 ? of("response") : bands;
  const middle = (a: ToneBand, b: ToneBand) =>
    Math.abs(Math.log(a.band.frequencyHz / 400)) - Math.abs(Math.log(b.band.frequencyHz / 400));
  const reference = of("level").at(0) ?? points.toSorted(middle).at(0);
  return reference ? { reference, points } : null;
}
