import { inForce, type JobRecords } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import { quantityOf } from "./registry";

/** The work that it is logged as, at the station of distortion. */
export const DEMAGNETISE = "demagnetise";

/** What a magnetised head adds to what plays: hiss, and a second harmonic that tape alone does not make. */
const WITNESSES = ["noise.a", "distortion.second"] as const;
export type Witness = (typeof WITNESSES)[number];

/** What is always logged in the same moment: where that stands and the witness does not, noise hid it. */
const LOGGED_WITH = { "noise.a": "noise.a", "distortion.second": "distortion.third" } as const;

/** What one witness said in one channel. */
export interface BeforeAndAfter {
  quantity: Witness;
  name: string;
  unit: string;
  decimals: number;
  channel: string;
  before: Reading | null;
  after: Reading | null;
  /** It was measured then, and nothing of it stood out of the noise. */
  inNoise: { before: boolean; after: boolean };
  /** Null while one of the two is missing. */
  says: "fell" | "as before" | "rose" | "not by this alone" | null;
}

export interface Demagnetised {
  /** When it was done last; null for not yet. */
  at: string | null;
  rows: BeforeAndAfter[];
}

/**
 * What was logged of hiss and second harmonic last before the heads were demagnetised and first after it, with the same
 * blank tape, source and channel. What else was turned or done in between may have done it as well: that is said, and
 * nothing concluded.
 */
export function demagnetised(records: JobRecords): Demagnetised {
  const done = inForce(records.adjustments).filter(({ turns }) => turns !== 0);
  const at = done.findLast(({ adjusterId }) => adjusterId === DEMAGNETISE)?.at ?? null;
  const others = done.filter(({ adjusterId }) => adjusterId !== DEMAGNETISE).map((one) => one.at);
  const readings = inForce(records.readings);
  const rows = WITNESSES.flatMap((quantity) => {
    const mine = readings.filter((reading) => reading.quantity === quantity);
    const withIt = readings.filter((reading) => reading.quantity === LOGGED_WITH[quantity]);
    const channels = [...new Set([...mine, ...withIt].map(({ context }) => context.channel))].toSorted();
    return (channels.length > 0 ? channels : [""]).map((channel): BeforeAndAfter => {
      const heard = mine.filter(({ context }) => context.channel === channel);
      const isBefore = (one: Reading) => at === null || one.at < at;
      const before = heard.findLast(isBefore) ?? null;
      const isAfter = (one: Reading) => at !== null && one.at > at && (!before || alike(before, one));
      const after = heard.find(isAfter) ?? null;
      const between = before && after && others.some((other) => other > before.at && other < after.at);
      const measured = (isThen: (one: Reading) => boolean) =>
        withIt.some((one) => one.context.channel === channel && isThen(one));
      const inNoise = {
        before: before === null && measured(isBefore),
        after: after === null && measured(isAfter),
      };
      const { name, unit, decimals } = quantityOf(quantity);
      const says = before && after && (between ? "not by this alone" : changed(before, after));
      return { quantity, name, unit, decimals, channel, before, after, inNoise, says };
    });
  });
  return { at, rows };
}

/** Of the same tape, way and switches: what differs is the machine's. */
const alike = (a: Reading, b: Reading): boolean => circumstancesOf(a) === circumstancesOf(b);

const circumstancesOf = ({ context, source }: Reading): string =>
  JSON.stringify([
    context.recordingOn,
    context.speedCmPerS,
    context.side,
    context.head,
    context.switchedOn ?? [],
    source.kind,
  ]);

/** More than both together may be off by is a change. */
function changed(before: Reading, after: Reading): "fell" | "as before" | "rose" {
  const by = after.value - before.value;
  if (Math.abs(by) <= Math.hypot(before.uncertainty, after.uncertainty)) return "as before";
  return by < 0 ? "fell" : "rose";
}

/** What the two witnesses say together, in a sentence; null while neither can say anything. */
export function demagnetisingSays({ at, rows }: Demagnetised): string | null {
  if (at === null) return null;
  const told = rows.flatMap(({ says }) => says ?? []);
  if (told.length === 0) return null;
  if (told.includes("rose"))
    return "Something rose: the tool may have been switched off too near the head. Do it once more, and draw it off slowly.";
  if (told.includes("fell")) return "The heads were magnetised, and are less so now.";
  if (told.includes("not by this alone"))
    return "Something else was done in between: what changed cannot be told from demagnetising alone.";
  return "No change that can be told: the heads were hardly magnetised.";
}
