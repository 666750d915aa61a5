import { speedUncertainty } from "@/core/judging/uncertainty";
import type { Machine } from "@/core/records/machine";
import { frequencyUncertaintyOf } from "@/core/reference/reference-tape";
import { speedTone } from "@/core/reference/speed-tone";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import type { ToSet } from "./advised";
import { asLogged } from "./as-logged";
import { MAINS } from "./cautions";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { adviseSpeed } from "./speed-advice";
import type { MeasuringStation } from "./station";
import { nothingToLog, onceSettled } from "./station-readings";

const quantities = {
  speedError: { name: "Speed error", unit: "%", decimals: 2, signed: true },
} as const;

export const speedLimit = ({ limits, toleranceClass }: Machine): number =>
  limits.speedErrorPercent ?? TOLERANCE_CLASSES[toleranceClass].speedErrorPercent;

interface Mean {
  errorPercent: number;
  uncertaintyPercent: number;
  seconds: number;
}

/** A speed reading as it is stored, from a measured mean and its own uncertainty (percent). */
export const speedReadings = (mean: Mean, context: LogContext) =>
  readingsOfMoment(
    speed,
    context,
    { seconds: mean.seconds, method: "Hann-weighted mean of the instantaneous frequency" },
    [
      {
        quantity: "speedError",
        value: mean.errorPercent,
        uncertainty: speedUncertainty(
          mean.uncertaintyPercent,
          context.tapeUncertaintyPercent,
          context.clockPercent,
        ),
        ownUncertainty: mean.uncertaintyPercent,
      },
    ],
  );

/** The number as it stands, or as it was logged last, with the uncertainty that it is logged with. */
function toSet({ heard, here, tape, movedAt }: OnTheBench): ToSet {
  const live = heard?.speed;
  if (!live) return asLogged({ movedAt }, "speed", "speedError", here.readings, () => true);
  return {
    quantity: "speedError",
    value: live.errorPercent,
    uncertainty: speedUncertainty(live.uncertaintyPercent, frequencyUncertaintyOf(tape), heard.clockPercent),
    settled: live.settled,
    from: "the speed tone",
  };
}

export const speed: MeasuringStation<"speed", keyof typeof quantities> = {
  id: "speed",
  kind: "measure",
  name: "Speed",
  group: "transport",
  onRoute: () => true,
  quantities,
  deciding: () => ["speedError"],
  limitOf: speedLimit,
  ownLimits: [{ key: "speedErrorPercent", label: "Own speed limit ±, %", most: 100 }],
  corridorOf: () => null,
  apartBy: ["speed"],
  circumstances: ["side", "position", "supply", "pitch"],
  adjusters: [{ kind: "turn", says: "turned, sets the speed", actsOn: [] }],
  hears: { what: "speed tone", flutter: false, role: null, sequence: null, follows: null, steady: null },
  tapeLacks: ({ tape }) => (speedTone(tape) ? null : "has no tone to tell the speed by"),
  upsets: ["speed", "flutter", "azimuth", "level", "response"],
  readings: ({ heard }) => {
    const now = heard?.speed;
    if (!now) return nothingToLog("There is no steady tone to log.");
    const readings = (mean: Mean) => (context: LogContext) =>
      speedReadings(mean, { ...context, channel: now.channel });
    return {
      ...onceSettled(now.settled, readings(now)),
      beforeTurn: readings({ ...(now.before ?? now), seconds: now.seconds }),
    };
  },
  advise: (bench, chosen) => adviseSpeed(bench, toSet(bench), speedLimit(bench.here.machine), chosen),
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn:
    "This machine has no speed trimmer written down. First a slotted motor mount, belt tension and drag.",
  setUp: ["Machine warmed up ten minutes; pitch control at its centre click.", "Line out to the sound card."],
  checks: [],
  caution: MAINS,
};
