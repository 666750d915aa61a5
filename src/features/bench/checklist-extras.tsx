import type { ComponentType } from "react";
import type { ChecklistStationId } from "@/core/stations";
import type { JobView } from "../job/use-job-records";
import { PathLog } from "./path-log";

type Extra = ComponentType<{ view: JobView }>;

/** What a checklist has beside its lines; null for nothing. */
export const CHECKLIST_EXTRAS: { readonly [Id in ChecklistStationId]: Extra | null } = {
  intake: null,
  service: null,
  path: PathLog,
  clean: null,
};
