import { azimuth } from "./azimuth";
import { bias } from "./bias";
import { clean } from "./clean";
import { distortion } from "./distortion";
import { erase } from "./erase";
import { functions } from "./functions";
import { flutter } from "./flutter";
import { intake } from "./intake";
import { level } from "./level";
import { noise } from "./noise";
import { listening } from "./listening";
import { oscillator } from "./oscillator";
import { path } from "./path";
import { recordLevel } from "./record-level";
import { recordResponse } from "./record-response";
import { reduction } from "./reduction";
import { response } from "./response";
import { service } from "./service";
import { settings } from "./settings";
import { sheet } from "./sheet";
import { speed } from "./speed";

/** Every station, in working order. */
export const STATIONS = [
  intake,
  service,
  path,
  clean,
  speed,
  flutter,
  azimuth,
  level,
  response,
  bias,
  recordLevel,
  recordResponse,
  distortion,
  erase,
  oscillator,
  noise,
  reduction,
  settings,
  functions,
  listening,
  sheet,
] as const;

type Registered = (typeof STATIONS)[number];
export type StationId = Registered["id"];
export type MeasuringStationId = Extract<Registered, { kind: "measure" }>["id"];
export type ChecklistStationId = Extract<Registered, { kind: "checklist" }>["id"];
