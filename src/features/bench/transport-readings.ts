import { flutterReadings, speedReading, type LogContext } from "@/core/alignment/log-reading";
import type { Reading } from "@/core/alignment/records";
import type { StationReadings } from "@/core/alignment/station-readings";
import type { ListenerState } from "./use-listener";

/** What the speed station logs. */
export function speedReadings({ measured, live, marks }: ListenerState): StationReadings {
  const speed = measured?.speed ?? null;
  const reading = (context: LogContext): Reading[] =>
    speed ? [speedReading(speed, { ...context, channel: speed.channel })] : [];
  return {
    toLog: (context) => {
      if (!speed) return "There is no steady tone to log.";
      return speed.settled ? reading(context) : "Still settling; log when the number is steady.";
    },
    afterTurn: (context) => (speed?.settled ? reading(context) : null),
    beforeTurn: (context) => {
      if (!speed || !live?.speed) return null;
      const { beforeChange } = live.speed;
      const lastMark = marks.at(-1) ?? -Infinity;
      const before = beforeChange && beforeChange.atSeconds > lastMark ? beforeChange : speed;
      const { channel, seconds } = speed;
      return [speedReading({ ...before, seconds }, { ...context, channel })];
    },
  };
}

/** What the flutter station logs; no turn shows there at once. */
export function flutterStationReadings({ measured }: ListenerState): StationReadings {
  return {
    toLog: (context) => {
      const flutter = measured?.flutter;
      if (!flutter) return "There is no steady tone to log.";
      if (!flutter.settled) return "Flutter needs ten steady seconds before it is logged.";
      return flutterReadings(flutter, { ...context, channel: flutter.channel });
    },
    afterTurn: () => null,
    beforeTurn: () => null,
  };
}
