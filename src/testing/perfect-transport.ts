import { practiceMachine } from "@/core/simulator/practice-machines";
import type { TransportParameters } from "@/core/simulator/transport-parameters";

/** A perfect cassette transport: what a test sets is the only thing wrong with it. */
export const PERFECT_TRANSPORT: TransportParameters = {
  ...practiceMachine("ellesby-c-1r").transport,
  "warmUp.percent": 0,
  "startUp.seconds": 0,
  "wander.percent": 0,
  "capstan.eccentricityPercent": 0,
  "pinchRoller.eccentricityPercent": 0,
  "motor.cogPercent": 0,
  "reel.eccentricityPercent": 0,
  "scrape.percent": 0,
  "noise.db": -120,
  "hum.db": -120,
  "head.crosstalkDb": -120,
};
