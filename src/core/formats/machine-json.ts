import * as z from "@/core/text/zod";
import { machineSchema, type Machine } from "@/core/records/machine";
import { readJsonFile } from "./json-file";

/** A machine file: what is known of a machine, of which only a name and a speed have to be there. */
const machineFileSchema = z.object({
  format: z.literal("unzel-machine"),
  version: z.literal(1),
  ...machineSchema.shape,
  toleranceClass: machineSchema.shape.toleranceClass.default("hifi"),
});

/** One machine as a JSON file. */
export const writeMachineJson = (machine: Machine): string =>
  `${JSON.stringify({ format: "unzel-machine", version: 1, ...machine }, null, 1)}\n`;

/**
 * Reads a machine file.
 * @throws ImportError saying what is wrong and what to do
 */
export const readMachineJson = (text: string): Machine =>
  machineSchema.parse(readJsonFile(text, machineFileSchema, "machine"));
