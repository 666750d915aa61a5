import { machineSchema, type Machine } from "@/core/records/machine";
import { readMachineJson } from "@/core/formats/machine-json";
import { database } from "./database";
import { writes } from "./kept-writes";
import { addNew, type Differing } from "./offered-records";

export async function saveMachine(machine: Machine): Promise<void> {
  await database.machines.put(machineSchema.parse(machine));
}

/** Changes single fields of a machine by what it is when its turn comes; one that is gone is left alone. */
export const changeMachine = (id: string, to: (machine: Machine) => Partial<Machine>): Promise<void> =>
  writes.write("what is known of a machine", () =>
    database.transaction("rw", database.machines, async () => {
      const machine = await database.machines.get(id);
      if (machine) await saveMachine({ ...machine, ...to(machine) });
    }),
  );

/** Deletes a machine unless a job is about it. @throws Error saying which job is */
export async function deleteMachine(id: string): Promise<void> {
  await database.transaction("rw", database.machines, database.jobs, async () => {
    const job = await database.jobs.where("machineId").equals(id).first();
    if (job) throw new Error(`Job ${job.number} is about this machine, so it has to stay.`);
    await database.machines.delete(id);
  });
}

/**
 * Imports a machine file. One that is here already stays as it is: what of it differs is returned, to be taken or not.
 * @throws ImportError saying what is wrong and what to do
 */
export async function importMachine(text: string): Promise<{ machine: Machine; differing: Differing[] }> {
  const machine = readMachineJson(text);
  return { machine, differing: await addNew("machines", [machine]) };
}
