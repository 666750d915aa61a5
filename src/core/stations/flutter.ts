import { flutterUncertainty } from "@/core/judging/uncertainty";
import { flutterNotKept, type FlutterResult } from "@/core/measure/flutter";
import { FLUTTER_METERS as METERS, type FlutterMeter, type Machine } from "@/core/records/machine";
import { speedTone } from "@/core/reference/speed-tone";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { nothingAdvised } from "./advised";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { Quantity } from "./quantity";
import type { MeasuringStation } from "./station";
import { nothingToLog, STILL_SETTLING } from "./station-readings";

const percent = (name: string): Quantity => ({ name, unit: "%", decimals: 3, signed: false });
const quantities = {
  "flutter.weighted.peak": percent("Weighted peak flutter"),
  "flutter.weighted.twoSigma": percent("Weighted two-sigma flutter"),
  "flutter.weighted.rms": percent("Weighted RMS flutter"),
  "flutter.weighted.average": percent("Weighted average flutter"),
  "flutter.unweighted.peak": percent("Unweighted peak flutter"),
  "flutter.unweighted.twoSigma": percent("Unweighted two-sigma flutter"),
  "flutter.unweighted.rms": percent("Unweighted RMS flutter"),
  "flutter.unweighted.average": percent("Unweighted average flutter"),
  "flutter.wow": percent("Wow, 0.1 to 10 Hz, RMS"),
  "flutter.flutter": percent("Flutter, 10 to 200 Hz, RMS"),
} as const;
type FlutterQuantity = keyof typeof quantities;

const METHODS: Record<FlutterMeter, string> = {
  peak: "quasi-peak, IEC 60386",
  twoSigma: "two-sigma, AES6",
  rms: "RMS, JIS C 5551",
  average: "full-wave average, NAB",
};

/** One reading per flutter meter, all at one time, so that no figure is ever recomputed from another. */
export function flutterReadings(measured: FlutterResult, context: LogContext) {
  const figure = (
    quantity: FlutterQuantity,
    value: number,
    ownPercent: number,
    method: string,
  ): Figure<FlutterQuantity> => ({
    quantity,
    value,
    uncertainty: flutterUncertainty(value, ownPercent),
    method,
  });
  const { uncertainty } = measured;
  const all = (path: "weighted" | "unweighted") =>
    METERS.map((meter) =>
      figure(
        `flutter.${path}.${meter}`,
        measured[path][`${meter}Percent`],
        uncertainty[path][`${meter}Percent`],
        METHODS[meter],
      ),
    );
  const band = (
    quantity: "flutter.wow" | "flutter.flutter",
    of: "wowRmsPercent" | "flutterRmsPercent",
    range: string,
  ) => figure(quantity, measured[of], uncertainty[of], `RMS of the spectrum, ${range}`);
  return readingsOfMoment(flutter, context, { seconds: measured.seconds, method: "" }, [
    ...all("weighted"),
    ...all("unweighted"),
    band("flutter.wow", "wowRmsPercent", "0.1 to 10 Hz"),
    band("flutter.flutter", "flutterRmsPercent", "10 to 200 Hz"),
  ]);
}

/** The weighted figure of the meter that a machine is judged by, with the ± that it is logged with. */
export function primaryFigure(measured: FlutterResult, { flutterMeter }: Pick<Machine, "flutterMeter">) {
  const value = measured.weighted[`${flutterMeter}Percent`];
  return {
    value,
    uncertainty: flutterUncertainty(value, measured.uncertainty.weighted[`${flutterMeter}Percent`]),
  };
}

export const primaryFlutter = (meter: FlutterMeter) => `flutter.weighted.${meter}` as const;

/** The classes are written in weighted peak; a machine judged by another meter needs a limit of its own. */
export const flutterLimit = ({ flutterMeter, limits, toleranceClass }: Machine): number | null =>
  limits.flutterPercent ??
  (flutterMeter === "peak" ? TOLERANCE_CLASSES[toleranceClass].weightedPeakFlutterPercent : null);

export const flutter: MeasuringStation<"flutter", FlutterQuantity> = {
  id: "flutter",
  kind: "measure",
  name: "Wow and flutter",
  short: "Flutter",
  group: "transport",
  onRoute: () => true,
  quantities,
  deciding: ({ flutterMeter }) => [primaryFlutter(flutterMeter)],
  limitOf: (machine, quantity) =>
    quantity === primaryFlutter(machine.flutterMeter) ? flutterLimit(machine) : null,
  ownLimits: [{ key: "flutterPercent", label: "Own flutter limit, %", most: 100 }],
  corridorOf: () => null,
  apartBy: ["speed"],
  circumstances: ["side", "position"],
  adjusters: [{ kind: "work", says: "work, against flutter", actsOn: [] }],
  hears: { what: "speed tone", flutter: true, role: null, sequence: null, follows: null, steady: null },
  tapeLacks: ({ tape }) => (speedTone(tape) ? null : "has no steady tone to hear flutter on"),
  upsets: ["speed", "flutter"],
  readings: ({ heard }) => {
    const now = heard?.flutter;
    if (!now) return nothingToLog("There is no steady tone to log.");
    return {
      toLog: (context) =>
        now.settled
          ? flutterReadings(now, { ...context, channel: now.channel })
          : (flutterNotKept(now) ?? STILL_SETTLING),
      // no turn shows here at once
      afterTurn: () => null,
      beforeTurn: () => null,
    };
  },
  advise: ({ heard, here: { machine } }) => {
    const now = heard?.flutter ?? null;
    const figure = now ? primaryFigure(now, machine) : { value: null, uncertainty: 0 };
    return nothingAdvised({
      quantity: primaryFlutter(machine.flutterMeter),
      ...figure,
      settled: now?.settled ?? false,
    });
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "No screw sets flutter.",
  setUp: ["The same tone as for speed.", "Let it run for twenty seconds before logging."],
  checks: [],
  caution: "Moving reels, belts and fans. Stop the machine before touching rubber or capstan.",
};
