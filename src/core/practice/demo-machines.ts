import type { Machine } from "@/core/alignment/records";
import { practiceMachine } from "@/core/machine/practice-machines";
import { practiceParts } from "./practice-parts";

const work = (id: string, name: string): Machine["adjusters"][number] => ({
  id,
  name,
  where: "",
  sets: "flutter",
  kind: "work",
});

/** Parts and tracks as the practice machine of the same name has them. */
function measuredOn(id: string): Pick<Machine, "parts" | "tracks"> {
  const { transport } = practiceMachine(id);
  return {
    parts: practiceParts(transport),
    tracks: { widthMm: transport["head.trackWidthMm"], spacingMm: transport["head.trackSpacingMm"] },
  };
}

const SERVICE_WORK = [
  work("clean-capstan", "Cleaned capstan and pinch roller"),
  work("belt", "Replaced the belt"),
  work("roller", "Replaced the pinch roller"),
];

/** The machines of the demo workshop. */
export const DEMO_MACHINES: Machine[] = [
  {
    id: "tarnvik-t-2",
    name: "Tarnvik T-2",
    description: "Quarter-inch half-track stereo recorder, three heads.",
    speedsCmPerS: [19.05, 38.1],
    toleranceClass: "studio",
    limits: {},
    flutterMeter: "peak",
    ...measuredOn("tarnvik-t-2"),
    adjusters: [
      {
        id: "speed-19",
        name: "SPEED 19",
        where: "Grey trimmer on the capstan board, behind the left reel motor. Plastic blade.",
        sets: "speed",
        kind: "turn",
      },
      {
        id: "speed-38",
        name: "SPEED 38",
        where: "Beside SPEED 19, nearer the edge. The two hang on one supply: each moves both speeds.",
        sets: "speed",
        kind: "turn",
      },
      ...SERVICE_WORK,
    ],
  },
  {
    id: "ellesby-c-3h",
    name: "Ellesby C-3H",
    description: "Three-head cassette recorder with two capstans.",
    speedsCmPerS: [4.76],
    toleranceClass: "hifi",
    limits: { flutterPercent: 0.08 },
    flutterMeter: "rms",
    ...measuredOn("ellesby-c-3h"),
    adjusters: [
      {
        id: "speed",
        name: "VR 3",
        where: "Left edge of the motor control board, under the bridge.",
        sets: "speed",
        kind: "turn",
      },
      ...SERVICE_WORK,
    ],
  },
  {
    id: "ellesby-c-1r",
    name: "Ellesby C-1R",
    description: "Two-head auto-reverse cassette player and recorder.",
    speedsCmPerS: [4.76],
    toleranceClass: "hifi",
    limits: {},
    flutterMeter: "peak",
    ...measuredOn("ellesby-c-1r"),
    adjusters: [
      {
        id: "speed",
        name: "SPEED",
        where: "Behind the hole in the motor cap. Thin insulated blade.",
        sets: "speed",
        kind: "turn",
      },
      ...SERVICE_WORK,
    ],
  },
  {
    id: "marrow-field-7",
    name: "Marrow Field 7",
    description: "Mono portable cassette recorder of the interview kit.",
    speedsCmPerS: [4.76],
    toleranceClass: "portable",
    limits: {},
    flutterMeter: "peak",
    ...measuredOn("marrow-field-7"),
    adjusters: [
      {
        id: "speed",
        name: "Motor trimmer",
        where: "Through the battery compartment, beside the motor.",
        sets: "speed",
        kind: "turn",
      },
      ...SERVICE_WORK,
    ],
  },
];
