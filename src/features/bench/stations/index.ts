import type { MeasuringStationId } from "@/core/stations";
import { azimuth } from "./azimuth";
import { bias } from "./bias";
import { distortion } from "./distortion";
import { erase } from "./erase";
import { flutter } from "./flutter";
import { level } from "./level";
import { noise } from "./noise";
import { oscillator } from "./oscillator";
import { reduction } from "./reduction";
import { settings } from "./settings";
import type { StationPicture } from "./picture";
import { recordLevel } from "./record-level";
import { recordResponse } from "./record-response";
import { response } from "./response";
import { speed } from "./speed";

/** The picture of every station that measures: one that is forgotten does not compile. */
export const PICTURES: { readonly [Id in MeasuringStationId]: StationPicture } = {
  speed,
  flutter,
  azimuth,
  level,
  response,
  bias,
  "record-level": recordLevel,
  "record-response": recordResponse,
  distortion,
  erase,
  oscillator,
  noise,
  reduction,
  settings,
};
