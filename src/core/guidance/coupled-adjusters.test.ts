import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { Trimmer } from "@/core/simulator/trimmer";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";
import { adviseCoupled, triedAdjuster, type CoupledAdvice, type Place } from "./coupled-adjusters";
import { atSpeed } from "@/core/records/job-speeds";
import type { Adjuster } from "@/core/records/machine";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { inForce } from "@/core/records/job-records";
import { adviseTurn } from "./turn-guidance";

const SLOW = 19.05;
const FAST = 38.1;
const GOOD = 0.05;

const screw = (id: string, speedsCmPerS?: number[]): Adjuster => ({
  id,
  name: id,
  where: "",
  sets: "speed",
  kind: "turn",
  ...(speedsCmPerS && { speedsCmPerS }),
});

/** A machine of two speeds whose screws act as `effects` say (percent a turn, by screw then speed). */
class Workbench {
  turns = 0;
  present = SLOW;
  readonly readings: Reading[] = [];
  readonly adjustments: Adjustment[] = [];
  private minutes = 0;
  private readonly trimmers: Trimmer[];

  constructor(
    readonly adjusters: Adjuster[],
    private readonly effects: Array<[number, number]>,
    private readonly errors: [number, number],
    private readonly random: SeededRandom,
    slack = 0.04,
  ) {
    this.trimmers = effects.map(() => new Trimmer(slack * random.uniform(), 10));
  }

  error(speedCmPerS: number): number {
    const at = speedCmPerS === SLOW ? 0 : 1;
    return this.trimmers.reduce(
      (sum, { spindleTurns }, i) => sum + this.effects[i][at] * spindleTurns,
      this.errors[at],
    );
  }

  read(): void {
    const value = this.error(this.present) + 0.003 * this.random.normal();
    this.readings.push(
      aReading({ minutes: ++this.minutes, value, context: { ...CONTEXT, speedCmPerS: this.present } }),
    );
  }

  turn(adjusterId: string, turns: number): void {
    const i = this.adjusters.findIndex(({ id }) => id === adjusterId);
    this.trimmers[i].turn(turns * (1 + 0.05 * (this.random.uniform() - 0.5)));
    this.adjustments.push(anAdjustment({ minutes: ++this.minutes, adjusterId, turns }));
    this.turns++;
  }

  advice(): CoupledAdvice {
    const { readings, adjustments, adjusters } = this;
    const job = aJob({
      speedCmPerS: this.present,
      otherSpeeds: [{ speedCmPerS: this.present === SLOW ? FAST : SLOW, tapeId: "t2" }],
    });
    const records = { job, machine: aMachine({ adjusters }), readings, adjustments };
    const atSpeeds = [SLOW, FAST].map((speedCmPerS) => {
      const there = atSpeed(records, speedCmPerS);
      return { speedCmPerS, readings: inForce(there.readings), adjustments: there.adjustments };
    });
    this.tried = adjusters.map((one) => triedAdjuster(one, atSpeeds));
    const places = atSpeeds.map(({ speedCmPerS, readings: there }): Place => {
      const last = there.at(-1);
      return { speedCmPerS, error: last?.value ?? null, goodEnough: GOOD };
    });
    return adviseCoupled(this.tried, places, this.present);
  }
  private tried: ReturnType<typeof triedAdjuster>[] = [];

  /** Does what is advised until nothing more is; gives up after `most` steps. */
  follow(most = 60): boolean {
    this.read();
    for (let step = 0; step < most; step++) {
      const { adjuster, aimPercent, read } = this.advice();
      if (read) {
        this.present = read.speedCmPerS;
        this.read();
        continue;
      }
      if (!adjuster) return false;
      const turnsAt = this.tried.find((one) => one.adjuster === adjuster)!.turnsAt.get(this.present)!;
      const value = this.readings.at(-1)!.value - aimPercent;
      const next = adviseTurn(turnsAt, off(value, GOOD), true);
      if (next.kind === "leave") return true;
      if (next.kind !== "turn" && next.kind !== "trial") return false;
      this.turn(adjuster.id, next.turns);
      this.read();
    }
    return false;
  }
}

/** A number that is known well enough for its limit. */
const off = (value: number, goodEnough: number) => ({ value, uncertainty: 0.01, limit: 0.5, goodEnough });

const CONTEXT = aReading().context;

describe("coupled adjusters", () => {
  it("are found out and bring both speeds right, however they are coupled", () => {
    const random = new SeededRandom(11);
    const counts: number[] = [];
    for (let run = 0; run < 100; run++) {
      const between = (a: number, b: number) => a + (b - a) * random.uniform();
      const way = random.uniform() < 0.5 ? -1 : 1;
      const bench = new Workbench(
        [screw("a"), screw("b")],
        [
          [way * between(3, 8), way * between(0, 2.5)],
          [between(-1.5, 1.5), between(2, 6)],
        ],
        [between(-2, 2), between(-2, 2)],
        random,
      );
      expect(bench.follow(), `run ${run}`).toBe(true);

      expect(Math.abs(bench.error(SLOW))).toBeLessThan(0.1);
      expect(Math.abs(bench.error(FAST))).toBeLessThan(0.1);
      counts.push(bench.turns);
    }
    counts.sort((a, b) => a - b);
    expect(counts[50]).toBeLessThanOrEqual(7);
    expect(counts[95]).toBeLessThanOrEqual(12);
  });

  it("a master for both and a trimmer for one: the master is set where only it acts", () => {
    const bench = new Workbench(
      [screw("master"), screw("slow only", [SLOW])],
      [
        [4, 4],
        [5, 0],
      ],
      [-1.5, 0.8],
      new SeededRandom(3),
      0,
    );
    expect(bench.follow()).toBe(true);
    expect(Math.abs(bench.error(FAST))).toBeLessThan(0.1);
    expect(Math.abs(bench.error(SLOW))).toBeLessThan(0.1);
  });

  it("one screw for two speeds that differ: the best there is, said to be a compromise", () => {
    const bench = new Workbench([screw("a")], [[5, 5]], [-1, -0.4], new SeededRandom(5), 0);
    bench.follow(20);
    expect(bench.error(SLOW)).toBeCloseTo(-0.3, 1);
    expect(bench.error(FAST)).toBeCloseTo(0.3, 1);
    expect(bench.advice().compromise).toBe(true);
  });

  it("does not waver between two: the one that was told stays, as long as it has something left to do", () => {
    const [a, b] = [screw("a"), screw("b")];
    const known = (adjuster: Adjuster, slow: number, fast: number) => ({
      adjuster,
      turnsAt: new Map([SLOW, FAST].map((at) => [at, [{ turns: 0.1, change: 0.1 }]])),
      perTurnAt: new Map([
        [SLOW, slow],
        [FAST, fast],
      ]),
      sinceAt: new Map(),
    });
    const both = [known(a, 4, 1), known(b, 4, -1)];
    const advised = (slow: number, fast: number, id: string | null) =>
      adviseCoupled(
        both,
        [
          { speedCmPerS: SLOW, error: slow, goodEnough: GOOD },
          { speedCmPerS: FAST, error: fast, goodEnough: GOOD },
        ],
        SLOW,
        id,
      );
    const told = (error: number, id: string | null) => advised(0.3, error, id).adjuster?.id;
    expect(told(0.01, null)).toBe("a");
    expect(told(-0.01, null)).toBe("b");
    for (const error of [-0.01, 0, 0.01]) for (const id of ["a", "b"]) expect(told(error, id)).toBe(id);
    // nothing is left for it
    expect(told(0.074, "b")).toBe("a");
    // where neither has enough to do, having been told changes nothing: or the card would say one thing and another in turn
    for (const id of ["a", "b"]) expect(advised(0.06, 0, id)).toEqual(advised(0.06, 0, null));
  });

  it("asks for what it does not know before it proposes anything", () => {
    const bench = new Workbench(
      [screw("a"), screw("b")],
      [
        [5, 1],
        [1, 5],
      ],
      [-1, 1],
      new SeededRandom(7),
    );
    bench.read();
    expect(bench.advice().read).toEqual({ speedCmPerS: FAST, why: "as found" });
    bench.present = FAST;
    bench.read();
    expect(bench.advice().read).toBeNull();
    bench.turn("a", 0.2);
    bench.read();
    expect(bench.advice().read).toEqual({ speedCmPerS: SLOW, why: "effect" });
  });
});
