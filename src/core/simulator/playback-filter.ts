import { amplitudeOf } from "@/core/dsp/decibels";
import { digitalSection, prewarp, SectionFilter } from "@/core/dsp/filter-section";
import { FastFir } from "@/core/dsp/fast-fir";
import { HALF_TAPS, tapsFor } from "./gain-taps";
import { trebleGain, type Equalisation } from "./playback-gain";
import type { TransportParameters } from "./transport-parameters";

/** Gains that differ from 1 by less everywhere are not worth a filter. */
const FLAT = 5e-4;
const LOWEST_POLE_HZ = 2;

/**
 * The playback head and amplifier of one channel over a stream: the treble gain as a symmetric filter, the first
 * time constants as a shelf, the bump of the pole pieces. Delays by a constant 255 samples, or not at all as long as
 * everything is flat.
 */
export class PlaybackFilter {
  private treble: FastFir | null;
  private readonly bass: SectionFilter | null;
  private readonly bump: SectionFilter | null;
  /** What went in last, for a filter that takes over. */
  private readonly history = new Float64Array(2 * HALF_TAPS);

  constructor(
    parameters: TransportParameters,
    private readonly tape: Equalisation,
    private readonly sampleRateHz: number,
  ) {
    this.treble = this.trebleOf(parameters);
    this.bass = bassShelf(tape.t1Microseconds, parameters["playback.t1Microseconds"], sampleRateHz);
    this.bump = bumpOf(parameters["head.bumpHz"], parameters["head.bumpDb"], sampleRateHz);
  }

  /** Whether it delays what goes through; the filters of two channels have to agree on that. */
  get delays(): boolean {
    return this.treble !== null;
  }

  /** Something on the treble side was turned: goes on with the new gain from the next block on. */
  retune(parameters: TransportParameters, delay = false): void {
    this.treble = this.trebleOf(parameters, delay);
  }

  /** Same length out as in. */
  push(block: Float64Array): Float64Array {
    const kept = Math.min(block.length, this.history.length);
    this.history.copyWithin(0, kept);
    this.history.set(block.subarray(block.length - kept), this.history.length - kept);
    const out = this.treble ? this.treble.push(block) : block;
    this.bass?.push(out);
    this.bump?.push(out);
    return out;
  }

  private trebleOf(parameters: TransportParameters, delay = false): FastFir | null {
    const gain = (hz: number) => trebleGain(parameters, this.tape, hz);
    const flat = Array.from({ length: 200 }, (_, i) => (i + 1) * 110).every(
      (hz) => Math.abs(gain(hz) - 1) < FLAT,
    );
    // a filter that was there stays, or the sound would jump by its delay
    if (flat && !this.treble && !delay) return null;
    return new FastFir(tapsFor(gain, this.sampleRateHz), this.history);
  }
}

const BUMP_Q = 1.4;

/** A peak or dip of some decibels at a low frequency; null for none. */
function bumpOf(hz: number, db: number, sampleRateHz: number): SectionFilter | null {
  if (db === 0) return null;
  const w = prewarp(hz, sampleRateHz);
  const across = w / BUMP_Q;
  const gain = amplitudeOf(db);
  return new SectionFilter(
    digitalSection({ numerator: [1, gain * across, w * w], denominator: [1, across, w * w] }, sampleRateHz),
  );
}

/** (s + 1/t₁ of the tape) ÷ (s + 1/t₁ of the machine); null when they are the same. */
function bassShelf(tapeT1: number, machineT1: number, sampleRateHz: number): SectionFilter | null {
  if (tapeT1 === machineT1) return null;
  const corner = (t1: number) => (t1 === 0 ? 0 : 1e6 / (2 * Math.PI * t1));
  const zero = corner(tapeT1);
  const pole = Math.max(LOWEST_POLE_HZ, corner(machineT1));
  return new SectionFilter(
    digitalSection(
      {
        numerator: [0, 1, prewarp(zero, sampleRateHz)],
        denominator: [0, 1, prewarp(pole, sampleRateHz)],
      },
      sampleRateHz,
    ),
  );
}
