import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { explainResponse, type CurvePoint } from "./response-doctor";

const HZ = [40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500];
const CASSETTE = { speedCmPerS: 4.76, equalisation: { t1Microseconds: 3180, t2Microseconds: 120 } };
const MICROMETRES_PER_S = 47_600;
const db = (ratio: number) => 20 * Math.log10(Math.abs(ratio));
const sinc = (x: number) => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
const shelf = (hz: number, us: number) => 10 * Math.log10(1 + (2 * Math.PI * hz * us * 1e-6) ** 2);

/** Curves in closed form, each from one reason. */
const CURVES: Record<string, (between: (a: number, b: number) => number) => (hz: number) => number> = {
  spacing: (between) => {
    const d = between(0.4, 2);
    return (hz) => (-54.6 * d * hz) / MICROMETRES_PER_S;
  },
  gap: (between) => {
    const g = between(1.7, 3);
    return (hz) => db(sinc((1.14 * g * hz) / MICROMETRES_PER_S));
  },
  "time constant": (between) => {
    const t2 = between(0, 1) < 0.5 ? between(60, 90) : between(150, 220);
    return (hz) => shelf(hz, t2) - shelf(hz, 120);
  },
  resonance: (between) => {
    const [f0, q] = [between(9000, 16000), between(1, 4)];
    return (hz) => -10 * Math.log10((1 - (hz / f0) ** 2) ** 2 + (hz / f0 / q) ** 2);
  },
  "head bump": (between) => {
    const [a, f0] = [between(1.5, 3), between(50, 100)];
    return (hz) => a * Math.exp(-0.5 * (Math.log2(hz / f0) / 0.5) ** 2);
  },
  level: (between) => {
    const off = between(1.2, 5) * (between(0, 1) < 0.5 ? -1 : 1);
    return () => off;
  },
  flat: () => () => 0,
};

function curve(gain: (hz: number) => number, random: SeededRandom, noiseDb = 0.2): CurvePoint[] {
  return HZ.map((frequencyHz) => ({ frequencyHz, levelDb: gain(frequencyHz) + noiseDb * random.normal() }));
}

describe("what a response curve looks like", () => {
  it.each(Object.keys(CURVES))("%s comes first in nine of ten", (cause) => {
    const random = new SeededRandom(cause.length);
    const between = (a: number, b: number) => a + (b - a) * random.uniform();
    const firsts = Array.from(
      { length: 10 },
      () => explainResponse(curve(CURVES[cause](between), random), CASSETTE).explanations[0].cause,
    );
    expect(firsts.filter((first) => first === cause).length, firsts.join(", ")).toBeGreaterThanOrEqual(9);
  });

  it("finds how much it is", () => {
    const random = new SeededRandom(2);
    const dirt = explainResponse(
      curve(
        CURVES.spacing(() => 1.5),
        random,
        0.05,
      ),
      CASSETTE,
    );
    expect(dirt.explanations[0].parameters.spacingMicrometres).toBeCloseTo(1.5, 1);
    expect(dirt.explanations[0].rmsErrorDb).toBeLessThan(0.1);
    expect(dirt.sentence).toMatch(/spacing between tape and head.*\(1\.5 µm\).*left over\. Clean the head/);
    const wrong = explainResponse(
      curve((hz) => shelf(hz, 70) - shelf(hz, 120), random, 0.05),
      CASSETTE,
    );
    expect(wrong.explanations[0].parameters.t2Microseconds).toBeCloseTo(70, -1);
  });

  it("two reasons at once are named as such", () => {
    const random = new SeededRandom(3);
    const bump = (hz: number) => 2.5 * Math.exp(-0.5 * (Math.log2(hz / 70) / 0.5) ** 2);
    const { explanations } = explainResponse(
      curve((hz) => CURVES.spacing(() => 1.2)(hz) + bump(hz), random),
      CASSETTE,
    );
    expect(explanations[0].cause).toBe("spacing and head bump");
  });

  it("wiggles without a reason: says that it does not know", () => {
    const random = new SeededRandom(5);
    for (let run = 0; run < 8; run++) {
      const wiggles = HZ.map((frequencyHz) => ({ frequencyHz, levelDb: 6 * random.uniform() - 3 }));
      const { explanations, sentence } = explainResponse(wiggles, CASSETTE);
      expect(explanations[0].cause).toBe("unknown");
      expect(sentence).toMatch(/No cause that is known/);
    }
  });

  it("gap and azimuth bend a curve alike, and it says so", () => {
    const { explanations } = explainResponse(
      curve(
        CURVES.gap(() => 2.5),
        new SeededRandom(6),
      ),
      CASSETTE,
    );
    const causes = explanations.map(({ cause }) => cause);
    expect(causes).toContain("azimuth");
    expect(explanations[0].tryFirst).toMatch(/azimuth on both channels first/);
    const total = explanations.reduce((sum, { probability }) => sum + probability, 0);
    expect(total).toBeLessThanOrEqual(1 + 1e-9);
  });

  it("a capacitor that is missing across the head stands among what the curve cannot tell apart", () => {
    const random = new SeededRandom(4);
    for (let run = 0; run < 12; run++) {
      const [f0, q] = [13_500 + 8000 * random.uniform(), 0.8 + 2.2 * random.uniform()];
      const missing = (hz: number) => 10 * Math.log10((1 - (hz / f0) ** 2) ** 2 + (hz / f0 / q) ** 2);
      if (Math.abs(missing(12_500)) < 1) continue;
      const { explanations, sentence } = explainResponse(curve(missing, random), CASSETTE);
      const [first] = explanations;
      const named = [first, ...explanations.filter(({ alike }) => alike)].map(({ cause }) => cause);
      expect(named).toContain("missing capacitance");
      if (named.length > 1)
        expect(sentence).toMatch(/cannot tell it from.*the cheapest first.*a capacitor clipped across/);
      if (named.includes("azimuth"))
        expect(sentence).toMatch(/cheapest first: the phase of the two channels/);
    }
  });

  it.each([60, 150, 500, 40_000])("a bass time constant of %i µs is no level beside it", (t1) => {
    const rise = (hz: number, us: number) => 10 * Math.log10(1 + 1 / (2 * Math.PI * hz * us * 1e-6) ** 2);
    const random = new SeededRandom(t1);
    for (const reference of [315, 1000]) {
      const off = (hz: number) => rise(hz, 3180) - rise(hz, t1);
      const { explanations } = explainResponse(
        curve((hz) => off(hz) - off(reference), random),
        CASSETTE,
      );
      const named = explanations.filter(({ alike }, i) => i === 0 || alike).map(({ cause }) => cause);
      expect(named).toContain("bass time constant");
      expect(explanations[0].cause).not.toMatch(/level/);
    }
  });

  it("three points are too few", () => {
    expect(() => explainResponse(curve(() => 0, new SeededRandom(1)).slice(0, 3), CASSETTE)).toThrow(
      /at least 4 points, not 3/,
    );
  });
});
