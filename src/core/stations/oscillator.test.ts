import { describe, expect, it } from "vitest";
import { RecordingWatch, WATCHED_TONES } from "@/core/live/recording-watch";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { blankTape, sequenceInput } from "@/core/practice/practice-tape";
import type { RecordingRun } from "@/core/records/recording-run";
import { PRESETS } from "@/core/signals/presets";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import type { TransportParameters } from "@/core/simulator/transport-parameters";
import { SHORT } from "@/testing/follow-the-recorder";
import { RecordBench } from "@/testing/record-bench";
import { holdsCauses, holdsNow } from "./oscillator";

const RATE = 32_000;
const preset = (wanted: string) => PRESETS.find(({ id }) => id === wanted)!;

/** A recording off the tape for so long, made straight after other work with the record key down. */
function watched(
  settings: Partial<TransportParameters>,
  old: "old tone" | "fresh tape",
  sourceFirst = false,
) {
  const deck = new PracticeDeck({
    parameters: { ...practiceMachine("ellesby-c-3h").transport, ...settings },
    sampleRateHz: RATE,
    tape: blankTape(4.76),
  });
  if (old === "old tone") {
    deck.setInput(sequenceInput(preset("erase-tone"), RATE));
    deck.press("record");
    deck.render(8 * RATE);
    deck.press("rewind");
    deck.render(RATE);
  }
  deck.setInput(sequenceInput({ ...preset("bias-tones"), leaderSeconds: 0 }, RATE));
  deck.press("record");
  if (old === "fresh tape") deck.render(8 * RATE);
  const watch = new RecordingWatch(RATE, 2, WATCHED_TONES);
  const listen = (seconds: number) => {
    for (let at = 0; at < seconds * 10; at++) watch.push(deck.render(RATE / 10));
  };
  if (sourceFirst) {
    deck.monitor = "source";
    watch.hears("source");
    listen(1);
  }
  deck.monitor = "tape";
  deck.render(RATE);
  watch.hears("tape");
  listen(11);
  watch.hears("tape");
  return watch.result!;
}

const told = (run: RecordingRun) => {
  const bench = new RecordBench("ellesby-c-3h", DEMO_BLANKS[0], {}, 3, { sequences: SHORT }).laid(
    "oscillator",
  );
  return holdsNow({ ...bench, heard: { ...bench.heard!, recording: run } });
};
const WARM = { "oscillator.diesAfterSeconds": 5 };

describe("a recording that was dead when it began", () => {
  it.each<[string, Partial<TransportParameters>, "old tone" | "fresh tape", boolean, boolean]>([
    ["warm from what was recorded before, the old tone is still there", WARM, "old tone", false, true],
    ["on a fresh tape it came back far below what went in", WARM, "fresh tape", true, true],
    ["a sound one over an old tone", {}, "old tone", false, false],
    ["a sound one whose source was heard", {}, "fresh tape", true, false],
    ["a weak erase head is no weak oscillator", { "erase.depthDb": 34 }, "old tone", false, false],
  ])("%s", (_, settings, old, sourceFirst, isDead) => {
    const run = watched(settings, old, sourceFirst);
    expect(run.went).toEqual([]);
    expect(holdsCauses(run).some((cause) => /without bias from its beginning/.test(cause))).toBe(isDead);
    const { seconds, lacks } = told(run);
    if (isDead) {
      expect(seconds).toBeNull();
      expect(lacks).toMatch(/not right when it began/);
    } else {
      expect(seconds).toBeGreaterThan(9);
      expect(lacks).toMatch(/so far/);
    }
  });
});
