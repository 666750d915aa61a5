import type { StationId } from "./records";

export interface Station {
  id: StationId;
  name: string;
  kind: "checklist" | "measure" | "sheet";
  /** Stations whose readings an adjustment made here puts in doubt. */
  upsets: readonly StationId[];
  /** How to set up. */
  setUp: readonly string[];
  /** What has to be ticked. */
  checks: readonly string[];
  caution: string | null;
}

const MAINS = "Mains and stored charge inside an open machine. One hand, rings off; follow your local rules.";

/** The route in working order. */
export const ROUTE: readonly Station[] = [
  {
    id: "intake",
    name: "Intake",
    kind: "checklist",
    upsets: [],
    setUp: ["Hear the complaint for yourself before anything is opened."],
    checks: [
      "Complaint reproduced",
      "Looked and smelled before power: belt, leaked cells, cracked boards",
      "What came with it is listed; no tape stuck inside",
    ],
    caution: "Leaked cells burn skin: gloves. Do not power a machine that smells burnt.",
  },
  {
    id: "service",
    name: "Service",
    kind: "checklist",
    upsets: ["speed", "flutter"],
    setUp: ["Mechanics first: an alignment on worn rubber does not last."],
    checks: [
      "Belts, idlers and pinch roller cleaned or replaced",
      "Bearings free and lubricated",
      "Switches, contacts and battery terminals clean",
    ],
    caution: MAINS,
  },
  {
    id: "path",
    name: "Path",
    kind: "checklist",
    upsets: ["flutter"],
    setUp: ["Watch a worthless tape run through every guide, in each direction."],
    checks: ["No edge curl at any guide", "Guide and head heights gauged", "Take-up pulls evenly"],
    caution: "Moving reels and belts catch sleeves and hair.",
  },
  {
    id: "clean",
    name: "Clean",
    kind: "checklist",
    upsets: [],
    setUp: ["Before any reference tape is loaded."],
    checks: [
      "Heads, guides, capstan and pinch roller cleaned",
      "Heads demagnetised, machine unpowered",
      "Reference tapes kept away from the demagnetiser",
    ],
    caution: "Solvents: ventilate. Demagnetiser: power off, tapes and pacemakers away, draw off slowly.",
  },
  {
    id: "speed",
    name: "Speed",
    kind: "measure",
    upsets: ["speed", "flutter"],
    setUp: [
      "Machine warmed up ten minutes; pitch control at its centre click.",
      "Line out to the sound card.",
    ],
    checks: [],
    caution: MAINS,
  },
  {
    id: "flutter",
    name: "Wow and flutter",
    kind: "measure",
    upsets: ["speed", "flutter"],
    setUp: ["The same tone as for speed.", "Let it run for twenty seconds before logging."],
    checks: [],
    caution: "Moving reels, belts and fans. Stop the machine before touching rubber or capstan.",
  },
  { id: "sheet", name: "Sheet", kind: "sheet", upsets: [], setUp: [], checks: [], caution: null },
];

export const stationById = (id: string): Station | undefined => ROUTE.find((station) => station.id === id);
