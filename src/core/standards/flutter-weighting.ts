import { digitalSection, gainAt, prewarp, type AnalogSection, type Section } from "@/core/dsp/filter-section";

/**
 * Weighting of wow and flutter: response in dB to a sinusoidal deviation of the given rate in Hz
 * (IEC 60386, DIN 45507, AES6).
 */
export const FLUTTER_WEIGHTING_DB: ReadonlyArray<readonly [rateHz: number, db: number]> = [
  [0.1, -48],
  [0.2, -30.6],
  [0.315, -19.7],
  [0.4, -15.0],
  [0.63, -8.4],
  [0.8, -6.0],
  [1, -4.2],
  [1.6, -1.8],
  [2, -0.9],
  [4, 0],
  [6.3, -0.9],
  [10, -2.1],
  [20, -5.9],
  [40, -10.4],
  [63, -14.2],
  [100, -17.3],
  [200, -23.0],
];

/** Carriers in use: IEC 60386, DIN 45507 and AES6 say 3150 Hz; JIS C 5551, NAB and older tapes 3000 Hz. */
export const FLUTTER_CARRIERS_HZ = [3150, 3000] as const;

const ZERO_INWARDS = 0.15;

/**
 * The weighting as filter sections: three zeros at 0 Hz, one at 33.3 Hz, five poles, fitted to the table
 * (largest error 0.3 dB) and scaled to exactly 1 at 4 Hz.
 */
export function flutterWeighting(sampleRateHz: number): Section[] {
  const low = prewarp(0.44066654, sampleRateHz);
  const middle = prewarp(3.63033621, sampleRateHz);
  const zero = prewarp(33.31174564, sampleRateHz);
  const high = prewarp(45.7934547, sampleRateHz);
  const analog: AnalogSection[] = [
    { numerator: [1, 0, 0], denominator: [1, low / 0.65958657, low * low] },
    { numerator: [0, 1, 0], denominator: [1, middle / 0.35647957, middle * middle] },
    { numerator: [0, 1, zero], denominator: [0, 1, high] },
  ];
  const sections = analog.map((section) => digitalSection(section, sampleRateHz));
  // The bilinear transform puts the zero that belongs to infinity at half the rate, which pulls 200 Hz down;
  // moved inwards, z = −0.15, the response follows the table again at every rate from 1600 Hz up.
  sections[1] = {
    ...sections[1],
    b1: sections[1].b0 * (ZERO_INWARDS - 1),
    b2: -sections[1].b0 * ZERO_INWARDS,
  };
  const scale = 1 / gainAt(sections, 4, sampleRateHz);
  const [first, ...rest] = sections;
  return [{ ...first, b0: first.b0 * scale, b1: first.b1 * scale, b2: first.b2 * scale }, ...rest];
}
