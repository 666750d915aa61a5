import type { Samples } from "@/core/dsp/signal";

/** Of one or two channels the one with more power in it; of equal ones the first. */
export function louder<S extends Samples>(channels: readonly S[]): S {
  const power = (x: S) => {
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += x[i] * x[i];
    return sum;
  };
  return channels.length === 1 || power(channels[0]) >= power(channels[1]) ? channels[0] : channels[1];
}
