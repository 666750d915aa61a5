import type { Samples } from "@/core/dsp/signal";
import { allOf, valuesOf, valuesWithoutTrend } from "./values";

/** All of a deviation at once as `valuesWithoutTrend` makes it. */
export const withoutTrend = (deviation: Samples): Float64Array =>
  allOf(valuesWithoutTrend(valuesOf(deviation)));
