import { describe, expect, it } from "vitest";
import { sensitivityDb } from "@/core/guidance/bias-curves";
import { biasKnown, type BiasScrew } from "@/core/guidance/bias-screw";
import { AT_ONCE } from "@/core/stations/bias-thought";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import type { Thinker } from "@/workers/thinker";
import { thoughtToKeep } from "./use-bias-screws";

const SCREW: BiasScrew = {
  about: "left",
  turns: [],
  heard: [],
  beside: [],
  standing: {
    afterTurns: 0,
    middleDb: sensitivityDb(-2, 315),
    highDb: sensitivityDb(-2, 10_000),
    thirdDb: null,
  },
  tones: { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 },
  overBiasDb: null,
};
const BENCH = { screws: AT_ONCE } as OnTheBench;
const station = (screws: BiasScrew[]) => ({ learns: () => screws }) as unknown as MeasuringStation;
const thinker = (ask: () => Promise<unknown>) => ({ ask }) as unknown as Thinker;

describe("what is to be kept of a bench", () => {
  it("is thought out aside, of just what stands on it", async () => {
    const known = structuredClone(biasKnown(SCREW));
    const stood = await thoughtToKeep(
      BENCH,
      station([SCREW]),
      thinker(() => Promise.resolve([known])),
    );
    expect(stood.screws.kept(SCREW)).toBe(known);
  });

  it.each([
    ["a worker that died", () => Promise.reject(new Error("gone"))],
    ["one that was ended", () => Promise.resolve(null)],
  ])("is worked out at once after %s", async (_, ask) => {
    const stood = await thoughtToKeep(BENCH, station([SCREW]), thinker(ask));
    expect(stood.screws.kept(SCREW)).toEqual(biasKnown(SCREW));
  });

  it("is the bench itself where no screw is learned", async () => {
    const asks = thinker(() => Promise.reject(new Error("nothing is to be asked")));
    expect(await thoughtToKeep(BENCH, station([]), asks)).toBe(BENCH);
  });
});
