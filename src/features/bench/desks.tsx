import type { ComponentType } from "react";
import type { ChecklistStationId } from "@/core/stations";
import { CleanDesk } from "../workshop/clean-desk";
import { FunctionsDesk } from "../workshop/functions-desk";
import { IntakeDesk } from "../workshop/intake-desk";
import { ListeningDesk } from "../workshop/listening-desk";
import { ServiceDesk } from "../workshop/service-desk";
import { Checklist, type ChecklistProps } from "./checklist";
import { PathLog } from "./path-log";

/** What stands in the middle of the bench where eyes and hands do the work. */
const DESKS: { readonly [Id in ChecklistStationId]: ComponentType<ChecklistProps> } = {
  intake: IntakeDesk,
  service: ServiceDesk,
  path: PathDesk,
  clean: CleanDesk,
  functions: FunctionsDesk,
  listening: ListeningDesk,
};

/** The tape path: its lines, and what was gauged at guides and heads. */
function PathDesk(props: ChecklistProps) {
  return (
    <Checklist {...props}>
      <PathLog view={props.view} />
    </Checklist>
  );
}

/** The desk of a station; nothing for one that measures, which has its picture. */
export function Desk(props: ChecklistProps) {
  const { kind, id } = props.station;
  if (kind !== "checklist") return null;
  const Own = DESKS[id as ChecklistStationId];
  return <Own {...props} />;
}
