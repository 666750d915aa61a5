import { describe, expect, it } from "vitest";
import { quietOf } from "@/core/measure/quiet";
import { PracticeDeck } from "@/core/simulator/practice-deck";
import { practiceMachine } from "@/core/simulator/practice-machines";
import { NOTHING_HEARD_YET } from "@/core/stations/heard";
import { blankTape, sequenceInput } from "./practice-tape";
import { PRESETS } from "@/core/signals/presets";
import { erasedNow } from "@/core/stations/erase";
import { noiseNow, quietNow } from "@/core/stations/noise";
import { blankingCauses, blankingNow } from "@/core/stations/blanking";
import { RecordBench } from "@/testing/record-bench";
import { DEMO_BLANKS } from "./demo-blanks";
import { shortSequences } from "./short-sequences";

const [PLAIN] = DEMO_BLANKS;
const TONE = PRESETS.find(({ id }) => id === "erase-tone")!;
/** Drop-outs are counted elsewhere: their tone needs not last. */
const SHORT = shortSequences(1.3).map((sequence) => ({
  ...sequence,
  segments: sequence.segments.map((one) => ({ ...one, seconds: Math.min(4, one.seconds) })),
}));

describe("erase and noise off a three-head machine", () => {
  it("a residue of 66 dB is what is read, and judged as a floor", () => {
    const depthDb = 66;
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "erase.depthDb": depthDb }, 3, {
      sequences: SHORT,
    });
    bench.record("erase", "tape", TONE);
    const { channels, lacks } = erasedNow(bench.laid("erase"));
    expect(lacks).toBeNull();
    for (const { depth } of channels) {
      expect(depth!.hidden).toBe(false);
      expect(Math.abs(depth!.db - depthDb)).toBeLessThan(1);
    }
    expect(bench.log("erase", "as found")).toBeNull();
    expect(bench.verdicts("erase")).toEqual(["pass", "pass"]);
  });

  it("a second pass over the same place takes a weak erase head's residue down as far again", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "erase.depthDb": 30 }, 3, { sequences: SHORT });
    bench.record("erase", "tape", TONE);
    expect(bench.log("erase", "as found")).toBeNull();
    bench.recordAgain("erase");
    bench.sayErasedAgain();
    expect(bench.log("erase", "working")).toBeNull();
    for (const { depth } of erasedNow(bench.laid("erase")).channels) expect(depth!.db).toBeGreaterThan(56);
    expect(bench.verdicts("erase")).toEqual(["fail", "fail"]);
  });

  it.each([
    ["ellesby-c-3h", 66],
    ["ellesby-c-3h", 38],
    ["ellesby-c-1r", 66],
    ["ellesby-c-1r", 0],
  ])("a blanking test on %s, erasing by %i dB: how far, how fast, and what is left", (machine, eraseDb) => {
    const bench = new RecordBench(machine, PLAIN, { "erase.depthDb": eraseDb, "noise.db": -70 }, 3, {
      sequences: SHORT,
    });
    bench.testBlanking(TONE);
    const { channels, lacks } = blankingNow(bench.laid("erase"));
    if (eraseDb === 0) {
      expect(channels.every(({ heard }) => heard!.blanked === null)).toBe(true);
      expect(bench.log("erase", "as found")).toMatch(/nothing is erased/);
      return;
    }
    expect(lacks).toBeNull();
    for (const { heard } of channels) {
      const { moves, downDb, toneDownDb, fallSeconds } = heard!.blanked!;
      expect(moves).toBe(false);
      expect(downDb).toBeGreaterThan(Math.min(45, eraseDb - 3));
      expect(Math.abs(toneDownDb! - eraseDb)).toBeLessThan(2);
      expect(fallSeconds).toBeLessThan(0.4);
    }
    expect(bench.log("erase", "as found")).toBeNull();
    // what was heard before the work tells nothing of after it
    bench.work("erase", "erase-head");
    expect(bench.log("erase", "as left")).toMatch(/press Listen/);
    const causes = blankingCauses(channels, 60);
    if (eraseDb > 60) expect(causes).toEqual([]);
    else expect(causes[0]).toMatch(/old programme.*still heard/);
  });

  it("a tape with no tone on it is not taken for one that was erased, until somebody says it was", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, {}, 4, { sequences: SHORT });
    bench.record("erase", "tape");
    expect(bench.log("erase", "as found")).toMatch(/if it was there/);
    bench.sayToneWasOn();
    expect(bench.log("erase", "as found")).toBeNull();
  });

  it("noise of the recorded silence is that of the machine, re what comes back at 0", () => {
    const bench = new RecordBench("ellesby-c-3h", PLAIN, { "noise.db": -60, "hum.db": -60 }, 5, {
      sequences: SHORT,
      sampleRateHz: 48_000,
    });
    bench.record("noise", "tape");
    const { channels, lacks } = noiseNow(bench.laid("noise"));
    expect(lacks).toBeNull();
    // noise with an RMS of −60 dB over the whole band and hum of −60 dBFS, re 0 that comes out at about −12 dBFS
    const flat = -60 + 10 * Math.log10(2 * (19_980 / 24_000) + 1) + 12;
    const [left] = channels;
    expect(Math.abs(left.noise!.flatDb - flat)).toBeLessThan(1);
    expect(left.noise!.aDb).toBeLessThan(left.noise!.flatDb);
    expect(left.hum.some(({ frequencyHz }) => Math.abs(frequencyHz - 50) < 1)).toBe(true);
    expect(bench.log("noise", "as left")).toBeNull();

    // then without a tape: the machine's own noise is most of it
    bench.deck.press("stop");
    bench.sayNoiseOf("machine");
    expect(bench.log("noise", "working")).toMatch(/quiet was heard yet|hold still/);
    bench.listen(9);
    const alone = quietNow(bench.laid("noise"));
    expect(alone.lacks).toBeNull();
    expect(Math.abs(alone.channels[0].aDb - left.noise!.aDb)).toBeLessThan(1);
    expect(bench.log("noise", "working")).toBeNull();
  });
});

describe("tracks of the other direction", () => {
  it("what comes across from them is what the head lets through", () => {
    const parameters = { ...practiceMachine("ellesby-c-3h").transport, "head.otherSideDb": -30 };
    const deck = new PracticeDeck({ parameters, sampleRateHz: 48_000, tape: blankTape(4.76) });
    const toStart = () => {
      deck.press("rewind");
      while (deck.status.key !== "stop") deck.render(4800);
    };
    deck.turnSide();
    toStart();
    const tones = PRESETS.find(({ id }) => id === "other-side-tones")!;
    deck.setInput(sequenceInput({ ...tones, leaderSeconds: 0 }, 48_000));
    deck.press("record");
    deck.render(9 * 48_000);
    deck.turnSide();
    deck.press("play");
    deck.render(48_000);
    const quiet = quietOf(
      deck.render(6 * 48_000).map((x) => Float32Array.from(x)),
      48_000,
    );
    const heard = {
      ...NOTHING_HEARD_YET,
      source: { kind: "practice" as const, name: "x" },
      quiet,
      zeroDbfs: [-12, -12],
    };
    const bench = new RecordBench("ellesby-c-3h", PLAIN, {}, 5, { sequences: SHORT });
    const { channels, lacks } = quietNow({
      ...bench.laid("noise"),
      heard,
      circumstances: { ...bench.laid("noise").circumstances, noiseOf: "other side" },
    });
    expect(lacks).toBeNull();
    const [low, high] = channels[1].across;
    expect(low.hidden || high.hidden).toBe(false);
    expect(Math.abs(low.db + 30)).toBeLessThan(1);
    expect(Math.abs(high.db + 30)).toBeLessThan(2);
  });
});
