import { SectionFilter, type Section } from "@/core/dsp/filter-section";
import { powerDb } from "@/core/dsp/decibels";
import type { Samples } from "@/core/dsp/signal";

const OFFSET_DB = -0.691;
const BLOCK_SECONDS = 0.4;
const STEP_SHARE = 0.25;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE_DB = -10;

/** The two stages of K-weighting, from the analog filters behind the table of ITU-R BS.1770 for 48 kHz. */
function kWeighting(sampleRateHz: number): Section[] {
  const stage = (frequencyHz: number, q: number, gainDb: number | null): Section => {
    const k = Math.tan((Math.PI * frequencyHz) / sampleRateHz);
    const a0 = 1 + k / q + k * k;
    const [a1, a2] = [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0];
    if (gainDb === null) return { b0: 1, b1: -2, b2: 1, a1, a2 };
    const high = 10 ** (gainDb / 20);
    const band = high ** 0.4996667741545416;
    return {
      b0: (high + (band * k) / q + k * k) / a0,
      b1: (2 * (k * k - high)) / a0,
      b2: (high - (band * k) / q + k * k) / a0,
      a1,
      a2,
    };
  };
  return [
    stage(1681.974450955533, 0.7071752369554196, 3.999843853973347),
    stage(38.13547087602444, 0.5003270373238773, null),
  ];
}

/**
 * Integrated loudness with both gates, ITU-R BS.1770.
 * @param channels one or two, full scale = ±1
 * @returns LUFS; −Infinity where nothing passes the gates
 */
export function loudness(channels: readonly Samples[], sampleRateHz: number): number {
  const weighted = channels.map((channel) => {
    const x = Float64Array.from(channel);
    for (const section of kWeighting(sampleRateHz)) new SectionFilter(section).push(x);
    return x;
  });
  const block = Math.round(BLOCK_SECONDS * sampleRateHz);
  const step = Math.round(STEP_SHARE * block);
  const powers: number[] = [];
  for (let from = 0; from + block <= weighted[0].length; from += step) {
    let sum = 0;
    for (const x of weighted) for (let i = from; i < from + block; i++) sum += x[i] * x[i];
    powers.push(sum / block);
  }
  const lufs = (power: number) => OFFSET_DB + powerDb(power);
  const mean = (of: number[]) => of.reduce((sum, power) => sum + power, 0) / of.length;
  const loud = powers.filter((power) => lufs(power) > ABSOLUTE_GATE);
  if (loud.length === 0) return -Infinity;
  const gate = lufs(mean(loud)) + RELATIVE_GATE_DB;
  return lufs(mean(loud.filter((power) => lufs(power) > gate)));
}
