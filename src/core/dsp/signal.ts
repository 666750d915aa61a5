/** Sampled sound: one array per channel, all of one length, full scale = ±1. */
export interface Signal {
  sampleRateHz: number;
  channels: Float64Array[];
}
