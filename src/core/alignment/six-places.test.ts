import { describe, expect, it } from "vitest";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { primaryFlutter } from "@/core/stations/flutter";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";
import { placesSay, sixPlaces } from "./six-places";

const machine = aMachine();
type At = Pick<Reading["context"], "side" | "position">;

function at(minutes: number, { side, position }: At, value: number, station: "speed" | "flutter" = "speed") {
  const quantity = station === "speed" ? "speedError" : primaryFlutter(machine.flutterMeter);
  const uncertainty = station === "speed" ? 0.02 : 0.005;
  const reading = aReading({ minutes, station, quantity, value, uncertainty });
  return { ...reading, context: { ...reading.context, side, position } };
}
const A_START: At = { side: "A", position: "start" };
const A_MIDDLE: At = { side: "A", position: "middle" };
const A_END: At = { side: "A", position: "end" };

function of(readings: Reading[], adjustments: Adjustment[] = []) {
  const records = { job: aJob(), machine, readings, adjustments };
  const places = sixPlaces(records);
  return { places, says: placesSay(places, records) };
}

describe("start, middle and end of both sides", () => {
  it("lie in the order of the tape, each with the last that was logged there", () => {
    const { places } = of([at(1, A_END, -0.4), at(2, A_END, -0.5), at(3, A_END, 0.09, "flutter")]);
    expect(places.map(({ side, position }) => side + position)).toEqual([
      "Astart",
      "Amiddle",
      "Aend",
      "Bstart",
      "Bmiddle",
      "Bend",
    ]);
    expect(places[2].speed?.value).toBe(-0.5);
    expect(places[2].flutter?.value).toBe(0.09);
    expect(places.filter(({ speed, flutter }) => speed ?? flutter)).toHaveLength(1);
  });

  it("what was logged before something was turned that moves it is of another setting", () => {
    const turned = anAdjustment({ minutes: 5, station: "speed" });
    expect(of([at(1, A_START, 0), at(6, A_END, 0.1)], [turned]).places.map((p) => p.speed?.value)).toEqual([
      undefined,
      undefined,
      0.1,
      undefined,
      undefined,
      undefined,
    ]);
    const azimuth = anAdjustment({ minutes: 5, station: "azimuth" });
    expect(of([at(1, A_START, 0.2)], [azimuth]).places[0].speed?.value).toBe(0.2);
  });

  it("a tape that is slower at its end is told of the reels; a little says nothing", () => {
    expect(of([at(1, A_START, 0.1), at(2, A_END, -1.4)]).says).toEqual([
      expect.stringMatching(/^Side A is 1.50 % slower at its end.*hold-back/),
    ]);
    expect(of([at(1, A_START, 0.1), at(2, A_END, 0.05)]).says).toEqual([]);
    expect(of([at(1, A_START, 0.1)]).says).toEqual([]);
  });

  it("flutter at one end alone is a reel's, everywhere the capstan's", () => {
    const flutter = (...values: number[]) =>
      of(values.map((value, i) => at(i, [A_START, A_MIDDLE, A_END][i], value, "flutter"))).says;
    expect(flutter(0.1, 0.1, 0.6)[0]).toMatch(
      /most at its end, 0.600 %, and less elsewhere: it comes from a reel/,
    );
    expect(flutter(0.6, 0.602, 0.598)[0]).toMatch(/hardly less elsewhere: capstan/);
    expect(flutter(0.05, 0.06, 0.055)).toEqual([]);
  });
});
