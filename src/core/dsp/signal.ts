/** Evenly spaced numbers; where nothing else is said the sound of one channel, full scale = ±1. */
export type Samples = Float32Array | Float64Array;

/** Sampled sound: one array per channel, all of one length, full scale = ±1. */
export interface Signal {
  sampleRateHz: number;
  channels: Float64Array[];
}
