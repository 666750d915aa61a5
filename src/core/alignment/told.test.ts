import { describe, expect, it } from "vitest";
import type { Adjustment } from "@/core/records/adjustment";
import type { Adjuster } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { adviseByNumber } from "@/core/stations/advise-by-number";
import type { Advised } from "@/core/stations/advised";
import { NOTHING_HEARD_YET, type Heard } from "@/core/stations/heard";
import type { OnTheBench, Told } from "@/core/stations/on-the-bench";
import { recordLevel } from "@/core/stations/record-level";
import { speed } from "@/core/stations/speed";
import { asTurned, occasionOf, stillTold, toldNext } from "@/core/stations/told";
import { laidBench } from "@/testing/laid-bench";
import { aJob, aMachine, anAdjustment, aReading, aTape } from "@/testing/records";

const HEARD: Heard = {
  source: { kind: "practice", name: "x" },
  ...NOTHING_HEARD_YET,
  nominalHz: 3150,
  clockPercent: 0,
};

/** A card that is looked at again and again while somebody works: what it says now, and what it told. */
class Card {
  told: Told | null = null;
  readings: Reading[] = [];
  adjustments: Adjustment[] = [];

  constructor(
    readonly stationId: string,
    readonly lay: (card: Card) => OnTheBench,
    readonly advise: (bench: OnTheBench) => Advised,
  ) {}

  look(): Advised {
    const bench = this.lay(this);
    const occasion = occasionOf(this.stationId, bench);
    const told = stillTold(this.told, occasion);
    const advised = this.advise({ ...bench, told });
    this.told = toldNext(told, occasion, advised);
    return asTurned(this.told, advised);
  }
}

const level = (channel: "left" | "right"): Adjuster => ({
  id: `level-${channel}`,
  name: `REC LEVEL ${channel === "left" ? "L" : "R"}`,
  where: "",
  sets: "record-level",
  kind: "turn",
  channel,
});

describe("what the card told, while a screw is turned", () => {
  const machine = aMachine({ adjusters: [level("left"), level("right")] });
  const apart = (now: { left: number; right: number; settled?: boolean; gone?: boolean }) =>
    new Card(
      "record-level",
      ({ readings, adjustments }) => laidBench({ machine, readings, adjustments }, { heard: HEARD }),
      (bench) =>
        adviseByNumber(
          bench,
          {
            station: recordLevel,
            quantity: "recordLevel.error",
            limit: 0.5,
            live: ({ channel }) =>
              now.gone
                ? null
                : {
                    value: channel === "left" ? now.left : now.right,
                    uncertainty: 0.05,
                    settled: now.settled ?? true,
                    from: "tone",
                  },
            hearFirst: "",
          },
          null,
        ),
    );

  it("stays with the channel that is turned when the other one is farther off by then", () => {
    const now = { left: -2, right: 1.5 };
    const card = apart(now);
    card.readings = [aReading({ station: "record-level", phase: "as found", minutes: 1 })];
    expect(card.look()).toMatchObject({ adjuster: { id: "level-left" }, advice: { kind: "trial" } });
    const { turns } = card.told!;
    for (now.left = -1.9; now.left < -0.01; now.left += 0.1)
      expect(card.look().adjuster?.id).toBe("level-left");
    expect(card.look().headline).toBe("say that you turned it");
    expect(card.told).toMatchObject({ adjusterId: "level-left", turns, moved: true });
    // a reading that is logged in the middle of it changes nothing
    card.readings = [...card.readings, aReading({ station: "record-level", phase: "working", minutes: 2 })];
    expect(card.look()).toMatchObject({ adjuster: { id: "level-left" }, headline: "say that you turned it" });
  });

  it("goes on to the other channel once the turn was said and heard", () => {
    const now = { left: -2, right: 1.5 };
    const card = apart(now);
    card.readings = [aReading({ station: "record-level", phase: "as found", minutes: 1 })];
    card.look();
    now.left = 0;
    expect(card.look().headline).toBe("say that you turned it");
    card.adjustments = [anAdjustment({ station: "record-level", adjusterId: "level-left", minutes: 2 })];
    expect(card.look().adjuster?.id).toBe("level-right");
  });

  it("a number that never moved is thought about again, and nothing is asked about it", () => {
    const now = { left: -2, right: 1.5 };
    const card = apart(now);
    card.look();
    now.left = -1.97;
    expect(card.look()).toMatchObject({ adjuster: { id: "level-left" }, advice: { kind: "trial" } });
    expect(card.told?.moved).toBe(false);
  });

  it("what is left so ends it", () => {
    const now = { left: -2, right: 0 };
    const card = apart(now);
    card.look();
    now.left = 0;
    card.look();
    expect(card.told?.moved).toBe(true);
    card.readings = [aReading({ station: "record-level", phase: "as left", minutes: 3 })];
    expect(card.look().headline).toBe("leave it there");
  });

  it("a number that comes anew, after the tape was stopped or from another day, was not turned", () => {
    const now = { left: -2, right: 1.5, gone: true };
    const card = apart(now);
    card.readings = [
      aReading({
        station: "record-level",
        quantity: "recordLevel.error",
        value: -1.2,
        context: { ...aReading().context, channel: "left" },
      }),
    ];
    expect(card.look()).toMatchObject({ adjuster: { id: "level-left" }, toSet: { value: -1.2 } });
    expect(card.told).toBeNull();
    now.gone = false;
    card.look();
    expect(card.told?.moved).toBe(false);
    Object.assign(now, { gone: true });
    card.look();
    Object.assign(now, { gone: false, left: -0.9 });
    card.look();
    expect(card.told?.moved).toBe(false);
  });

  it("one that is restless is waited for, not taken for turned", () => {
    const now = { left: -2, right: 1.5, settled: false };
    const card = apart(now);
    card.look();
    expect(card.told).toBeNull();
    now.settled = true;
    card.look();
    Object.assign(now, { left: 1, settled: false });
    card.look();
    expect(card.told).toMatchObject({ adjusterId: "level-left", moved: false });
  });
});

describe("two speeds whose trimmers move each other", () => {
  const trimmer = (id: string, atCmPerS: number): Adjuster => ({
    id,
    name: id,
    where: "",
    sets: "speed",
    kind: "turn",
    speedsCmPerS: [atCmPerS],
  });
  const machine = aMachine({
    speedsCmPerS: [19.05, 38.1],
    adjusters: [trimmer("speed-19", 19.05), trimmer("speed-38", 38.1)],
  });
  const job = aJob({
    speedCmPerS: 38.1,
    otherSpeeds: [{ speedCmPerS: 19.05, tapeId: "t1" }],
  });
  const at = (speedCmPerS: number, value: number, minutes: number) =>
    aReading({ value, minutes, phase: "working", context: { ...aReading().context, speedCmPerS } });

  it("the trimmer in hand stays the one that is logged when the rest is to be done at the other speed", () => {
    let errorPercent = 1.02;
    const card = new Card(
      "speed",
      ({ readings, adjustments }) =>
        laidBench(
          { job, machine, readings, adjustments },
          {
            tape: aTape({ speedCmPerS: 38.1 }),
            heard: {
              ...HEARD,
              speed: {
                channel: "both",
                errorPercent,
                uncertaintyPercent: 0.01,
                seconds: 6,
                settled: true,
                creeps: false,
                before: null,
              },
            },
          },
        ),
      (bench) => speed.advise(bench, null),
    );
    // each trimmer was turned once, and read at both speeds before and after
    card.readings = [
      at(19.05, -0.8, 0),
      at(38.1, 0.8, 1),
      at(38.1, 0.97, 3),
      at(19.05, 0, 4),
      at(19.05, 0.2, 6),
      at(38.1, 1.02, 7),
    ];
    card.adjustments = [
      anAdjustment({ adjusterId: "speed-38", turns: 0.125, minutes: 2 }),
      anAdjustment({ adjusterId: "speed-19", turns: 0.125, minutes: 5 }),
    ];
    expect(card.look()).toMatchObject({ adjuster: { id: "speed-38" }, advice: { kind: "turn" } });
    const { turns } = card.told!;
    expect(turns).toBeLessThan(-0.4);
    while (errorPercent > -0.1) {
      errorPercent -= 0.01;
      expect(card.look().adjuster?.id).toBe("speed-38");
      expect(card.look().readElsewhere).toBeNull();
    }
    expect(card.told).toMatchObject({ adjusterId: "speed-38", moved: true });
  });
});
