import { channelName } from "@/core/measure/channel-name";
import { responseOf, type HeardBand, type ResponsePoint } from "@/core/measure/response";
import { levelTogether, type WideLevel } from "@/core/measure/wide-levels";
import { timeConstants, type ReferenceTape } from "@/core/reference/reference-tape";
import { type Section, certifiedFrequencyHz } from "@/core/programme/programme";
import { hertzText } from "@/core/text/number-text";
import type { TimeConstants } from "@/core/standards/equalisation";
import { isDead } from "./dead-channel";
import type { ToneBand } from "./heard-bands";
import type { WideBand } from "./wide-band";

export type ResponseSource = "bands" | "sweep" | "noise";

/** Why a response may be another: a channel plays nothing, a band is clipped, a level was turned, or does not stand. */
export type ResponseDoubt = { says: string } & (
  { kind: "dead"; channel: number } | { kind: "clipped" | "turned" | "restless" }
);

/** A response as it was read in one way. */
export interface ResponseRun {
  from: ResponseSource;
  /** Frequency at which it is 0 dB by definition. */
  referenceHz: number;
  channels: Array<{ channel: string; points: ResponsePoint[] }>;
  /** What makes it doubtful. */
  doubts: ResponseDoubt[];
  /** When the last of it was heard. */
  endSeconds: number;
  /** Of a sweep or noise: it was heard to its end, and nothing was turned since it began. */
  whole: boolean;
  fresh: boolean;
}

/** Middle of what references are taken at where a tape says nothing else. */
const USUAL_REFERENCE_HZ = 400;
/** Shorter waves than this are beyond any tape: what a sweep or noise gives there is hiss. */
const SHORTEST_MICROMETRES = 3;
/** Chance makes one band of noise a poor reference: those within half an octave together are a better one. */
const NOISE_REFERENCE_OCTAVES = 0.5;

/**
 * The response of each channel re the tape's reference band, in every way that it was heard: from tone bands, along a
 * sweep, from noise. Of noise only the shape is known, so it is relative to its own level around the reference.
 */
export function responseRuns(
  tones: PerhapsOld[],
  wide: WideBand[],
  tape: ReferenceTape,
  machine: TimeConstants,
): ResponseRun[] {
  const equalisation = { tape: timeConstants(tape.equalisation, tape.speedCmPerS), machine };
  const chosen = responseBands(tones);
  const fromBands: ResponseRun[] = [];
  if (chosen) {
    const { reference, points } = chosen;
    const count = reference.pair.channels.length;
    const turnedDb = twiceHeard(tones, reference);
    fromBands.push({
      from: "bands",
      referenceHz: reference.band.frequencyHz,
      channels: Array.from({ length: count }, (_, c) => ({
        channel: channelName(c, count),
        points: isDead(reference.pair.channels, c)
          ? []
          : responseOf(
              points.map((band) => heardBand(band, c, turnedDb)),
              heardBand(reference, c, turnedDb),
              equalisation,
            ),
      })),
      doubts: doubtsOf(reference, points, turnedDb),
      endSeconds: Math.max(...points.map(({ endSeconds }) => endSeconds)),
      whole: true,
      fresh: true,
    });
  }
  const highestHz = (tape.speedCmPerS * 1e4) / SHORTEST_MICROMETRES;
  const fromWide = wide
    .map(({ levels, ...band }) => ({
      ...band,
      levels: levels.map((channel) => channel.filter(({ frequencyHz }) => frequencyHz <= highestHz)),
    }))
    .filter(({ levels: [first] }) => first !== undefined && first.length > 0)
    .map(({ band, levels, clipped, endSeconds, whole, fresh }): ResponseRun => {
      const isNoise = band.kind === "noise";
      const own = chosen && !isNoise ? chosen.reference : null;
      const meant = tape.bands.find(({ kind, role }) => kind === "tone" && role === "level")?.frequencyHz;
      const wantedHz = own?.band.frequencyHz ?? meant ?? USUAL_REFERENCE_HZ;
      const points = levels.map((channel, c) => channel.map((level) => wideBand(level, band, c, clipped)));
      const referenceHz = own?.band.frequencyHz ?? nearestTo(wantedHz, points[0]).frequencyHz;
      const plays = isNoise ? reLoudest(levels) : points.map((channel) => nearestTo(wantedHz, channel));
      const isGone = (c: number) => isDead(plays, c) || (own !== null && isDead(own.pair.channels, c));
      return {
        from: isNoise ? "noise" : "sweep",
        referenceHz,
        channels: points.map((channel, c) => ({
          channel: channelName(c, points.length),
          points: isGone(c)
            ? []
            : responseOf(
                channel,
                own
                  ? heardBand(own, c, 0)
                  : isNoise
                    ? meanAround(referenceHz, channel)
                    : nearestTo(wantedHz, channel),
                equalisation,
              ),
        })),
        doubts: [
          ...deadDoubts(plays.length, isGone),
          ...clippedDoubts([
            ...(own && isClipped(own) ? [hertzOf(own)] : []),
            ...(clipped ? [isNoise ? "the noise" : "the sweep"] : []),
          ]),
        ],
        endSeconds,
        whole,
        fresh,
      };
    });
  return [...fromBands, ...fromWide];
}

/** A band of this frequency, more or less, stands for the reference band. */
const SAME_FREQUENCY = 0.03;

/**
 * The bands that a response is read from, and the one that it is relative to; null when none was heard. A reference band
 * from before something was turned gives way to one of its frequency that was heard since.
 */
function responseBands(bands: PerhapsOld[]): { reference: ToneBand; points: ToneBand[] } | null {
  const of = (role: string) => bands.filter(({ band }) => band.role === role);
  const points = of("response").length > 0 ? of("response") : bands;
  const off = ({ band }: ToneBand) => Math.abs(Math.log(band.frequencyHz / USUAL_REFERENCE_HZ));
  const middle = points.toSorted((a, b) => off(a) - off(b)).at(0);
  const level = of("level").at(0);
  const since =
    level?.fresh === false
      ? points.find(
          ({ band, fresh }) =>
            fresh && Math.abs(band.frequencyHz / level.band.frequencyHz - 1) < SAME_FREQUENCY,
        )
      : undefined;
  const reference = since ?? level ?? middle;
  return reference ? { reference, points } : null;
}

/** Of a live source it is known whether something was turned since. */
type PerhapsOld = ToneBand & { fresh?: boolean };

/** What the tape says of a band in one channel. */
const saidOf = (band: Section, channel: number) => ({
  bandLevelDb: band.levelDb,
  correctionDb: (channel === 0 ? band.correctionDb?.left : band.correctionDb?.right) ?? 0,
  correctionUncertaintyDb: band.correctionUncertaintyDb ?? 0,
  fringingDb: band.fringingDb ?? 0,
});

/** Levels of one band that differ by more were not heard at one setting, dB. */
const SAME_SETTING_DB = 0.7;

/** By how much two bands of one frequency differ, less what the tape says, where that is more than it should, dB. */
function twiceHeard(tones: PerhapsOld[], reference: ToneBand): number {
  const { channels } = reference.pair;
  const fresh = tones.filter((tone) => tone.fresh !== false);
  const re = ({ band, pair }: ToneBand) => pair.channels.map(({ levelDbfs }) => levelDbfs - band.levelDb);
  let most = 0;
  fresh.forEach((one, i) => {
    for (const other of fresh.slice(i + 1))
      if (Math.abs(one.band.frequencyHz / other.band.frequencyHz - 1) < SAME_FREQUENCY)
        re(one).forEach((level, c) => {
          if (!isDead(channels, c)) most = Math.max(most, Math.abs(level - re(other)[c]));
        });
  });
  return most > SAME_SETTING_DB ? most : 0;
}

/** So much a level moves while one band plays before somebody asks why. */
const RESTLESS_DB = 0.7;

function doubtsOf(reference: ToneBand, points: ToneBand[], turnedDb: number): ResponseDoubt[] {
  const { channels } = reference.pair;
  // the noise of a channel that plays nothing is never steady
  const restless = points.filter(({ pair }) =>
    pair.channels.some(({ spreadDb }, c) => spreadDb > RESTLESS_DB && !isDead(channels, c)),
  );
  return [
    ...deadDoubts(channels.length, (c) => isDead(channels, c)),
    ...clippedDoubts([reference, ...points].filter(isClipped).map(hertzOf)),
    turnedDb > 0 && {
      kind: "turned" as const,
      says: `A frequency that comes twice on the tape was heard ${turnedDb.toFixed(1)} dB apart: a level was turned between, or an automatic level control is at work.`,
    },
    restless.length > 0 && {
      kind: "restless" as const,
      says: `The level moves while ${[...new Set(restless.map(hertzOf))].join(", ")} plays: hum or another tone beside it, a contact, or an automatic level control.`,
    },
  ].filter((doubt) => doubt !== false);
}

const hertzOf = ({ band }: ToneBand): string => hertzText(band.frequencyHz);
const isClipped = ({ pair }: ToneBand): boolean => pair.channels.some(({ clipped }) => clipped);

const deadDoubts = (count: number, isGone: (channel: number) => boolean): ResponseDoubt[] =>
  Array.from({ length: count }, (_, c) => c)
    .filter(isGone)
    .map((channel) => ({
      kind: "dead",
      channel,
      says: `${channelName(channel, count)}: silent, or far weaker than the other channel; nothing is measured on it.`,
    }));

/** @param what what is clipped, in words; nothing where it is empty */
const clippedDoubts = (what: readonly string[]): ResponseDoubt[] =>
  what.length === 0
    ? []
    : [
        {
          kind: "clipped",
          says: `Clipped: ${[...new Set(what)].join(", ")}. Its level is higher than what arrives; lower the input level and play it again.`,
        },
      ];

/** Levels of noise are known re each other only: the louder channel plays. */
function reLoudest(levels: readonly WideLevel[][]): Array<{ levelDbfs: number }> {
  const all = levels.map(levelTogether);
  return all.map((levelDb) => ({ levelDbfs: levelDb - Math.max(...all) }));
}

/** Nobody knows how much of a clipped level is missing, dB. */
const CLIPPED_DB = 6;
/** A tone beside it, or hum, that makes the level beat by s dB raises its mean by about this times s², dB. */
const BEATS_RAISE = 0.12;

/** @param turnedDb what its level may have been turned by between the bands */
function heardBand(
  { band, pair }: Pick<ToneBand, "band" | "pair">,
  channel: number,
  turnedDb: number,
): HeardBand {
  const { levelDbfs, spreadDb, uncertaintyDb, clipped } = pair.channels[channel];
  return {
    frequencyHz: certifiedFrequencyHz(band),
    levelDbfs,
    spreadDb,
    uncertaintyDb:
      Math.hypot(uncertaintyDb, turnedDb, clipped ? CLIPPED_DB : 0) +
      BEATS_RAISE * spreadDb * spreadDb +
      (pair.leftOverDb?.[channel] ?? 0),
    ...saidOf(band, channel),
  };
}

const wideBand = (level: WideLevel, band: Section, channel: number, clipped: boolean): HeardBand => ({
  frequencyHz: level.frequencyHz,
  levelDbfs: level.levelDb,
  spreadDb: level.spreadDb,
  uncertaintyDb: Math.hypot(level.uncertaintyDb, clipped ? CLIPPED_DB : 0),
  ...saidOf(band, channel),
});

const nearestTo = (hz: number, points: HeardBand[]): HeardBand =>
  points.reduce((a, b) =>
    Math.abs(Math.log(b.frequencyHz / hz)) < Math.abs(Math.log(a.frequencyHz / hz)) ? b : a,
  );

/** The points around a frequency as one, weighed by how well each is known. */
function meanAround(hz: number, points: HeardBand[]): HeardBand {
  const near = points.filter(
    ({ frequencyHz }) => Math.abs(Math.log2(frequencyHz / hz)) <= NOISE_REFERENCE_OCTAVES,
  );
  const weights = near.map(({ uncertaintyDb }) => 1 / uncertaintyDb ** 2);
  const total = weights.reduce((a, b) => a + b, 0);
  const mean = (of: (point: HeardBand) => number) =>
    near.reduce((sum, point, i) => sum + weights[i] * of(point), 0) / total;
  return {
    ...nearestTo(hz, points),
    levelDbfs: mean(({ levelDbfs }) => levelDbfs),
    uncertaintyDb: 1 / Math.sqrt(total),
  };
}
