import { recordsTape, type Machine } from "@/core/records/machine";
import { functionsFor, functionsStanding, type FunctionId } from "@/core/workshop/function-trial";
import type { ChecklistStation } from "./station";

/** What a machine is to be tried for. */
export const functionsOf = (machine: Machine): FunctionId[] =>
  functionsFor(
    {
      // each direction has something of its own to set
      reverses: machine.adjusters.some(({ side }) => side === "B"),
      records: recordsTape(machine),
      severalSpeeds: machine.speedsCmPerS.length > 1,
    },
    machine.without ?? [],
  );

export const functions: ChecklistStation<"functions"> = {
  id: "functions",
  kind: "checklist",
  name: "Functions",
  group: "finish",
  listensTo: "mechanism",
  upsets: [],
  setUp: [
    "A worthless tape, wound to one end. One run of each is enough: an old mechanism is not exercised.",
    "As found early, before it is taken apart; as left when all is in its place.",
  ],
  checks: [],
  caution: "Moving reels and belts catch sleeves and hair. A tape that loops is taken out at once.",
  standing: ({ job, machine }) => functionsStanding(job.functionTrials ?? [], functionsOf(machine)),
};
