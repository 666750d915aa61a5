import { describe, expect, it } from "vitest";
import { machinePartsSchema, partRates, roleOf, type MachinePart } from "@/core/workshop/machine-part";
import { bump, flutterOfParts, reelWave, sharesOf, wave } from "@/testing/part-flutter";
import { findParts } from "./find-parts";

const SPEED = 4.76;
const MM_PER_S = 47.6;
const PARTS = machinePartsSchema.parse([
  { name: "capstan", tapeDiameterMm: 2.5 },
  { name: "pinch roller", tapeDiameterMm: 11 },
  { name: "motor", ratioTo: "capstan", ratio: 12.5, poles: 6 },
  { name: "belt", beltLengthMm: 230, pulleyPart: "capstan", pulleyDiameterMm: 40 },
  { name: "supply reel", reel: "supply", hubRadiusMm: 11, fullRadiusMm: 25 },
  { name: "take-up reel", reel: "take-up", hubRadiusMm: 11, fullRadiusMm: 25 },
]);
const CAPSTAN = MM_PER_S / (Math.PI * 2.5);
const ROLLER = MM_PER_S / (Math.PI * 11);
const MOTOR = 12.5 * CAPSTAN;
const BELT = (Math.PI * 40 * CAPSTAN) / 230;
const NOISE = 5e-5;

const find = (
  seconds: number,
  deviations: Parameters<typeof flutterOfParts>[1],
  noise = NOISE,
  more: MachinePart[] = [],
) => findParts(flutterOfParts(seconds, deviations, noise), [...PARTS, ...more], SPEED);
const names = (finding: ReturnType<typeof findParts>) => finding.parts.map(({ part }) => part);
const partNamed = (name: string, tapeDiameterMm: number): MachinePart => ({
  name,
  tapeDiameterMm,
  tolerancePercent: 2,
});

describe("no part is invented", () => {
  it.each([0, 1e-6, 1e-4, 1e-3])("in noise of %f RMS", (noise) => {
    for (const seed of [1, 2, 3])
      expect(names(findParts(flutterOfParts(60, [], noise, seed), PARTS, SPEED))).toEqual([]);
  });

  it("from a line that no part turns at; it is told with what it may be", () => {
    const finding = find(60, [wave(0.1, 31.7), wave(0.05, 100)]);
    expect(names(finding)).toEqual([]);
    expect(finding.unexplained.map(({ rateHz }) => Math.round(10 * rateHz) / 10)).toEqual([31.7, 100]);
    expect(finding.unexplained[1].hint).toMatch(/mains/);
  });

  it("from a few seconds; they are refused with a reason", () => {
    const finding = find(5, [wave(0.1, CAPSTAN)]);
    expect(finding.parts).toEqual([]);
    expect(finding.warnings.join()).toMatch(/at least 8 s/);
  });
});

describe("each part is named with its share", () => {
  it.each<[string, Record<string, ReturnType<typeof wave>>]>([
    ["one line", { capstan: wave(0.1, CAPSTAN) }],
    [
      "several lines and a comb",
      {
        capstan: wave(0.1, CAPSTAN),
        "pinch roller": wave(0.05, ROLLER),
        motor: wave(0.03, MOTOR),
        belt: bump(0.3, BELT),
      },
    ],
    ["two combs", { "pinch roller": bump(-0.6, ROLLER, 0.06), belt: bump(0.4, BELT, 0.12) }],
    ["a part that is 1.5 % off its geometry", { capstan: wave(0.1, CAPSTAN * 1.015) }],
  ])("%s", (_, deviations) => {
    const seconds = 60;
    const finding = find(seconds, Object.values(deviations));
    const shares = sharesOf(seconds, Object.values(deviations));
    expect(names(finding).toSorted()).toEqual(Object.keys(deviations).toSorted());
    Object.keys(deviations).forEach((name, i) => {
      const part = finding.parts.find((p) => p.part === name)!;
      expect(Math.abs(part.sharePercent / shares[i] - 1), name).toBeLessThan(0.1);
      expect(part.indistinguishableFrom).toEqual([]);
    });
  });

  it("a pulse once a turn is one part with its harmonics, a rise or a dip, of the height it has", () => {
    const [belt] = find(60, [bump(0.4, BELT, 0.1)]).parts;
    expect(belt.shape).toBe("rise");
    expect(belt.harmonics.length).toBeGreaterThan(6);
    expect(belt.peakPercent).toBeCloseTo(0.4 * 0.95, 1);
    const [roller] = find(60, [bump(-0.4, ROLLER, 0.1)]).parts;
    expect(roller.shape).toBe("dip");
    expect(roller.turn!.turns).toBe(Math.floor(60 * ROLLER));
  });

  it("ripple of a motor's poles is the motor's", () => {
    const slow = machinePartsSchema.parse([
      { name: "capstan", tapeDiameterMm: 2.5 },
      { name: "motor", ratioTo: "capstan", ratio: 2, poles: 6 },
    ]);
    const sound = flutterOfParts(30, [wave(0.05, 2 * CAPSTAN), wave(0.03, 12 * CAPSTAN)], NOISE);
    const [motor, ...others] = findParts(sound, slow, SPEED).parts;
    expect(others).toEqual([]);
    expect(motor.harmonics.map(({ order }) => order)).toEqual([1, 6]);
  });

  it("the rates follow the speed that is measured", () => {
    const { deviation, rateHz } = flutterOfParts(60, [wave(0.1, 1.06 * CAPSTAN)], NOISE);
    const [capstan] = findParts({ deviation: deviation.map((d) => d + 0.06), rateHz }, PARTS, SPEED).parts;
    expect(capstan.part).toBe("capstan");
  });
});

describe("parts that turn alike", () => {
  const idler = partNamed("idler", 2.46);

  it("are told apart when both are heard", () => {
    const finding = find(60, [wave(0.1, CAPSTAN), wave(0.06, (CAPSTAN * 2.5) / 2.46)], NOISE, [idler]);
    expect(names(finding)).toEqual(["capstan", "idler"]);
  });

  it("are reported as indistinguishable when one line could be either's", () => {
    const finding = find(60, [wave(0.1, CAPSTAN)], NOISE, [partNamed("idler", 2.49)]);
    expect(finding.parts).toHaveLength(1);
    const [{ part, indistinguishableFrom, certainty }] = finding.parts;
    expect([part, ...indistinguishableFrom].toSorted()).toEqual(["capstan", "idler"]);
    expect(certainty).toBeLessThan(0.6);
    expect(finding.warnings.join()).toMatch(/cannot be told/);
  });
});

describe("reels", () => {
  it("are told by the way their lines move, also where these cross", () => {
    const deviations = [
      reelWave(0.1, 25, -18, MM_PER_S),
      reelWave(0.08, 11, 18, MM_PER_S),
      wave(0.05, CAPSTAN),
    ];
    const finding = find(1200, deviations);
    expect(names(finding).toSorted()).toEqual(["capstan", "supply reel", "take-up reel"]);
    const supply = finding.parts.find(({ part }) => part === "supply reel")!;
    expect(supply.movedHz![1]).toBeGreaterThan(supply.movedHz![0]);
    const shares = sharesOf(1200, deviations);
    expect(Math.abs(supply.sharePercent / shares[0] - 1)).toBeLessThan(0.1);
  });

  it("in a short recording are a reel's, but nobody's in particular", () => {
    const finding = find(60, [wave(0.1, 0.45)]);
    expect(finding.parts).toHaveLength(1);
    expect(finding.parts[0].certainty).toBeCloseTo(0.5, 2);
    expect(finding.parts[0].indistinguishableFrom).toHaveLength(1);
  });
});

describe("machine parts", () => {
  it("turn by the field's formulas", () => {
    const rates = new Map(
      partRates(PARTS, SPEED).map(({ part, fromHz, toHz }) => [part.name, [fromHz, toHz]]),
    );
    expect(rates.get("capstan")![0]).toBeCloseTo(6.0606, 3);
    expect(rates.get("belt")![0]).toBeCloseTo(3.3113, 3);
    expect(rates.get("supply reel")![0]).toBeCloseTo(0.303, 3);
    expect(rates.get("supply reel")![1]).toBeCloseTo(0.6887, 3);
    const counted = machinePartsSchema.parse([{ name: "flywheel", countedTurns: 60, countedSeconds: 10 }]);
    expect(partRates(counted, 9.52, SPEED)[0].fromHz).toBeCloseTo(12, 2);
  });

  it.each([
    [
      "a pulley on no part",
      [{ name: "b", beltLengthMm: 1, pulleyPart: "x", pulleyDiameterMm: 2 }],
      /not among/,
    ],
    [
      "a circle",
      [
        { name: "a", ratioTo: "b", ratio: 2 },
        { name: "b", ratioTo: "a", ratio: 2 },
      ],
      /turns with itself/,
    ],
    [
      "one name twice",
      [
        { name: "a", tapeDiameterMm: 2 },
        { name: "a", tapeDiameterMm: 3 },
      ],
      /two parts/,
    ],
    [
      "a hub wider than the pack",
      [{ name: "r", reel: "supply", hubRadiusMm: 30, fullRadiusMm: 20 }],
      /smaller/,
    ],
    ["nothing to go by", [{ name: "a" }], /tapeDiameterMm/],
    ["a diameter of nothing", [{ name: "a", tapeDiameterMm: 0 }], /more than 0 must be/],
  ])("with %s are refused", (_, parts, message) => {
    expect(machinePartsSchema.safeParse(parts).error?.issues[0].message).toMatch(message);
  });

  it("are known by their names", () => {
    expect(PARTS.map(roleOf)).toEqual(["capstan", "pinch roller", "motor", "belt", "reel", "reel"]);
  });
});
