import type { ChecklistStation } from "./station";

export const intake: ChecklistStation<"intake"> = {
  id: "intake",
  kind: "checklist",
  name: "Intake",
  group: "workshop",
  upsets: [],
  setUp: ["Hear the complaint for yourself before anything is opened."],
  checks: [
    "Complaint reproduced",
    "Looked and smelled before power: belt, leaked cells, cracked boards",
    "What came with it is listed; no tape stuck inside",
  ],
  caution: "Leaked cells burn skin: gloves. Do not power a machine that smells burnt.",
};
