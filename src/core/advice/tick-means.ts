import type { TickRhythm } from "@/core/measure/tick-finder";
import { partRates } from "@/core/workshop/machine-part";
import type { PartFinding } from "./find-parts";
import type { Geometry } from "./transport-view";

/** What a tick may be of. */
export interface TickMeaning {
  /** Parts that turn as often, or so many times as often, the nearest first. */
  parts: Array<{ name: string; ticksATurn: number }>;
  /** What the flutter that was heard before has at the same rate; null where it has nothing there, or none was heard. */
  flutter: { partName: string | null; sharePercent: number } | null;
  says: string;
}

/** A part may tick that often a turn: once, or at each of a few teeth, spokes or seams. */
const MOST_TICKS_A_TURN = 4;
/** The deck that ticks may run so far off its speed. */
const OFF_SPEED_PERCENT = 3;
/** A part of that much of the flutter is worth a word. */
const SHARE_THAT_MATTERS = 5;
const SAME_RATE = 0.02;

const times = (n: number): string => (n === 1 ? "" : n === 2 ? ", twice a turn" : `, ${n} times a turn`);

/** Compares the rhythm of a tick with what turns in the machine, and with what its flutter was made of. */
export function tickMeans(
  { rateHz, uncertaintyHz }: TickRhythm,
  { parts, speedCmPerS, firstSpeedCmPerS }: Geometry,
  finding: PartFinding | null,
): TickMeaning {
  const fits = partRates(parts, speedCmPerS, firstSpeedCmPerS)
    .flatMap(({ part, fromHz, toHz }) =>
      Array.from({ length: MOST_TICKS_A_TURN }, (_, i) => i + 1).map((ticksATurn) => {
        const off =
          rateHz < ticksATurn * fromHz
            ? (ticksATurn * fromHz) / rateHz - 1
            : rateHz > ticksATurn * toHz
              ? rateHz / (ticksATurn * toHz) - 1
              : 0;
        const allowed = (OFF_SPEED_PERCENT + part.tolerancePercent) / 100 + uncertaintyHz / rateHz;
        return { name: part.name, ticksATurn, off, fits: off < allowed };
      }),
    )
    .filter((one) => one.fits)
    // once a turn is likelier than twice
    .toSorted((a, b) => a.ticksATurn - b.ticksATurn || a.off - b.off);
  const [first, ...others] = fits;
  const flutter = finding && flutterAt(finding, rateHz);
  const rate = `${rateHz.toFixed(2)} a second`;
  const also =
    others.length > 0
      ? `; it could be ${others.map((one) => `${one.name}${times(one.ticksATurn)}`).join(" or ")} as well`
      : "";
  const whose =
    parts.length === 0
      ? `A tick at ${rate}. The machine has no parts written down: with their diameters it is said which one turns so.`
      : first
        ? `The tick at ${rate} fits ${first.name}${times(first.ticksATurn)}${also}.`
        : `The tick at ${rate} fits no part that is written down: another part, or a tape that ticks on its reel.`;
  const fluttering =
    finding === null
      ? "Play the speed tone at this station first: then it is said whether the flutter has it too."
      : flutter
        ? `The flutter has ${Math.round(flutter.sharePercent)} % of its power there too${flutter.partName ? ` (${flutter.partName})` : ""}: one cause, most likely.`
        : "The flutter has nothing there: it is heard and does no harm to the speed.";
  return {
    parts: fits.map(({ name, ticksATurn }) => ({ name, ticksATurn })),
    flutter,
    says: `${whose} ${fluttering}`,
  };
}

function flutterAt({ parts, unexplained }: PartFinding, rateHz: number): TickMeaning["flutter"] {
  const same = (hz: number) => Math.abs(hz / rateHz - 1) < SAME_RATE;
  const part = parts.find((one) => same(one.rateHz));
  if (part && part.sharePercent > SHARE_THAT_MATTERS)
    return { partName: part.part, sharePercent: part.sharePercent };
  const line = unexplained.find((one) => same(one.rateHz));
  return line && line.sharePercent > SHARE_THAT_MATTERS
    ? { partName: null, sharePercent: line.sharePercent }
    : null;
}
