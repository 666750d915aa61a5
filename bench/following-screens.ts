import { playbackFaultRuns } from "./playback-faults";
import { recordFaultRuns } from "./record-faults";
import { restFaultRuns } from "./rest-faults";
import { say } from "./say";

/** Faults and pairs of them that are gone through; each takes about a minute. */
const BENCH_RUNS = Number(process.env.UNZEL_BENCH_RUNS ?? 28);

/** Faults of practice machines, cured by doing what the screens say. */
export function followingFigures(): void {
  for (const [name, seconds, { turns, work, verdicts, inClass }] of recordFaultRuns(BENCH_RUNS))
    say(
      `record faults, following the screens: ${name}`,
      `${turns} turns on two tapes${work.length > 0 ? `, ${work.join(", ")}` : ""}; ${inClass ? "all within the class" : `NOT within: ${JSON.stringify(verdicts)}`} (${seconds.toFixed(0)} s)`,
    );
  for (const { name, followed, good } of restFaultRuns(BENCH_RUNS))
    say(
      `faults of the rest of a recorder, following the screens: ${name}`,
      `${followed.work.join(", ") || "nothing done"}; ${good ? "cured, nothing sound accused" : `NOT cured: ${JSON.stringify(followed)}`}`,
    );
  for (const [name, seconds, run] of playbackFaultRuns(BENCH_RUNS)) {
    const { turns, work, verdicts } = run;
    const all = [...verdicts.azimuth, ...verdicts.level, ...verdicts.response];
    const complete = verdicts.azimuth.length > 0 && verdicts.level.length > 0 && verdicts.response.length > 0;
    const inClass = complete && all.every((verdict) => verdict === "pass");
    say(
      `playback faults, following the screens: ${name}`,
      `${turns} turns${work.length > 0 ? `, ${work.join(", ")}` : ""}; ${inClass ? "all within the class" : `NOT within: ${JSON.stringify(verdicts)}`} (${seconds.toFixed(0)} s)`,
    );
  }
}
