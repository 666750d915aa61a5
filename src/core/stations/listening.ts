import type { ChecklistStation } from "./station";

export const listening: ChecklistStation<"listening"> = {
  id: "listening",
  kind: "checklist",
  name: "Listening",
  group: "finish",
  listensTo: "programme",
  upsets: [],
  setUp: [
    "The same half-minute of music or speech, as found and as left, from the same place of the same tape.",
    "Source against tape: the same half-minute from each side of the monitor switch.",
  ],
  checks: [
    "Played for half an hour: nothing grows warm, nothing smells, nothing is heard that was not there before",
    "Every cover is on, every screw in its place, nothing left over",
    "Mains lead, plug and strain relief are sound",
    "Heads, guides and case wiped; fingerprints off the window",
    "What came with it lies with it; the owner's tape is out of the machine",
  ],
  caution: "Headphones: begin with the volume down. A half-minute of test tone tells the ear nothing.",
};
