import type { Adjuster, Machine } from "@/core/records/machine";
import { USUAL_WORK } from "@/core/records/usual-work";
import { practiceMachine } from "@/core/simulator/practice-machines";
import { practiceParts } from "./practice-parts";

const turned = (
  sets: Adjuster["sets"],
  id: string,
  name: string,
  where: string,
  acts: Pick<Adjuster, "channel" | "side"> = {},
): Adjuster => ({ id, name, where, sets, kind: "turn", ...acts });

/** Level and equaliser trimmers of both channels in a row on one board. */
const playbackTrimmers = (where: string): Adjuster[] => [
  turned("level", "level-left", "PB LEVEL L", `${where}, first from the left.`, { channel: "left" }),
  turned("level", "level-right", "PB LEVEL R", `${where}, second.`, { channel: "right" }),
  turned("response", "equaliser-left", "PB EQ L", `${where}, third.`, { channel: "left" }),
  turned("response", "equaliser-right", "PB EQ R", `${where}, fourth.`, { channel: "right" }),
];

const RECORD_KINDS = [
  ["bias", "bias", "BIAS"],
  ["record-level", "record-level", "REC LEVEL"],
  ["record-response", "record-equaliser", "REC EQ"],
] as const;

/** Bias, record level and equaliser trimmers of both channels; for one type of tape, or for every one. */
const recordTrimmers = (where: string, tapeType?: Adjuster["tapeType"]): Adjuster[] =>
  RECORD_KINDS.flatMap(([sets, id, name]) =>
    (["left", "right"] as const).map((channel) => {
      const side = channel === "left" ? "L" : "R";
      const of = tapeType ? { id: `-${tapeType.toLowerCase()}`, name: ` ${tapeType}` } : { id: "", name: "" };
      return {
        ...turned(
          sets,
          `${id}-${channel}${of.id}`,
          `${name} ${side}${of.name}`,
          `${where}${tapeType ? `, row of type ${tapeType}` : ""}, on the ${channel}.`,
          { channel },
        ),
        ...(tapeType && { tapeType }),
      };
    }),
  );

/** Parts and tracks as the practice machine of the same name has them. */
function measuredOn(id: string): Pick<Machine, "parts" | "tracks"> {
  const { transport } = practiceMachine(id);
  return {
    parts: practiceParts(transport),
    tracks: { widthMm: transport["head.trackWidthMm"], spacingMm: transport["head.trackSpacingMm"] },
  };
}

const OPERATING_LEVEL = { fluxivityNwbPerM: 250, method: "din", outputDbu: 0 } as const;

/** The machines of the demo workshop. */
export const DEMO_MACHINES: Machine[] = [
  {
    id: "tarnvik-t-2",
    monitorsTape: true,
    name: "Tarnvik T-2",
    description: "Quarter-inch half-track stereo recorder, three heads.",
    without: ["door", "cue", "memory", "safety"],
    speedsCmPerS: [19.05, 38.1],
    toleranceClass: "studio",
    limits: {},
    channels: 2,
    operatingLevel: { ...OPERATING_LEVEL, fluxivityNwbPerM: 320 },
    headInductanceMh: 100,
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
      turned(
        "azimuth",
        "azimuth",
        "AZIMUTH",
        "Beside the playback head, under the cover; the sprung one of the two screws.",
      ),
      ...playbackTrimmers("Playback card of the electronics tray"),
      ...recordTrimmers("Record card of the electronics tray, upper row"),
      ...USUAL_WORK,
    ],
  },
  {
    id: "ellesby-c-3h",
    monitorsTape: true,
    name: "Ellesby C-3H",
    description: "Three-head cassette recorder with two capstans.",
    switches: { reduction: "NOISE RED", multiplex: "MPX", headroom: "HEADROOM" },
    speedsCmPerS: [4.76],
    toleranceClass: "hifi",
    limits: { flutterPercent: 0.08 },
    dualCapstan: true,
    channels: 2,
    operatingLevel: OPERATING_LEVEL,
    headInductanceMh: 100,
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
      turned("azimuth", "azimuth", "AZ P", "Right of the playback head, through the hole in the head cover."),
      ...playbackTrimmers("Rear edge of the main board"),
      ...(["I", "II", "IV"] as const).flatMap((type) =>
        recordTrimmers("Behind the front panel, below the input knobs", type),
      ),
      { ...turned("settings", "knob-bias", "BIAS", "Small knob on the front, left of two."), knob: "bias" },
      {
        ...turned("settings", "knob-level", "REC CAL", "Small knob on the front, right of two."),
        knob: "level",
      },
      ...USUAL_WORK,
    ],
  },
  {
    id: "ellesby-c-1r",
    records: true,
    name: "Ellesby C-1R",
    description: "Two-head auto-reverse cassette player and recorder.",
    switches: { reduction: "NR", multiplex: "FILTER" },
    speedsCmPerS: [4.76],
    toleranceClass: "hifi",
    limits: {},
    channels: 2,
    operatingLevel: OPERATING_LEVEL,
    headInductanceMh: 100,
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
      turned(
        "azimuth",
        "azimuth-forward",
        "AZ FWD",
        "Left of the head, reached with the door off. Thin blade.",
        { side: "A" },
      ),
      turned("azimuth", "azimuth-reverse", "AZ REV", "Right of the head. Thin blade.", { side: "B" }),
      ...playbackTrimmers("Main board, behind the head cable"),
      ...(["I", "II"] as const).flatMap((type) => recordTrimmers("Record board under the mechanism", type)),
      ...USUAL_WORK,
    ],
  },
  {
    id: "marrow-field-7",
    name: "Marrow Field 7",
    description: "Mono portable cassette recorder of the interview kit.",
    without: ["memory", "outputs"],
    speedsCmPerS: [4.76],
    toleranceClass: "portable",
    limits: {},
    channels: 1,
    operatingLevel: OPERATING_LEVEL,
    headInductanceMh: 100,
    flutterMeter: "peak",
    ...measuredOn("marrow-field-7"),
    tracks: null,
    adjusters: [
      {
        id: "speed",
        name: "Motor trimmer",
        where: "Through the battery compartment, beside the motor.",
        sets: "speed",
        kind: "turn",
      },
      turned(
        "azimuth",
        "azimuth",
        "Head screw",
        "Through the slot above the play key; the sprung side of the head.",
      ),
      turned("level", "level", "Level trimmer", "Centre of the only board."),
      ...USUAL_WORK,
    ],
  },
];
