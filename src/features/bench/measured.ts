import type { FlutterResult } from "@/core/measure/flutter";
import type { ListeningResult } from "@/core/listen/live-listening";
import type { Reading } from "@/core/alignment/records";
import type { FileMeasurement } from "@/workers/listener-api";

/** What the bench shows and logs, whatever it came from. */
export interface Measured {
  source: Reading["source"];
  /** Frequency that the tone was compared with; null for the one of the job's tape. */
  nominalHz: number | null;
  /** ± percent of the clock that sampled it; undefined for an uncalibrated sound card. */
  clockPercent?: number;
  speed: {
    channel: string;
    errorPercent: number;
    uncertaintyPercent: number;
    seconds: number;
    settled: boolean;
  } | null;
  flutter: (FlutterResult & { channel: string; settled: boolean }) | null;
  /** Why there is no number, or what is doubtful. */
  problems: string[];
}

export function measuredLive(
  result: ListeningResult,
  source: Reading["source"],
  clockPercent?: number,
): Measured {
  const { speed, flutter, channels } = result;
  const heard = channels.filter(({ problem }) => problem === null);
  const channel = heard.length === channels.length && heard.length === 2 ? "both" : (heard[0]?.channel ?? "");
  return {
    source,
    clockPercent,
    nominalHz: result.nominalHz,
    speed: speed && { ...speed, channel, seconds: speed.windowSeconds },
    flutter,
    problems: channels.flatMap(({ problem }) => problem ?? []),
  };
}

/** Speed of the channel that is known best, flutter of the channel that is worse. */
export function measuredFile(file: FileMeasurement): Measured {
  const speeds = file.channels.flatMap(({ speed }) => speed ?? []);
  const flutters = file.channels.flatMap(({ flutter }) => flutter ?? []);
  const best = speeds.toSorted((a, b) => a.uncertaintyPercent - b.uncertaintyPercent).at(0);
  const worst = flutters.toSorted((a, b) => b.weighted.peakPercent - a.weighted.peakPercent).at(0);
  return {
    source: { kind: "file", name: file.name },
    nominalHz: null,
    speed: best ? { ...best, settled: true } : null,
    flutter: worst ? { ...worst, settled: true } : null,
    problems: [...file.warnings, ...file.channels.flatMap(({ warnings }) => warnings)],
  };
}
