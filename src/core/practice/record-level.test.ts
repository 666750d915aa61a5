import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { PRESETS } from "@/core/signals/presets";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { PlaybackBench } from "@/testing/playback-bench";
import { blankTape, sequenceInput } from "./practice-tape";

const RATE = 32_000;
const SPEED_CM_PER_S = 4.76;
const TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "level",
  name: "level",
  speedCmPerS: SPEED_CM_PER_S,
  frequencyUncertaintyPercent: 0.05,
  bands: [{ kind: "tone", role: "level", frequencyHz: 315, levelDb: 0, seconds: 300 }],
};
const LEVEL_TONE = PRESETS.find(({ id }) => id === "level-tone")!;

/** What the tape takes off a tone of so many dB: the fundamental of a tape with 0.9 % of third harmonic at 0, to the third order. */
const compressionDb = (db: number) => 20 * Math.log10(1 - 3 * 0.009 * 10 ** (db / 10));

/** A three-head recorder that records the level tone, its monitor on source. */
function recording(settings: Record<string, number>, seed: number): PlaybackBench {
  const bench = new PlaybackBench("ellesby-c-3h", TAPE, settings, seed);
  bench.goTo("record-level");
  bench.deck.load(blankTape(SPEED_CM_PER_S));
  bench.deck.setInput(sequenceInput(LEVEL_TONE, RATE));
  bench.deck.monitor = "source";
  bench.deck.press("record");
  return bench;
}

describe("record level off a three-head machine", () => {
  it("source and tape are told apart without a word, and the difference is read", () => {
    const bench = recording({ "record.leftDb": -2.3, "record.rightDb": 1.7 }, 3);
    bench.listen(5);
    expect(bench.heard!.comparison).toMatchObject({ hears: "source", tape: null });
    expect(bench.log("record-level", "as found")).toMatch(/switch the monitor to tape/);
    bench.deck.monitor = "tape";
    bench.listen(5);
    const { hears, source, tape } = bench.heard!.comparison!;
    expect(hears).toBe("tape");
    [-2.3, 1.7].forEach((db, c) => {
      const error = tape!.levelsDbfs[0][c] - source!.levelsDbfs[0][c];
      expect(Math.abs(error - db - compressionDb(db))).toBeLessThan(0.05);
    });
    expect(bench.log("record-level", "as found")).toBeNull();
    expect(bench.verdicts("record-level")).toEqual(["fail", "fail"]);
  });

  it.each([10, 11])(
    "both channels are within a tenth after a trial turn and two more, machine %i",
    (machine) => {
      const random = new SeededRandom(machine);
      const off = () => (1.5 + 2 * random.uniform()) * (random.uniform() < 0.5 ? -1 : 1);
      const bench = recording({ "record.leftDb": off(), "record.rightDb": off() }, machine);
      bench.listen(4);
      bench.deck.monitor = "tape";
      bench.listen(6);
      expect(bench.log("record-level", "as found")).toBeNull();
      for (const adjuster of ["record-level-left-i", "record-level-right-i"]) {
        const before = bench.turns;
        expect(bench.set("record-level", adjuster)).toBe("leave");
        expect(bench.turns - before).toBeLessThanOrEqual(3);
      }
      const { source, tape } = bench.heard!.comparison!;
      tape!.levelsDbfs[0].forEach((level, c) =>
        expect(Math.abs(level - source!.levelsDbfs[0][c])).toBeLessThan(0.13),
      );
      expect(bench.log("record-level", "as left")).toBeNull();
      expect(bench.verdicts("record-level")).toEqual(["pass", "pass"]);
    },
  );

  it("nothing is compared when the tone is another, or gone", () => {
    const bench = recording({}, 1);
    bench.listen(4);
    bench.deck.press("stop");
    bench.listen(3);
    expect(bench.heard!.comparison!.hears).toBeNull();
    expect(bench.log("record-level", "as left")).toMatch(/monitor to tape/);
  });
});
