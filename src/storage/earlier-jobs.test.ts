import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { aJob, aMachine, aReading } from "@/testing/records";
import { database } from "./database";
import { earlierJobs } from "./earlier-jobs";

const day = (n: number) => `2026-11-${String(n).padStart(2, "0")}T10:00:00.000Z`;

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
  await database.machines.bulkAdd([aMachine(), aMachine({ id: "m2", name: "Ellesby C-1R" })]);
  await database.jobs.bulkAdd([
    aJob({ id: "a", number: "1", updatedAt: day(1), contact: "Transfer room, ext. 31" }),
    aJob({ id: "b", number: "2", updatedAt: day(3) }),
    aJob({ id: "c", number: "3", machineId: "m2", updatedAt: day(2), contact: "transfer room" }),
    aJob({ id: "d", number: "4", machineId: "gone", updatedAt: day(4) }),
  ]);
  await database.readings.bulkAdd([aReading({ jobId: "b" }), aReading({ jobId: "c" })]);
});

const found = async (machineId: string | null, contact: string) =>
  (await earlierJobs(machineId, contact)).map(({ records, by }) => [
    records.job.number,
    by,
    records.readings.length,
  ]);

describe("jobs that were here before", () => {
  it.each<[string, string | null, string, unknown[]]>([
    ["nothing is known yet", null, "", []],
    [
      "the same machine, the latest first",
      "m1",
      "",
      [
        ["2", "machine", 1],
        ["1", "machine", 0],
      ],
    ],
    [
      "the same owner, however it is written",
      null,
      " TRANSFER ROOM ",
      [
        ["3", "owner", 1],
        ["1", "owner", 0],
      ],
    ],
    [
      "both",
      "m1",
      "transfer room",
      [
        ["2", "machine", 1],
        ["3", "owner", 1],
        ["1", "owner", 0],
      ],
    ],
    ["two letters are of too many", null, "tr", []],
    ["a machine that is no longer here", "gone", "", [["4", "machine", 0]]],
  ])("%s", async (_, machineId, contact, jobs) => {
    expect(await found(machineId, contact)).toEqual(jobs);
  });
});
