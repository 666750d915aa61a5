import { butterworthHighpass, SectionFilter } from "@/core/dsp/filter-section";
import { flutterWeighting } from "@/core/standards/flutter-weighting";
import { eachPiece, readMirrored, type Values } from "@/core/dsp/values";

export type FlutterPath = "weighted" | "unweighted";

/** Slower changes are drift, not wow; with this corner 0.2 Hz is 0.3 dB down and 0.3 Hz 0.05 dB. */
const DRIFT_CORNER_HZ = 0.1;
/** The filters are run in on this much of the signal, mirrored. */
const RUN_IN_SECONDS = 10;
/** What the drift filter remembers, and that is less than a hundred thousandth of it afterwards. */
const DRIFT_SECONDS = 30;
/** Read at once there, so that not much has to be filtered twice. */
const DRIFT_PIECE = 1 << 17;
/** Left out at either end, at most this share of the stretch, so that no meter shows its own settling. */
const SETTLING_SECONDS = { weighted: 4, unweighted: 8 };
const SETTLING_SHARE = { weighted: 0.2, unweighted: 0.3 };

/** What of a stretch the meters of a path read, from one place up to another: its ends are left out. */
export function readPlaces(path: FlutterPath, length: number, rateHz: number): { from: number; to: number } {
  const settling = Math.round(Math.min(SETTLING_SECONDS[path] * rateHz, SETTLING_SHARE[path] * length));
  return { from: settling, to: length - settling };
}

/**
 * Runs a deviation without its trend through one of both paths and hands on the result piece by piece in its order, with
 * the place that each begins at: from before the first value, where the filters run in, to the last that is read.
 * Nothing may be kept of a piece: the next is made in the same room.
 */
export function throughPath(
  path: FlutterPath,
  steady: Values,
  rateHz: number,
  take: (piece: Float64Array, at: number) => void,
): void {
  const { length } = steady;
  const run = Math.min(length - 1, Math.round(RUN_IN_SECONDS * rateHz));
  const last = readPlaces(path, length, rateHz).to;
  switch (path) {
    case "weighted": {
      const sections = flutterWeighting(rateHz).map((section) => new SectionFilter(section));
      return eachPiece(steady, { from: -run, to: last }, (piece, at) => {
        for (const section of sections) section.push(piece);
        take(piece, at);
      });
    }
    case "unweighted": {
      // Drift is taken out with the filter running from the end to the start: a one-sided pulse then sags
      // before its peak instead of after it, which is what the quasi-peak dynamics are stated for.
      const remembers = Math.round(DRIFT_SECONDS * rateHz);
      const room = new Float64Array(Math.min(DRIFT_PIECE + remembers, length + 2 * run));
      for (let from = -run; from < last; from += DRIFT_PIECE) {
        const to = Math.min(last, from + DRIFT_PIECE);
        const behind = Math.min(length + run, to + remembers);
        const piece = readMirrored(steady, from, room.subarray(0, behind - from)).reverse();
        new SectionFilter(butterworthHighpass(DRIFT_CORNER_HZ, rateHz)).push(piece);
        take(piece.reverse().subarray(0, to - from), from);
      }
      return;
    }
  }
}
