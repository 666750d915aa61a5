import type { Adjuster } from "./machine";

const work = (id: string, name: string, sets: Adjuster["sets"]): Adjuster => ({
  id,
  name,
  where: "",
  sets,
  kind: "work",
});

/** What is done when nothing is to be turned, on any machine: to the transport, and at the head. */
export const USUAL_WORK: readonly Adjuster[] = [
  work("clean-capstan", "Cleaned capstan and pinch roller", "flutter"),
  work("belt", "Replaced the belt", "flutter"),
  work("roller", "Replaced the pinch roller", "flutter"),
  work("clean-head", "Cleaned the head", "response"),
  work("contact", "Cleaned the contacts of the noisy channel", "response"),
  work("head-capacitor", "Changed the capacitor across the head", "response"),
  work("demagnetise", "Demagnetised heads and guides", "distortion"),
  work("record-capacitors", "Changed the capacitors of the record amplifier", "distortion"),
  work("erase-head", "Cleaned the erase head and its contacts", "erase"),
  work("reduction", "Mended the noise reduction", "reduction"),
  work("multiplex-filter", "Changed the multiplex filter", "reduction"),
  work("separation", "Parted what the channels share", "noise"),
  work("head-height", "Set the height of the head", "noise"),
  work("oscillator", "Mended the oscillator", "oscillator"),
  work("new-head", "Replaced the head", "response"),
];
