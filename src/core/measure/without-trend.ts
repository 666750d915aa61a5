import type { Samples } from "@/core/dsp/signal";
import { valuesOf, valuesWithoutTrend } from "./values";

/** All of a deviation at once as `valuesWithoutTrend` makes it. */
export const withoutTrend = (deviation: Samples): Float64Array =>
  valuesWithoutTrend(valuesOf(deviation)).read(0, deviation.length);
