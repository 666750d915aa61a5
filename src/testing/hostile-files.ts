import { readBeltsCsv } from "@/core/formats/belt-csv";
import { readBlankJson, writeBlankJson } from "@/core/formats/blank-tape-json";
import { bytesInMemory } from "@/core/formats/byte-source";
import { ImportError } from "@/core/formats/import-error";
import { readBundle, writeBundle } from "@/core/formats/job-bundle";
import { readMachineJson, writeMachineJson } from "@/core/formats/machine-json";
import { openSound } from "@/core/formats/open-sound";
import { readResponseCsv } from "@/core/formats/response-csv";
import { readSequenceJson, writeSequenceJson } from "@/core/formats/sequence-json";
import { SoundFileError } from "@/core/formats/sound-file";
import { readTapesCsv, writeTapesCsv } from "@/core/formats/tape-csv";
import { readSparesCsv } from "@/core/formats/spare-csv";
import { readTapeJson, writeTapeJson } from "@/core/formats/tape-json";
import { wavFile } from "@/core/formats/wav-writer";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { DEMO_MACHINES } from "@/core/practice/demo-machines";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import { PRESETS } from "@/core/signals/presets";
import type { SeededRandom } from "@/core/dsp/seeded-random";
import { flacFile } from "./flac-encoder";
import { aBundle } from "./records";
import { sampled } from "@/core/dsp/sampled";

/** Something that reads bytes of whoever wrote them. */
export interface Reader {
  name: string;
  kind: "bytes" | "table" | "json";
  /** Files that it reads. */
  good: readonly Uint8Array[];
  /** What it makes of a file; throws a sentence for one that it cannot use. */
  read(bytes: Uint8Array): unknown;
}

const encoded = (text: string) => new TextEncoder().encode(text);
const ofText =
  (read: (text: string) => unknown): Reader["read"] =>
  (bytes) =>
    read(new TextDecoder().decode(bytes));

/** All of a recording, from its first sample to its last. */
async function readSound(bytes: Uint8Array): Promise<unknown> {
  const sound = await openSound(bytesInMemory(bytes));
  let loudest = 0;
  for await (const block of sound.blocks())
    for (const channel of block) for (const v of channel) if (!(v <= loudest)) loudest = v;
  return { ...sound, loudest };
}

const tone = sampled(3000, (i) => 0.4 * Math.sin(0.41 * i));
const steps = Int32Array.from(tone, (v) => Math.round(v * 32768));

export const READERS: readonly Reader[] = [
  {
    name: "WAV",
    kind: "bytes",
    good: (["int16", "int24", "float32"] as const).map((as) => wavFile([tone, tone], 48000, as)),
    read: readSound,
  },
  {
    name: "FLAC",
    kind: "bytes",
    good: ([12, 16] as const).map((bits) => flacFile([steps, steps], 48000, bits, { blockSize: 700 })),
    read: readSound,
  },
  {
    name: "response CSV",
    kind: "table",
    good: [encoded("frequencyHz,levelDb,uncertaintyDb\n315,0,0.1\n1000,-0.4,0.1\n10000,-2.5,0.3\n")],
    read: ofText(readResponseCsv),
  },
  {
    name: "belts CSV",
    kind: "table",
    good: [encoded("name;section;insideMm;thicknessMm;inStock\nB 1;square;71,5;1,2;3\nB 2;flat;80;0,6;0\n")],
    read: ofText(readBeltsCsv),
  },
  {
    name: "tapes CSV",
    kind: "table",
    good: [encoded(writeTapesCsv(DEMO_TAPES.slice(0, 2)))],
    read: ofText(readTapesCsv),
  },
  {
    name: "reference tape",
    kind: "json",
    good: [encoded(writeTapeJson(DEMO_TAPES[0]))],
    read: ofText(readTapeJson),
  },
  {
    name: "blank tape",
    kind: "json",
    good: DEMO_BLANKS.map((blank) => encoded(writeBlankJson(blank))),
    read: ofText(readBlankJson),
  },
  {
    name: "machine",
    kind: "json",
    good: DEMO_MACHINES.slice(0, 2).map((machine) => encoded(writeMachineJson(machine))),
    read: ofText(readMachineJson),
  },
  {
    name: "spare parts",
    kind: "table",
    good: [encoded('name,kind,count,place\nbelt 71 mm,belt,3,drawer 4\n"clip 3 mm, flat",clip,25,\n')],
    read: ofText(readSparesCsv),
  },
  {
    name: "sequence",
    kind: "json",
    good: PRESETS.slice(0, 3).map((preset) => encoded(writeSequenceJson(preset))),
    read: ofText(readSequenceJson),
  },
  {
    name: "job",
    kind: "json",
    // without its sum, which would be all that is looked at
    good: [
      encoded(writeBundle(aBundle(), "2026-11-20T10:00:00.000Z").replace(/\n "checksum": "[0-9a-f]+",/, "")),
    ],
    read: ofText(readBundle),
  },
];

const pick = <T>(random: SeededRandom, from: readonly T[]): T =>
  from[Math.floor(random.uniform() * from.length)];
const below = (random: SeededRandom, most: number): number => Math.floor(random.uniform() * most);

/** A file that a reader reads, with something done to it. */
export function hostileFile({ kind, good }: Reader, random: SeededRandom): Uint8Array {
  const file = pick(random, good);
  switch (kind) {
    case "bytes":
      return hostileBytes(file, random);
    case "table":
      return random.uniform() < 0.3 ? hostileBytes(file, random) : encoded(hostileTable(file, random));
    case "json":
      return random.uniform() < 0.3 ? hostileBytes(file, random) : encoded(hostileJson(file, random));
  }
}

/** Bytes changed, left out, put in twice or cut off; the first of a file, which say what it is, more often than the others. */
export function hostileBytes(file: Uint8Array, random: SeededRandom): Uint8Array {
  let bytes = file.slice();
  for (let i = 1 + below(random, 6); i > 0; i--) {
    const at = below(random, random.uniform() < 0.5 ? Math.min(80, bytes.length) : bytes.length);
    const length = 1 + below(random, 40);
    switch (below(random, 5)) {
      case 0:
        bytes[at] = below(random, 256);
        break;
      case 1:
        bytes[at] ^= 1 << below(random, 8);
        break;
      case 2:
        bytes.fill(pick(random, [0, 0x7f, 0x80, 0xff]), at, at + Math.min(8, length));
        break;
      case 3:
        bytes = bytes.slice(0, Math.max(1, at));
        break;
      case 4:
        bytes = Uint8Array.from([...bytes.slice(0, at + length), ...bytes.slice(at)]);
        break;
    }
  }
  return bytes;
}

const ODD_CELLS = [
  ..."1e999,-1e999,NaN,Infinity,0x10,1/0,--1,1.2.3,1'000,½,-,+,.,e5".split(","),
  ...[
    "",
    " ",
    "\u0000",
    "\uFEFF",
    '"',
    "'",
    "=1+1",
    "@x",
    "__proto__",
    "constructor",
    "toString",
    "__parsed_extra",
  ],
  "9".repeat(400),
  "ä".repeat(3000),
];

function hostileTable(file: Uint8Array, random: SeededRandom): string {
  const rows = new TextDecoder().decode(file).split("\n");
  const mark = pick(random, [",", ";", "\t"]);
  for (let i = 1 + below(random, 3); i > 0; i--) {
    const r = below(random, rows.length);
    const cells = rows[r].split(/[,;\t]/);
    switch (below(random, 6)) {
      case 0:
        cells[below(random, cells.length)] = pick(random, ODD_CELLS);
        break;
      case 1:
        cells.splice(below(random, cells.length), 1);
        break;
      case 2:
        cells.push(...Array<string>(1 + below(random, 300)).fill(pick(random, ODD_CELLS)));
        break;
      case 3:
        rows.push(...Array<string>(1 + below(random, 50)).fill(rows[r]));
        break;
      case 4:
        cells[below(random, cells.length)] += pick(random, ['"', '""', '"\n', "\r"]);
        break;
      case 5:
        rows.splice(below(random, rows.length), 1, ...(random.uniform() < 0.5 ? [] : ["", " ; ;"]));
        break;
    }
    rows[r] = cells.join(mark);
  }
  return rows.join(pick(random, ["\n", "\r\n", "\r"]));
}

/** Written as it is, so that a number without end comes in: JSON has no other way for one. */
const ENDLESS = "§endless§";
const NESTED = "§nested§";
const DEPTHS = [50, 3000, 100_000];
const ODD_VALUES: readonly unknown[] = [
  ...[
    null,
    true,
    false,
    0,
    -1,
    -0.5,
    1e308,
    1e-308,
    4.5,
    2 ** 53,
    ENDLESS,
    "",
    " ",
    "0",
    "NaN",
    "=1+1",
    "../..",
    "%2e%2e/x",
  ],
  ...["<script>alert(1)</script>", "\u0000", "\ud800", "2026-13-45", "x".repeat(30_000)],
  ...[[], {}, [null], [[[]]], { length: -1 }, Array(5000).fill(0), NESTED],
];

function hostileJson(file: Uint8Array, random: SeededRandom): string {
  const value = JSON.parse(new TextDecoder().decode(file)) as unknown;
  const whole: { all: unknown } = { all: value };
  for (let i = 1 + below(random, 3); i > 0; i--) {
    let at = whole as Record<string, unknown>;
    let key = "all";
    // down to somewhere
    for (;;) {
      const inner = at[key];
      const keys = typeof inner === "object" && inner !== null ? Object.keys(inner) : [];
      if (keys.length === 0 || random.uniform() < 0.12) break;
      at = inner as Record<string, unknown>;
      key = pick(random, keys);
    }
    switch (below(random, 4)) {
      case 0:
      case 1:
        at[key] = structuredClone(pick(random, ODD_VALUES));
        break;
      case 2:
        delete at[key];
        break;
      case 3:
        if (!Array.isArray(at)) {
          const name = pick(random, ["__proto__", "constructor", "length", "extra", key + key]);
          Object.defineProperty(at, name, {
            value: structuredClone(at[key]),
            enumerable: true,
            configurable: true,
            writable: true,
          });
        }
        break;
    }
  }
  const depth = pick(random, DEPTHS);
  return (JSON.stringify(whole.all) ?? "")
    .replaceAll(`"${ENDLESS}"`, random.uniform() < 0.5 ? "1e999" : "-1e999")
    .replaceAll(`"${NESTED}"`, "[".repeat(depth) + "]".repeat(depth));
}

/** Words of a library, of the language or of the system, which tell a technician nothing. */
const NOT_OURS =
  /\bundefined\b|\bNaN\b|Infinity|expected (?:number|string|array|object|boolean|int|one of)|\breceived\b|is not a function|Cannot read|call stack|Invalid (?:array|input|string|type|option|value|key|element)|Too (?:big|small)|Unexpected (?:token|end)|\[object/i;
const OF_THE_SYSTEM = /\bE[A-Z]{4,}\b:/;
const LONGEST_SENTENCE = 420;

/** What is wrong with how a reader met a file; null where it read it, or said in a sentence why not. */
export async function faultOfReader(reader: Reader, bytes: Uint8Array): Promise<string | null> {
  try {
    const made = await reader.read(bytes);
    return isFinite_(made) ? null : "a figure without end was taken in";
  } catch (error) {
    if (!(error instanceof ImportError || error instanceof SoundFileError))
      return `it threw ${String(error)}`;
    // what it repeats of the file is the file's
    const own = error.message.replace(/"[^"]*"/g, "");
    if (NOT_OURS.test(own) || OF_THE_SYSTEM.test(own)) return `in other words than ours: ${error.message}`;
    if (error.message.length > LONGEST_SENTENCE) return `too long: ${error.message.slice(0, 200)}`;
    return /^[A-Z0-9].*[.!?]$/s.test(error.message) ? null : `no sentence: ${error.message}`;
  }
}

/** Whether every number in something has an end. */
function isFinite_(made: unknown): boolean {
  const left = [made];
  for (let one = left.pop(); left.length > 0 || one !== undefined; one = left.pop()) {
    if (typeof one === "number" && !Number.isFinite(one)) return false;
    if (typeof one === "object" && one !== null) left.push(...Object.values(one).slice(0, 10_000));
  }
  return true;
}
