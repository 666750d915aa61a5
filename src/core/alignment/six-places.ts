import { inForce, type JobRecords } from "@/core/records/job-records";
import { SIDES } from "@/core/records/fields";
import { POSITIONS, type Reading } from "@/core/records/reading";
import { primaryFlutter } from "@/core/stations/flutter";
import { fixed } from "@/core/text/number-text";
import { lastMoved } from "./moves";
import { limitFor } from "./registry";

/** What was logged at one place of a tape. */
export interface PlaceOnTape {
  side: (typeof SIDES)[number];
  position: (typeof POSITIONS)[number];
  /** The last since anything was turned or done that moves it; null for none. */
  speed: Reading | null;
  flutter: Reading | null;
}

/** Start, middle and end of both sides, in the order in which a tape comes by them. */
export function sixPlaces(records: JobRecords): PlaceOnTape[] {
  const { machine, job } = records;
  const current = (station: string, quantity: string): Reading[] => {
    const since = lastMoved(records.adjustments, station);
    return inForce(records.readings).filter(
      ({ at, context, ...reading }) =>
        reading.quantity === quantity &&
        at > since &&
        context.speedCmPerS === job.speedCmPerS &&
        context.pitch === undefined,
    );
  };
  const speeds = current("speed", "speedError");
  const flutters = current("flutter", primaryFlutter(machine.flutterMeter));
  return SIDES.flatMap((side) =>
    POSITIONS.map((position): PlaceOnTape => {
      const here = (all: readonly Reading[]) =>
        all.findLast(({ context }) => context.side === side && context.position === position) ?? null;
      return { side, position, speed: here(speeds), flutter: here(flutters) };
    }),
  );
}

/** What the places say of each other; nothing while too few were logged, or where nothing stands out. */
export const placesSay = (
  places: readonly PlaceOnTape[],
  { machine }: Pick<JobRecords, "machine">,
): string[] =>
  SIDES.flatMap((side) => {
    const own = places.filter((place) => place.side === side);
    return [
      ...speedSays(side, own, limitFor(machine, "speedError")),
      ...flutterSays(side, own, limitFor(machine, primaryFlutter(machine.flutterMeter))),
    ];
  });

/** A difference between the ends of half the limit is more than tape does by itself. */
const ENDS_SHARE = 0.5;

function speedSays(side: string, own: readonly PlaceOnTape[], limit: number | null): string[] {
  const [start, , end] = own.map(({ speed }) => speed);
  if (!start || !end || limit === null) return [];
  const by = end.value - start.value;
  if (Math.abs(by) <= Math.max(ENDS_SHARE * limit, apart(start, end))) return [];
  return [
    `Side ${side} is ${fixed(Math.abs(by), 2)} % ${by < 0 ? "slower" : "faster"} at its end than at its start: the reels pull at the capstan. Look at hold-back, take-up and the pressure of the pinch roller.`,
  ];
}

function flutterSays(side: string, own: readonly PlaceOnTape[], limit: number | null): string[] {
  const heard = own.flatMap(({ position, flutter }) => (flutter ? [{ position, flutter }] : []));
  const [least, ...more] = heard.toSorted((a, b) => a.flutter.value - b.flutter.value);
  const worst = more.at(-1);
  if (!worst || limit === null || worst.flutter.value - worst.flutter.uncertainty <= limit) return [];
  const most = `Side ${side} flutters most at its ${worst.position}, ${fixed(worst.flutter.value, 3)} %`;
  return worst.flutter.value - least.flutter.value > apart(worst.flutter, least.flutter)
    ? [
        `${most}, and less elsewhere: it comes from a reel, its clutch or its brake rather than from the capstan.`,
      ]
    : [`${most}, and hardly less elsewhere: capstan, pinch roller or idler rather than a reel.`];
}

/** What two readings may differ by without meaning it. */
const apart = (a: Reading, b: Reading): number => Math.hypot(a.uncertainty, b.uncertainty);
