import { describe, expect, it } from "vitest";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { LiveListening } from "./live-listening";

const RATE = 48000;
const BLOCK = 1024;
const SECONDS = 14;
const tone = fmTone(SECONDS, RATE, 3150 * 1.0125, [{ rateHz: 4, peak: 0.002 }], 0.5);

type Sender = (listening: LiveListening, sound: Float64Array) => void;
const send: Sender = (listening, sound) => listening.push([sound, sound.map((v) => v / 2)]);

const listeningLive = () =>
  new LiveListening({
    sampleRateHz: RATE,
    channelCount: 2,
    tape: BUILT_IN_TAPES[0],
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 0,
  });

/** Plays the tone, every 55th block through `damage`, and looks at everything that is shown on the way. */
function play(damage: Sender) {
  const listening = listeningLive();
  const shown = { speeds: [] as number[], flutters: [] as number[], levels: [] as number[], lost: 0 };
  for (let n = 0; (n + 1) * BLOCK <= tone.length; n++) {
    const block = tone.slice(n * BLOCK, (n + 1) * BLOCK);
    (n % 55 === 54 ? damage : send)(listening, block);
    if (n % 6 > 0) continue;
    const { seconds, speed, flutter, check } = listening.result(true);
    if (speed?.settled) shown.speeds.push(speed.errorPercent);
    if (flutter && seconds > 10) shown.flutters.push(flutter.weighted.peakPercent);
    if (!check) continue;
    shown.lost = check.lostSamples;
    if (seconds > 3) shown.levels.push(check.channels[0].rmsDbfs);
  }
  return shown;
}

describe("a tone with lost blocks keeps its speed, flutter and level", () => {
  it.each<[string, Sender]>([
    ["zeros in the middle of a block", (l, x) => send(l, x.fill(0, 300, 741))],
    ["zeros across two blocks", (l, x) => send(l, x.fill(0, 600))],
    [
      "zeros with blurred edges",
      (l, x) =>
        send(
          l,
          x.map((v, i) => (i > 400 && i < 800 ? 0 : i > 250 && i < 950 ? 0.3 * v : v)),
        ),
    ],
    ["a piece cut out, so that the tone jumps", (l, x) => send(l, x.copyWithin(941, 700).fill(0, 500, 941))],
    ["a piece cut out with nothing in its place", (l, x) => send(l, x.copyWithin(300, 741).subarray(0, 583))],
    ["a block that never came, as its sender knows", (l) => l.lose(BLOCK)],
  ])("%s", (damageName, damage) => {
    const { speeds, flutters, levels, lost } = play(damage);
    if (!damageName.includes("nothing")) expect(lost).toBeGreaterThanOrEqual(10 * 399);
    expect(speeds.length).toBeGreaterThan(75);
    for (const speed of speeds) expect(Math.abs(speed - 1.25)).toBeLessThan(0.01);
    expect(flutters.length).toBeGreaterThan(25);
    for (const flutter of flutters) expect(Math.abs(flutter - 0.2)).toBeLessThan(0.008);
    for (const level of levels) expect(Math.abs(level - 20 * Math.log10(0.5) + 3.01)).toBeLessThan(0.05);
  });
});

describe("a tone of which about a tenth is lost, in places of any length", () => {
  it.each<[string, Sender]>([
    ["as its sender knows", (l) => l.lose(BLOCK)],
    ["with nothing in its place", () => undefined],
  ])("shows no settled speed that is farther off than it says: %s", (_, lose) => {
    const chance = whiteNoise(2 * SECONDS * (RATE / BLOCK), 1);
    const listening = listeningLive();
    let settled = 0;
    for (let n = 0; (n + 1) * BLOCK <= tone.length; n++) {
      (chance[n >> 1] > 1.3 ? lose : send)(listening, tone.slice(n * BLOCK, (n + 1) * BLOCK));
      const speed = n % 6 === 0 ? listening.result(false).speed : null;
      if (!speed?.settled) continue;
      settled++;
      expect(Math.abs(speed.errorPercent - 1.25)).toBeLessThan(speed.uncertaintyPercent + 0.001);
    }
    expect(settled).toBeGreaterThan(15);
  });
});

describe("a tone that goes on after a longer hole", () => {
  it.each([0.15, 1])(
    "of %d s is measured from there, not called stopped for what came before",
    (holeSeconds) => {
      const listening = listeningLive();
      const blocks = (seconds: number) => Math.round((seconds * RATE) / BLOCK);
      const [before, hole] = [blocks(6), blocks(holeSeconds)];
      const shown: { at: number; problem: string | null; settled: boolean; off: number }[] = [];
      for (let n = 0; n < before + hole + blocks(4); n++) {
        if (n >= before && n < before + hole) {
          listening.push([new Float64Array(BLOCK), new Float64Array(BLOCK)]);
          continue;
        }
        send(listening, tone.slice(n * BLOCK, (n + 1) * BLOCK));
        if (n < before + hole) continue;
        const { speed, channels } = listening.result(false);
        shown.push({
          at: ((n + 1 - before - hole) * BLOCK) / RATE,
          problem: channels[0].problem,
          settled: speed?.settled ?? false,
          off: Math.abs((speed?.errorPercent ?? Infinity) - 1.25),
        });
      }
      for (const { at, problem, settled, off } of shown) {
        if (at > 0.6) expect(problem).toBeNull();
        if (at > 0.3 && at < 2.5) expect(settled).toBe(false);
        if (at > 3) expect(settled && off < 0.01).toBe(true);
      }
    },
  );
});
