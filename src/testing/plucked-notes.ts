import { SeededRandom } from "@/core/dsp/seeded-random";

const LASTS_SECONDS = 0.8;

/** Plucked notes of a scale at uneven times, a closed form of time so that any speed of it can be written. */
export function pluckedNotes(seed: number, seconds: number): (t: number) => number {
  const random = new SeededRandom(seed);
  const notes: Array<{ at: number; hz: number; loud: number; overtones: number[] }> = [];
  for (let at = 0; at < seconds; at += 0.12 + 0.3 * random.uniform())
    notes.push({
      at,
      hz: 196 * 2 ** (Math.floor(24 * random.uniform()) / 12),
      loud: 0.3 + 0.7 * random.uniform(),
      overtones: [1, random.uniform(), 0.6 * random.uniform(), 0.4 * random.uniform()],
    });
  // where the first note of each tenth of a second stands that may still sound in it
  const from = Array.from({ length: 10 * (seconds + 2) }, (_, tenth) =>
    notes.findIndex(({ at }) => at >= tenth / 10 - LASTS_SECONDS),
  );
  return (t) => {
    let sum = 0;
    const first = t < 0 ? -1 : (from[Math.floor(10 * t)] ?? -1);
    for (let i = first; i >= 0 && i < notes.length && notes[i].at <= t; i++) {
      const { at, hz, loud, overtones } = notes[i];
      const since = t - at;
      if (since > LASTS_SECONDS) continue;
      const envelope = loud * Math.min(1, since / 0.008) * Math.exp(-since / 0.25);
      overtones.forEach((a, h) => (sum += envelope * a * Math.sin(2 * Math.PI * hz * (h + 1) * since)));
    }
    return 0.15 * sum;
  };
}
