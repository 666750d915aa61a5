import { SeededRandom } from "@/core/dsp/seeded-random";
import { ArchiveWriter } from "@/storage/backup/archive";
import { readBackup } from "@/storage/backup/backup";
import { faultOfReader, hostileFile, READERS, type Reader } from "@/testing/hostile-files";
import { aBundle } from "@/testing/records";

const encoded = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));

/** An archive of some tables, as bytes of JSON. */
function archiveOf(tables: Record<string, Uint8Array>): Blob {
  const writer = new ArchiveWriter("unzel-backup");
  for (const [table, rows] of Object.entries(tables)) writer.add(`tables/${table}.json`, rows);
  return writer.finish("2026-11-20T10:00:00.000Z");
}

/** Backups: damaged as they are, and whole with rows in them that were made to harm. */
async function backupReaders(): Promise<Reader[]> {
  const { jobs, machines, readings } = aBundle();
  const archive = archiveOf({
    jobs: encoded(jobs),
    machines: encoded(machines),
    readings: encoded(readings),
  });
  return [
    {
      name: "backup",
      kind: "bytes",
      good: [new Uint8Array(await archive.arrayBuffer())],
      read: (bytes) => readBackup(new Blob([bytes.slice()])),
    },
    {
      name: "rows of a backup",
      kind: "json",
      good: [encoded(readings)],
      read: (bytes) => readBackup(archiveOf({ readings: bytes })),
    },
  ];
}

/** How each reader meets so many files that were damaged or made to harm: its faults, its slowest file, and how much memory stands at the end. */
export async function* hostileFiles(
  each: number,
): AsyncGenerator<{ name: string; faults: string[]; slowestSeconds: number; megabytes: number }> {
  for (const reader of [...READERS, ...(await backupReaders())]) {
    const random = new SeededRandom(2 * reader.name.length + 1);
    const faults: string[] = [];
    let slowestSeconds = 0;
    for (let i = 0; i < each; i++) {
      const file = hostileFile(reader, random);
      const start = performance.now();
      const fault = await faultOfReader(reader, file);
      slowestSeconds = Math.max(slowestSeconds, (performance.now() - start) / 1000);
      if (fault !== null) faults.push(fault);
    }
    const megabytes = process.memoryUsage().rss / 2 ** 20;
    yield { name: reader.name, faults, slowestSeconds, megabytes };
  }
}
