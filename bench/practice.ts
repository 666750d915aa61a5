import { practiceMachine } from "@/core/simulator/practice-machines";

/** The practice machine that is played for figures. */
export const PRACTICE = {
  parameters: practiceMachine("ellesby-c-1r").transport,
  toneHz: 3150,
  sampleRateHz: 48000,
};
