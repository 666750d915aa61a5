import { SeededRandom } from "@/core/dsp/seeded-random";

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
  return (t) => {
    let sum = 0;
    for (const { at, hz, loud, overtones } of notes) {
      const since = t - at;
      if (since < 0 || since > 0.8) continue;
      const envelope = loud * Math.min(1, since / 0.008) * Math.exp(-since / 0.25);
      overtones.forEach((a, h) => (sum += envelope * a * Math.sin(2 * Math.PI * hz * (h + 1) * since)));
    }
    return 0.15 * sum;
  };
}
