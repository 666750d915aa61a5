import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { blankTape, sequenceInput } from "@/core/practice/practice-tape";
import { PRESETS } from "@/core/signals/presets";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { RecordingWatch } from "./recording-watch";
import { sampled } from "@/core/dsp/sampled";

const RATE = 32_000;
const TONES = { middleHz: 315, trebleHz: 10_000, oldHz: 1000 };

/** Amplitudes at a second of a made recording. */
type Heard = (seconds: number) => { middle: number; treble: number; old?: number; right?: number };

/** Two channels of the tones as they stand at each moment, in a little noise. */
function sound(fromSeconds: number, toSeconds: number, heard: Heard): Float64Array[] {
  const random = new SeededRandom(7);
  const n = Math.round((toSeconds - fromSeconds) * RATE);
  const left = new Float64Array(n);
  const right = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const t = fromSeconds + i / RATE;
    const { middle, treble, old = 0, right: share = 1 } = heard(t);
    const tone = (hz: number) => Math.sin(2 * Math.PI * hz * t);
    const v = middle * tone(315) + treble * tone(10_000) + old * tone(1000);
    left[i] = v + 1e-4 * random.normal();
    right[i] = share * v + 1e-4 * random.normal();
  }
  return [left, right];
}

const SOUND = { middle: 0.02, treble: 0.02 };
const after = (second: number, later: Partial<ReturnType<Heard>>): Heard => {
  return (t) => (t < second ? SOUND : { ...SOUND, ...later });
};

/** Pushes it in pieces as they come from a sound card; @returns when something was told first */
function watched(
  watch: RecordingWatch,
  [left, right]: ArrayLike<number>[],
  block = 4800,
): { toldAt: number | null } {
  let toldAt: number | null = null;
  for (let at = 0; at < left.length; at += block) {
    watch.push([left, right].map((x) => sampled(Math.min(block, x.length - at), (i) => x[at + i])));
    if (watch.result?.went.length && toldAt === null) toldAt = (at + block) / RATE;
  }
  return { toldAt };
}

const watchOf = (heard: Heard, seconds: number) => {
  const watch = new RecordingWatch(RATE, 2, TONES);
  const { toldAt } = watched(watch, sound(0, seconds, heard));
  return { toldAt, run: watch.result };
};

describe("a recording that goes", () => {
  it.each([
    ["treble that falls", after(8.3, { treble: 0.01 }), ["treble"]],
    ["treble that rises, as bias falls", after(8.3, { treble: 0.03 }), ["treble"]],
    ["level that falls", after(8.3, { middle: 0.012 }), ["level"]],
    ["old programme that comes back", after(8.3, { old: 0.03 }), ["erase"]],
    ["all of it", after(8.3, { middle: 0.001, treble: 0.0006, old: 0.1 }), ["level", "treble", "erase"]],
  ])("%s is told within two seconds, and the second is right", (_, heard, what) => {
    const { toldAt, run } = watchOf(heard, 11);
    expect(run!.went.map((one) => one.what).toSorted()).toEqual(what.toSorted());
    for (const { atSeconds } of run!.went) expect(Math.abs(atSeconds - 8.3)).toBeLessThan(0.5);
    expect(toldAt! - 8.3).toBeLessThan(2);
    expect(run!.isLeft).toBe(true);
  });

  it("in one channel alone is named", () => {
    const { run } = watchOf((t) => (t < 6 ? SOUND : { ...SOUND, right: 0.3 }), 9);
    expect(run!.went.map(({ what, channels }) => [what, channels])).toEqual([
      ["level", ["right"]],
      ["treble", ["right"]],
    ]);
  });

  it("one that fades slowly goes at the second at which it has lost three decibels", () => {
    const fading = (t: number) => ({ ...SOUND, treble: 0.02 * 10 ** (-Math.max(0, t - 5) / 40) });
    const { run } = watchOf(fading, 14);
    expect(run!.went[0].what).toBe("treble");
    expect(run!.went[0].atSeconds).toBeCloseTo(11, 0);
  });
});

describe("what is no recording that goes", () => {
  it("drop-outs, a wandering level and old programme far down are passed over", () => {
    const { run } = watchOf(
      (t) =>
        t % 4 > 3.4
          ? { middle: 0.005, treble: 0.002 }
          : { middle: 0.02 * (1 + 0.1 * Math.sin(t)), treble: 0.02, old: 2e-5 },
      16,
    );
    expect(run!.went).toEqual([]);
    expect(run!.seconds).toBeGreaterThan(15);
  });

  it("a tone that ends leaves nothing behind, and the run has ended", () => {
    const { run } = watchOf((t) => (t < 8 ? SOUND : { middle: 0, treble: 0 }), 14);
    expect(run).toMatchObject({ isLeft: false, ended: true });
    expect(run!.went.map(({ what }) => what)).toEqual(["level", "treble"]);
    expect(run!.went[0].atSeconds).toBeCloseTo(8, 0);
  });

  it("nothing begins in noise, nor with one of the tones alone", () => {
    expect(watchOf(() => ({ middle: 0, treble: 0 }), 5).run).toBeNull();
    expect(watchOf(() => ({ middle: 0.02, treble: 0 }), 5).run).toBeNull();
  });

  it("what turns out to be the source is forgotten; what came off the tape goes on when the tape is back", () => {
    const watch = new RecordingWatch(RATE, 2, TONES);
    watched(
      watch,
      sound(0, 4, () => SOUND),
    );
    watch.hears("source");
    expect(watch.result).toBeNull();
    watched(
      watch,
      sound(4, 6, () => SOUND),
    );
    expect(watch.result).toBeNull();
    watch.hears("tape");
    watched(
      watch,
      sound(6, 12, () => SOUND),
    );
    watch.hears("tape");
    watch.hears("source");
    watched(watch, sound(12, 14, after(0, { treble: 0.001 })));
    expect(watch.result).toMatchObject({ offTape: true, went: [] });
  });

  it("a run that is taken up again goes on from where it was, with what nobody heard told", () => {
    const first = new RecordingWatch(RATE, 2, TONES);
    watched(
      first,
      sound(0, 6, () => SOUND),
    );
    const stored = JSON.parse(JSON.stringify(first.result!));
    const again = new RecordingWatch(RATE, 2, TONES, { run: stored, missedSeconds: 5 });
    watched(again, sound(11, 16, after(13.5, { middle: 0.004 })));
    const run = again.result!;
    expect(run.missed).toHaveLength(1);
    expect(run.went[0].what).toBe("level");
    expect(Math.abs(run.went[0].atSeconds - 13.5)).toBeLessThan(0.7);
    expect(run.track.dbByTone[0].slice(6, 11)).toEqual([null, null, null, null, null]);
  });
});

describe("the practice machine's oscillator that dies warm", () => {
  const BIAS_TONES = PRESETS.find(({ id }) => id === "bias-tones")!;
  const deckOf = (heads: number, settings: Partial<TransportParameters>) =>
    new PracticeDeck({
      parameters: { ...practiceMachine("ellesby-c-3h").transport, "deck.heads": heads, ...settings },
      sampleRateHz: RATE,
      tape: blankTape(4.76),
    });
  const listen = (watch: RecordingWatch, deck: PracticeDeck, seconds: number) => {
    for (let at = 0; at < seconds * 10; at++) watch.push(deck.render(RATE / 10));
  };

  it.each([2, 3])("with %i heads: all goes in one second, weak traces stay", (heads) => {
    const deck = deckOf(heads, { "oscillator.diesAfterSeconds": 12 });
    deck.setInput(sequenceInput(BIAS_TONES, RATE));
    const watch = new RecordingWatch(RATE, 2, TONES);
    deck.press("record");
    if (heads === 3) listen(watch, deck, 15);
    else {
      deck.render(15 * RATE);
      deck.press("rewind");
      deck.render(RATE);
      deck.press("play");
      listen(watch, deck, 14.8);
    }
    const run = watch.result!;
    expect(run.went.map(({ what }) => what)).toEqual(expect.arrayContaining(["level", "treble"]));
    for (const { atSeconds } of run.went) expect(Math.abs(atSeconds - 12)).toBeLessThan(1);
    expect(run.isLeft).toBe(true);
  });

  it("a sound one goes nowhere", () => {
    const deck = deckOf(3, {});
    deck.setInput(sequenceInput(BIAS_TONES, RATE));
    const watch = new RecordingWatch(RATE, 2, TONES);
    deck.press("record");
    listen(watch, deck, 20);
    expect(watch.result).toMatchObject({ went: [], isLeft: true, ended: false });
  });
});
