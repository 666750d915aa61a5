import { powerDb } from "@/core/dsp/decibels";
import { resonanceDb } from "@/core/workshop/head-load";
import {
  azimuthLossDb,
  gapLossDb,
  gapNullMicrometres,
  spacingLossDb,
  wavelengthMicrometres,
} from "@/core/workshop/tape-losses";
import type { TimeConstants } from "@/core/standards/equalisation";

/** What the curve was taken on. */
export interface CurveContext {
  speedCmPerS: number;
  equalisation: TimeConstants;
  lowestHz: number;
  highestHz: number;
  /** Where the level is 0 dB by definition; undefined when that was not said. */
  referenceHz?: number;
  /** Azimuth was measured by phase and is right, so it is no cause of a bent curve. */
  azimuthKnown?: boolean;
}

export interface CauseParameter {
  name: string;
  from: number;
  to: number;
  /** Steps of equal ratio instead of equal size. */
  logarithmic: boolean;
}

/** A physical reason for the shape of a response, with what has to be found out about it. */
export interface ResponseCause {
  id: string;
  /** As in "It looks like …". */
  name: string;
  parameters: CauseParameter[];
  /** Gain in dB at a frequency, parameters in their own units. */
  gainDb(values: number[], frequencyHz: number): number;
  /** How much it is, in a few words. */
  amount(values: number[]): string;
  /** What to try, cheapest and most reversible first. */
  tryFirst: string;
  /** What tells it from others that bend the curve alike; lower orders are cheaper and easier to take back. */
  toldBy: { order: number; what: string };
  /** How much less often it is met than the others, in units of χ²; 0 for the usual ones. */
  rarity: number;
}

const shelfDb = (hz: number, microseconds: number) =>
  powerDb(1 + (2 * Math.PI * hz * microseconds * 1e-6) ** 2);
const bassDb = (hz: number, microseconds: number) =>
  microseconds === 0 ? 0 : powerDb(1 + 1 / (2 * Math.PI * hz * microseconds * 1e-6) ** 2);

/** Below this the bumps of the head's pole pieces are looked for. */
const BUMPS_BELOW_HZ = 300;
const WIDTH_OF_TRACK_MM = { cassette: 0.6, reel: 2.1 };
const REEL_FROM_CM_PER_S = 7;

/**
 * The causes a playback response is compared with: loss by spacing 54.6·d/λ dB, by the gap |sinc(1.14·g/λ)|, by
 * azimuth |sinc(w·tan α/λ)|, time constants, the resonance of the head with its load, bumps of the pole pieces.
 */
export function responseCauses({
  speedCmPerS,
  equalisation,
  lowestHz,
  highestHz,
  referenceHz,
  azimuthKnown,
}: CurveContext): ResponseCause[] {
  const micrometres = (hz: number) => wavelengthMicrometres(speedCmPerS, hz);
  const shortest = micrometres(highestHz);
  const widthMm = speedCmPerS < REEL_FROM_CM_PER_S ? WIDTH_OF_TRACK_MM.cassette : WIDTH_OF_TRACK_MM.reel;
  const { t1Microseconds, t2Microseconds } = equalisation;
  const log = (name: string, from: number, to: number) => ({ name, from, to, logarithmic: true });
  const plain = (name: string, from: number, to: number) => ({ name, from, to, logarithmic: false });

  const treble: ResponseCause[] = [
    {
      id: "spacing",
      name: "spacing between tape and head: dirt, or a step worn into it",
      parameters: [log("spacingMicrometres", 0.004 * shortest, 0.6 * shortest)],
      gainDb: ([d], hz) => spacingLossDb(d, micrometres(hz)),
      amount: ([d]) => `${d.toFixed(1)} µm`,
      tryFirst: "Clean the head; look for a step where the tape runs and for a pad that does not press.",
      toldBy: { order: 2, what: "the curve again with the head cleaned" },
      rarity: 0,
    },
    {
      id: "gap",
      name: "a gap that is worn wide",
      parameters: [log("gapMicrometres", 0.08 * shortest, (0.97 * shortest) / gapNullMicrometres(1))],
      gainDb: ([g], hz) => gapLossDb(g, micrometres(hz)),
      amount: ([g]) => `as of ${g.toFixed(1)} µm`,
      tryFirst:
        "Check azimuth on both channels first: it bends the curve the same way. If it is right, the head.",
      toldBy: { order: 7, what: "the head under a magnifier, when nothing else is left" },
      rarity: 0,
    },
    {
      id: "azimuth",
      name: "azimuth",
      parameters: [
        log(
          "tiltArcMinutes",
          (0.08 * shortest * 60 * 180) / Math.PI / (1000 * widthMm),
          (0.97 * shortest * 60 * 180) / Math.PI / (1000 * widthMm),
        ),
      ],
      gainDb: ([arcMinutes], hz) => azimuthLossDb(arcMinutes, widthMm, micrometres(hz)),
      amount: ([arcMinutes]) => `${arcMinutes.toFixed(0)}′`,
      tryFirst: "Set azimuth: it costs a turn of a screw, and the phase of the two channels tells.",
      toldBy: { order: 1, what: "the phase of the two channels on the tone ladder" },
      rarity: 2,
    },
    {
      id: "time constant",
      name: "the treble time constant of the equaliser",
      parameters: [log("t2Microseconds", t2Microseconds / 4, t2Microseconds * 4)],
      gainDb: ([t2], hz) => shelfDb(hz, t2) - shelfDb(hz, t2Microseconds),
      amount: ([t2]) => `${t2.toFixed(0)} µs instead of ${t2Microseconds}`,
      tryFirst: "Look at the equalisation switch and at the tape's label; then the equaliser's trimmer.",
      toldBy: { order: 3, what: "the equalisation switch, and a tape of the other equalisation" },
      rarity: 0,
    },
    {
      id: "resonance",
      name: "the resonance of the head with the capacitance across it",
      parameters: [log("resonanceHz", 0.35 * highestHz, 4 * highestHz), log("q", 0.6, 8)],
      gainDb: ([f0, q], hz) => resonanceDb(hz, f0, q),
      amount: ([f0, q]) => `${(f0 / 1000).toFixed(1)} kHz, Q ${q.toFixed(1)}`,
      tryFirst: "Measure or reduce the capacitance across the head, the cable's included; then damp it.",
      toldBy: {
        order: 4,
        what: "the curve with a shorter cable, or with the capacitor across the head lifted for a minute",
      },
      rarity: 0,
    },
    {
      id: "missing capacitance",
      name: "a capacitor across the head that is missing",
      parameters: [log("resonanceHz", 1.08 * highestHz, 4 * highestHz), log("q", 0.7, 4)],
      gainDb: ([f0, q], hz) => -resonanceDb(hz, f0, q),
      amount: ([f0]) => `it would resonate near ${(f0 / 1000).toFixed(0)} kHz`,
      tryFirst: "Look for the capacitor across the head and for a broken joint.",
      toldBy: { order: 5, what: "a capacitor clipped across the head for a minute" },
      rarity: 4,
    },
  ];
  const bass: ResponseCause[] = [
    {
      id: "bass time constant",
      name: "the bass time constant of the equaliser",
      parameters: [log("t1Microseconds", 50, 50_000)],
      gainDb: ([t1], hz) => bassDb(hz, t1Microseconds) - bassDb(hz, t1),
      amount: ([t1]) => `${t1.toFixed(0)} µs`,
      tryFirst:
        "Compare the equaliser's bass time constant with the tape's; coupling capacitors that have dried out.",
      toldBy: { order: 3, what: "a second tape with bass tones" },
      rarity: 2,
    },
    {
      id: "head bump",
      name: "bumps of the head's pole pieces at long wavelengths, which are normal",
      parameters: [
        plain("bumpDb", -6, 6),
        log("bumpHz", Math.max(15, lowestHz / 2), BUMPS_BELOW_HZ),
        log("octaves", 0.3, 2),
      ],
      gainDb: ([db, f0, octaves], hz) => db * Math.exp(-0.5 * (Math.log2(hz / f0) / (octaves / 2)) ** 2),
      amount: ([db, f0]) => `${db.toFixed(1).replace("-", "−")} dB near ${f0.toFixed(0)} Hz`,
      tryFirst: "Nothing: it belongs to the head. Judge the response between the bumps.",
      toldBy: { order: 6, what: "the bass at another tape speed, where the bumps move" },
      rarity: 0,
    },
    {
      id: "head bump",
      name: "ripples of the head's pole pieces at long wavelengths, which are normal",
      parameters: [plain("rippleDb", -6, 6), log("rippleHz", Math.max(15, lowestHz / 2), BUMPS_BELOW_HZ)],
      gainDb: ([db, f0], hz) => db * Math.cos(2 * Math.PI * (hz / f0 - 1)) * Math.min(1, f0 / hz) ** 1.5,
      amount: ([db, f0]) => `${db.toFixed(1).replace("-", "−")} dB near ${f0.toFixed(0)} Hz`,
      tryFirst: "Nothing: it belongs to the head. Judge the response between the bumps.",
      toldBy: { order: 6, what: "the bass at another tape speed, where the bumps move" },
      rarity: 1,
    },
  ];
  const possible = treble.filter(({ id }) => !(azimuthKnown && id === "azimuth"));
  const all = lowestHz < BUMPS_BELOW_HZ / 2 ? [...possible, ...bass] : possible;
  if (referenceHz === undefined) return all;
  return all.map((cause) => ({
    ...cause,
    gainDb: (values, hz) => cause.gainDb(values, hz) - cause.gainDb(values, referenceHz),
  }));
}
