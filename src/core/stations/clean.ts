import type { ChecklistStation } from "./station";

export const clean: ChecklistStation<"clean"> = {
  id: "clean",
  kind: "checklist",
  name: "Clean",
  group: "workshop",
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
};
