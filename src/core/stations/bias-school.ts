import { HEARD_SCHOOLS, type HeardSchool } from "@/core/guidance/bias-answers";
import type { BiasSchool } from "@/core/records/job";
import type { Machine } from "@/core/records/machine";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";

/** The school that a job is set by. */
export const schoolOf = ({ biasSchool = "flatness" }: { biasSchool?: BiasSchool }): BiasSchool => biasSchool;

export const biasLimitOf = ({ limits, toleranceClass }: Machine): number =>
  limits.biasDb ?? TOLERANCE_CLASSES[toleranceClass].biasDb;

/** The school that is heard: where the maker's figure is chosen, flatness beside it. */
export const heardSchool = (school: BiasSchool): HeardSchool =>
  HEARD_SCHOOLS.find((one) => one === school) ?? "flatness";
