/** How the guide tone sounds for a reading. */
export interface GuideSound {
  /** Of the moving tone. */
  frequencyHz: number;
  /** Loudness comes and goes so often in a second; 0 for a steady tone. */
  beatHz: number;
  /** −1 left (too low) to +1 right (too high). */
  pan: number;
}

/** What the moving tone comes down to. */
export const REFERENCE_HZ = 440;
const OCTAVES = 1.5;
/** So many windows away the tone is as high as it gets. */
const FAR = 20;
const FASTEST_BEAT_HZ = 6;

/**
 * Pitch falls to a steady reference as the reading nears its target; within the window it beats, slower the nearer;
 * the side tells which way it is off.
 * @param distance reading less target, @param window half the width within which it passes, both in one unit
 */
export function guideSound(distance: number, window: number): GuideSound {
  const windows = Math.abs(distance) / Math.max(window, 1e-9);
  const pan = distance === 0 ? 0 : Math.sign(distance) * Math.min(1, 0.35 + 0.65 * Math.min(1, windows));
  if (windows <= 1)
    return { frequencyHz: REFERENCE_HZ, beatHz: FASTEST_BEAT_HZ * windows, pan: windows * pan };
  const height = Math.log(Math.min(windows, FAR)) / Math.log(FAR);
  return { frequencyHz: REFERENCE_HZ * 2 ** (OCTAVES * height), beatHz: 0, pan };
}
