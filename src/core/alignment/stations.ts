import type { Job, StationId } from "./records";

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
    upsets: ["speed", "flutter", "azimuth"],
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
    upsets: ["flutter", "azimuth", "level", "response"],
    setUp: [
      "Watch a worthless tape run through every guide, in each direction.",
      "Set heights with the gauge; seal what was set, and write it down.",
    ],
    checks: [
      "Guides, rollers and lifters move freely; no groove, no old grease",
      "Height of every guide and head gauged, in each direction",
      "No edge curl at any guide, at the start and at the end of a reel",
      "Heads upright (zenith) and the tape in the middle of the tracks (height)",
      "Take-up and hold-back tension even, with the gauge where there is one",
      "What was set is sealed",
    ],
    caution: "Moving reels and belts catch sleeves and hair. Stop the machine before a gauge goes in.",
  },
  {
    id: "clean",
    name: "Clean",
    kind: "checklist",
    upsets: [],
    setUp: ["Before any reference tape is loaded, and again when the treble falls."],
    checks: [
      "Heads, guides and lifters cleaned, wiped dry",
      "Capstan cleaned; pinch roller with a rubber cleaner, or isopropyl wiped dry at once",
      "Reference tapes and their boxes out of the room",
      "Machine unpowered; heads, capstan and guides demagnetised, tool drawn off slowly",
      "A worthless tape played afterwards: no hiss that rises, no squeal, no brown residue",
    ],
    caution:
      "Solvents: ventilate, gloves, no flame. Demagnetiser: power off, tapes and pacemakers away, switch it off an arm's length away. A tape that sheds or squeals is not played on.",
  },
  {
    id: "speed",
    name: "Speed",
    kind: "measure",
    upsets: ["speed", "flutter", "azimuth", "level", "response"],
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
  {
    id: "azimuth",
    name: "Azimuth",
    kind: "measure",
    upsets: ["azimuth", "level", "response"],
    setUp: [
      "Play the tones of the tape from the lowest up; then stay on the one at 10 kHz and turn.",
      "Each direction for itself. One channel: the loudest point of a low tone first, then of the treble.",
    ],
    checks: [],
    caution: "A screwdriver near the head: not magnetic, and never across the gap.",
  },
  {
    id: "level",
    name: "Level",
    kind: "measure",
    upsets: ["level", "response"],
    setUp: ["Play the reference fluxivity band. Output level controls at their mark."],
    checks: [],
    caution: MAINS,
  },
  {
    id: "response",
    name: "Response",
    kind: "measure",
    upsets: ["level", "response"],
    setUp: [
      "Play the frequency bands through; they fill in by themselves.",
      "Turn the equaliser on a high band, then play all of them again.",
    ],
    checks: [],
    caution: MAINS,
  },
  { id: "sheet", name: "Sheet", kind: "sheet", upsets: [], setUp: [], checks: [], caution: null },
];

export const stationById = (id: string): Station | undefined => ROUTE.find((station) => station.id === id);

/** The stations of a job in working order, without those that it leaves out. */
export const routeOf = ({ leftOut = [] }: Pick<Job, "leftOut">): readonly Station[] =>
  ROUTE.filter(({ id }) => !leftOut.includes(id));
