import { explainResponse } from "@/core/advice/response-doctor";
import type { Verdict } from "@/core/judging/verdict";
import { timeConstants, type Band, type ReferenceTape } from "@/core/reference/reference-tape";
import { PlaybackBench } from "./playback-bench";
import type { TransportParameters } from "@/core/simulator/transport-parameters";

const tone = (role: string, frequencyHz: number, levelDb: number, seconds: number): Band => ({
  kind: "tone",
  role,
  frequencyHz,
  levelDb,
  seconds,
});
const RESPONSE_HZ = [315, 63, 125, 500, 1000, 2000, 4000, 6300, 8000, 12500, 10000];
const LADDER_HZ = [1000, 3150];

/** A full alignment tape with short bands, but for those that somebody turns on. */
export const FOLLOWED_TAPE: ReferenceTape = {
  format: "unzel-reference-tape",
  version: 1,
  id: "followed",
  name: "full alignment, short",
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  fluxivityNwbPerM: 250,
  fluxivityMethod: "din",
  frequencyUncertaintyPercent: 0.05,
  bands: [
    tone("level", 315, 0, 300),
    ...LADDER_HZ.map((hz) => tone("azimuth", hz, -10, 4)),
    tone("azimuth", 10_000, -10, 300),
    ...RESPONSE_HZ.map((hz) => tone("response", hz, -20, hz === 10_000 ? 300 : 4)),
  ],
};
const LEVEL_BAND = 0;
const FIRST_RUNG = 1;
const LONG_10_KHZ = 1 + LADDER_HZ.length;
const FIRST_RESPONSE = LONG_10_KHZ + 1;
const LAST_RESPONSE = FIRST_RESPONSE + RESPONSE_HZ.length - 1;
const MOST_ROUNDS = 4;
const UNSTEADY_DB = 0.5;

/** What is done about a cause that no screw sets. */
const WORK: Record<string, string> = {
  spacing: "clean-head",
  gap: "new-head",
  resonance: "head-capacitor",
  "missing capacitance": "head-capacitor",
};

export interface Followed {
  turns: number;
  work: string[];
  verdicts: Record<"azimuth" | "level" | "response", Array<Verdict | null>>;
}

/** Aligns the playback side of a practice machine by doing what the stations say, in their order, and once more. */
export function followTheScreens(settings: Partial<TransportParameters>, seed: number): Followed {
  const bench = new PlaybackBench("ellesby-c-1r", FOLLOWED_TAPE, settings, seed, { sampleRateHz: 48_000 });
  const work: string[] = [];
  const azimuth = (phase: "as found" | "as left") => {
    bench.goTo("azimuth");
    for (let round = 0; round < MOST_ROUNDS; round++) {
      bench.playFrom(FIRST_RUNG, LONG_10_KHZ);
      bench.log("azimuth", round === 0 ? phase : "working");
      if (bench.set("azimuth", "azimuth-forward") === "leave") break;
    }
    bench.log("azimuth", "as left");
  };
  const level = (phase: "as found" | "as left") => {
    bench.goTo("level");
    bench.playFrom(LEVEL_BAND);
    bench.log("level", phase);
    bench.set("level", "level-left");
    bench.set("level", "level-right");
    bench.log("level", "as left");
  };
  azimuth("as found");
  level("as found");
  bench.goTo("response");
  for (let round = 0; round < MOST_ROUNDS; round++) {
    bench.playFrom(FIRST_RESPONSE, LAST_RESPONSE);
    const refused = bench.log("response", round === 0 ? "as found" : "working");
    if (refused === null && bench.verdicts("response").every((verdict) => verdict === "pass")) break;
    const wanted = whatToDo(bench).filter((one) => !work.includes(one));
    for (const one of wanted) bench.repair(one);
    work.push(...wanted);
    if (wanted.length > 0) continue;
    bench.set("response", "equaliser-left");
    bench.set("response", "equaliser-right");
  }
  bench.log("response", "as left");
  // the equaliser and the head have moved what was set before
  azimuth("as left");
  level("as left");
  return {
    turns: bench.turns,
    work,
    verdicts: {
      azimuth: bench.verdicts("azimuth"),
      level: bench.verdicts("level"),
      response: bench.verdicts("response"),
    },
  };
}

/** The work that the response page names first, for either channel. */
function whatToDo(bench: PlaybackBench): string[] {
  const { channels, referenceHz } = bench.numbers!.response;
  const found = channels.flatMap(({ points }) => {
    if (points.filter(({ spreadDb }) => spreadDb > UNSTEADY_DB).length > 1) return ["contact"];
    const { explanations } = explainResponse(points, {
      speedCmPerS: FOLLOWED_TAPE.speedCmPerS,
      equalisation: timeConstants(FOLLOWED_TAPE.equalisation, FOLLOWED_TAPE.speedCmPerS),
      referenceHz: referenceHz ?? undefined,
      azimuthKnown: true,
    });
    return explanations[0].cause.split(" and ").flatMap((cause) => WORK[cause] ?? []);
  });
  return [...new Set(found)];
}
