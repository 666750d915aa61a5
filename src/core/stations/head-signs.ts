import type { HeadSigns } from "@/core/advice/head-hints";
import { inForce, type JobRecords } from "@/core/records/job-records";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";

const MIDDLE_HZ = 400;
const TREBLE_HZ = 10_000;
const WITHIN = 3;
const TREBLE_FROM_HZ = 4000;

/** What the tones that were heard say of how the head stands. */
export function headSigns(
  { readings }: Pick<JobRecords, "readings">,
  { now }: PlaybackNumbers,
  usualWanderDegrees: number,
): HeadSigns {
  const pairs = now.tones.filter(({ pair, index }) => index >= 0 && pair.channels.length === 2);
  const nearest = (hz: number) =>
    pairs.toSorted(
      (a, b) => Math.abs(Math.log(a.band.frequencyHz / hz)) - Math.abs(Math.log(b.band.frequencyHz / hz)),
    )[0];
  const balance = ({ pair: { channels }, band }: (typeof pairs)[number]) =>
    channels[0].levelDbfs -
    channels[1].levelDbfs -
    (band.correctionDb ? band.correctionDb.left - band.correctionDb.right : 0);
  const middle = pairs.length > 0 ? nearest(MIDDLE_HZ) : undefined;
  const top = pairs.length > 0 ? nearest(TREBLE_HZ) : undefined;
  const treble = top && top.band.frequencyHz >= TREBLE_FROM_HZ ? top : undefined;
  const inMiddle = middle && middle.band.frequencyHz < WITHIN * MIDDLE_HZ ? middle : undefined;
  const sides = inForce(readings).filter(({ quantity }) => quantity === "level.balance");
  const last = sides.at(-1);
  const other = sides.findLast(
    ({ context }) => context.side !== undefined && context.side !== last?.context.side,
  );
  return {
    middleBalanceDb: inMiddle ? balance(inMiddle) : null,
    trebleBalanceDb: treble ? balance(treble) : null,
    trebleSpreadDb: treble ? [treble.pair.channels[0].spreadDb, treble.pair.channels[1].spreadDb] : null,
    wanderDegrees: now.phase?.spreadDegrees ?? null,
    usualWanderDegrees,
    otherMiddleBalanceDb: other?.value ?? null,
  };
}
