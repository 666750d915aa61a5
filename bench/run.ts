import { biasCoverage } from "./bias-coverage";
import { followingFigures } from "./following-screens";
import { hostileFigures } from "./hostile";
import { listeningFigures } from "./listening";
import { playbackFigures } from "./playback";
import { recordFigures } from "./record-side";
import { transportFigures } from "./transport";

/*
 * How fast and how exact the engine is on this machine. Figures go to standard output, one line each; nothing
 * here passes or fails. Parts may be named: npm run bench -- hostile
 */

const PARTS = new Map<string, () => void | Promise<void>>([
  ["transport", transportFigures],
  ["listening", listeningFigures],
  ["playback", playbackFigures],
  ["record", recordFigures],
  ["bias", () => biasCoverage(Number(process.env.UNZEL_BENCH_RECORDERS ?? 400), 1, console.log)],
  ["following", followingFigures],
  ["hostile", hostileFigures],
]);

const wanted = process.argv.slice(2);
const unknown = wanted.find((name) => !PARTS.has(name));
if (unknown !== undefined) {
  console.error(`There is no part ${unknown}; there are ${[...PARTS.keys()].join(", ")}.`);
  process.exitCode = 2;
} else for (const [name, run] of PARTS) if (wanted.length === 0 || wanted.includes(name)) await run();
