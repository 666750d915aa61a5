/** Where the tracks of a head sit; typical figures, a machine may have its own (IEC 60094-4, IEC 60094-7). */
export const TRACK_FORMATS = [
  { id: "cassette", name: "cassette, stereo", widthMm: 0.6, spacingMm: 0.9 },
  { id: "quarter-track", name: "quarter-inch, quarter-track stereo", widthMm: 1, spacingMm: 3.4 },
  { id: "two-track-wide", name: "quarter-inch, two-track, wide guard", widthMm: 2.1, spacingMm: 4 },
  { id: "two-track-narrow", name: "quarter-inch, two-track, narrow guard", widthMm: 2.75, spacingMm: 3.5 },
] as const;
export type TrackFormat = (typeof TRACK_FORMATS)[number];

const CASSETTE_BELOW_CM_PER_S = 7;

/** The format that a tape speed usually goes with. */
export const usualFormat = (speedCmPerS: number): TrackFormat =>
  TRACK_FORMATS[speedCmPerS < CASSETTE_BELOW_CM_PER_S ? 0 : 2];
