import type { Machine } from "@/core/records/machine";
import { readMachineJson } from "@/core/formats/machine-json";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { knownOrFile } from "./known-or-file";

/**
 * A machine by the name of its JSON file or by its id.
 * @throws UsageError when it is neither, ImportError when the file cannot be used
 */
export const machineArgument = (given: string): Promise<Machine> =>
  knownOrFile(given, "machine", DEMO_MACHINES, readMachineJson);
