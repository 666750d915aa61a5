import type { ChecklistStation } from "./station";

export const path: ChecklistStation<"path"> = {
  id: "path",
  kind: "checklist",
  name: "Path",
  group: "workshop",
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
};
