import { describe, expect, it } from "vitest";
import type { Adjuster } from "@/core/records/machine";
import type { JobRecords } from "@/core/records/job-records";
import { laidBench } from "@/testing/laid-bench";
import { aMachine, anAdjustment, aReading } from "@/testing/records";
import { azimuth } from "./azimuth";
import { level } from "./level";
import type { OnTheBench } from "./on-the-bench";
import { speed } from "./speed";

const screw = (id: string, sets: Adjuster["sets"], more: Partial<Adjuster> = {}): Adjuster => ({
  id,
  name: id,
  where: "",
  sets,
  kind: "turn",
  ...more,
});
const MACHINE = aMachine({
  adjusters: [screw("SPEED", "speed"), screw("PB L", "level", { channel: "left" })],
});

/** A bench at which nothing is heard. */
const silent = (records: Partial<JobRecords>): OnTheBench => laidBench({ machine: MACHINE, ...records });

const speedOf = (value: number, minutes: number) => aReading({ id: `r${minutes}`, value, minutes });
const levelOf = (value: number, minutes: number) =>
  aReading({
    id: `l${minutes}`,
    station: "level",
    quantity: "level.error",
    value,
    uncertainty: 0.05,
    minutes,
    context: { ...aReading().context, channel: "left" },
  });
const turned = (adjusterId: string, station: "speed" | "level", minutes: number, turns = 0.125) =>
  anAdjustment({ id: `a${minutes}`, adjusterId, station, minutes, turns });

const CARDS = [
  ["speed", (bench: OnTheBench) => speed.advise(bench, null), speedOf, "SPEED", 0.4],
  ["level", (bench: OnTheBench) => level.advise(bench, null), levelOf, "PB L", 0.8],
] as const;

describe.each(CARDS)("the card of %s while nothing is heard", (station, look, reading, adjuster, off) => {
  it("asks for the tape, and for no trial turn, before anything was logged", () => {
    const { advice, headline, toSet } = look(silent({}));
    expect(advice.kind).toBe("wait");
    expect(headline).toBe("play the tape");
    expect(toSet.value).toBeNull();
  });

  it("says that there is nothing to turn as it was logged, and not to log it", () => {
    const { advice, headline, reason } = look(silent({ readings: [reading(0.01, 1)] }));
    expect(advice.kind).toBe("leave");
    expect(headline).toBe("play the tape");
    expect(reason).toContain("there is nothing to turn");
    expect(reason).not.toContain("Log it");
  });

  it("tells a turn by what was logged, and says so", () => {
    const { advice, reason, toSet } = look(silent({ readings: [reading(off, 1)] }));
    expect(advice.kind).toBe("trial");
    expect(toSet.value).toBe(off);
    expect(reason).toMatch(/By what was logged last; it is not heard now\.$/);
  });

  it("tells no second turn by what stood before the first", () => {
    const bench = silent({ readings: [reading(off, 1)], adjustments: [turned(adjuster, station, 2)] });
    const { advice, headline, reason, toSet } = look(bench);
    expect(advice.kind).toBe("wait");
    expect(headline).toBe("play the tape");
    expect(reason).toContain("Something that moves it was turned since it was logged");
    expect(toSet.value).toBeNull();
  });

  it("takes work that nobody counts for a turn, and a turn of nought for none", () => {
    const readings = [reading(off, 1)];
    const work = { ...turned(adjuster, station, 2), turns: null };
    expect(look(silent({ readings, adjustments: [work] })).toSet.value).toBeNull();
    expect(look(silent({ readings, adjustments: [turned(adjuster, station, 2, 0)] })).toSet.value).toBe(off);
  });

  it("goes on by what was logged where what was turned since moves it not", () => {
    const elsewhere = anAdjustment({ id: "e", adjusterId: "ERASE", station: "erase", minutes: 2 });
    expect(look(silent({ readings: [reading(off, 1)], adjustments: [elsewhere] })).toSet.value).toBe(off);
  });

  it("tells by a reading that came after the turn", () => {
    const bench = silent({
      readings: [reading(off, 1), reading(off / 2, 3)],
      adjustments: [turned(adjuster, station, 2)],
    });
    const { advice, toSet } = look(bench);
    expect(advice.kind).toBe("turn");
    expect(toSet.value).toBe(off / 2);
  });
});

describe("the search for the loudest point while nothing is heard", () => {
  const machine = aMachine({ channels: 1, adjusters: [screw("AZ", "azimuth")] });
  const treble = aReading({ station: "azimuth", quantity: "azimuth.treble", value: -12, minutes: 1 });
  const peak = { kind: "leave", turns: 0, side: null, gainDb: 0 } as unknown as OnTheBench["peak"];
  const look = (records: Partial<JobRecords>) =>
    azimuth.advise({ ...silent({ machine, ...records }), peak }, null);

  it("says that there is nothing to turn as it was logged", () =>
    expect(look({ readings: [treble] })).toMatchObject({
      advice: { kind: "leave" },
      headline: "play the tape",
    }));

  it("asks for the tone once it was turned since", () =>
    expect(
      look({
        readings: [treble],
        adjustments: [anAdjustment({ adjusterId: "AZ", station: "azimuth", minutes: 2 })],
      }),
    ).toMatchObject({ advice: { kind: "wait" }, headline: "play the tape" }));
});
