import type { Machine } from "./machine";

/** A machine of which nothing is known yet. */
export const newMachine = (id: string): Machine => ({
  id,
  name: "",
  description: "",
  speedsCmPerS: [4.76],
  toleranceClass: "hifi",
  limits: {},
  flutterMeter: "peak",
  adjusters: [],
  parts: [],
  tracks: null,
  channels: 2,
  operatingLevel: null,
});
