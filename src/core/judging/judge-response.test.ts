import { describe, expect, it } from "vitest";
import { judgeResponse } from "./judge-response";

const point = (frequencyHz: number, levelDb: number, uncertaintyDb = 0.1) => ({
  frequencyHz,
  levelDb,
  uncertaintyDb,
});
const CORRIDOR = { db: 2, fromHz: 60, toHz: 12_500 };

describe("a response against its corridor", () => {
  it("judges what is inside, passes over what is outside", () => {
    const { points, worst, verdict } = judgeResponse(
      [point(40, -6), point(63, 1), point(1000, 0), point(10_000, -1.95), point(16_000, -9)],
      CORRIDOR,
    );
    expect(points.map(({ verdict: one }) => one)).toEqual([null, "pass", "pass", "close", null]);
    expect(worst).toMatchObject({ frequencyHz: 10_000 });
    expect(verdict).toBe("close");
  });

  it("fails as a whole when one band fails", () => {
    expect(judgeResponse([point(1000, 0), point(125, 2.5)], CORRIDOR).verdict).toBe("fail");
  });

  it("counts a band named by a round figure in: 12.5 kHz at 12 400", () => {
    expect(judgeResponse([point(12_510, 0)], CORRIDOR).verdict).toBe("pass");
  });

  it("sets the equaliser where it acts: nearest to 10 kHz inside, nothing below 4 kHz", () => {
    expect(
      judgeResponse([point(6300, 0), point(12_500, 0), point(8000, 0)], CORRIDOR).treble!.frequencyHz,
    ).toBe(8000);
    expect(judgeResponse([point(2000, 0)], CORRIDOR).treble).toBeNull();
    expect(
      judgeResponse([point(10_000, 0), point(8000, 0), point(5000, 1)], { ...CORRIDOR, toHz: 5000 }).treble!
        .frequencyHz,
    ).toBe(5000);
  });

  it("has nothing to say of nothing", () => {
    expect(judgeResponse([], CORRIDOR)).toMatchObject({ worst: null, verdict: null, treble: null });
  });
});
