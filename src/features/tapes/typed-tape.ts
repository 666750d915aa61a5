import { typedOrNothing } from "@/core/text/typed-number";
import { BAND_NUMBERS, TAPE_NUMBERS, type Band, type ReferenceTape } from "@/core/reference/reference-tape";

/** A tape while it is being typed: numbers are still text. */
export interface TypedTape {
  texts: Record<string, string>;
  making: Record<string, string>;
  bands: TypedBand[];
}

export interface TypedBand {
  kind: Band["kind"];
  role: string;
  texts: Record<string, string>;
}

const TEXTS = ["name", "equalisation", "fluxivityMethod", "condition", "notes"] as const;

const asTexts = (entries: Array<[string, unknown]>): Record<string, string> =>
  Object.fromEntries(
    entries.filter(([, value]) => value !== undefined).map(([key, value]) => [key, String(value)]),
  );

export function textsOfTape(tape: ReferenceTape): TypedTape {
  return {
    texts: asTexts([...TAPE_NUMBERS, ...TEXTS].map((key) => [key, tape[key]])),
    making: asTexts(Object.entries(tape.making ?? {})),
    bands: tape.bands.map((band) => ({
      kind: band.kind,
      role: band.role ?? "",
      texts: asTexts([
        ...BAND_NUMBERS.map((key): [string, unknown] => [key, band[key]]),
        ["correctionLeft", band.correctionDb?.left],
        ["correctionRight", band.correctionDb?.right],
      ]),
    })),
  };
}

/** Empty is left out; anything that is no number becomes NaN and is refused by the schema. */
const number = typedOrNothing;

const present = (entries: Array<[string, unknown]>) =>
  Object.fromEntries(entries.filter(([, value]) => value !== undefined && value !== ""));

export function tapeOf({ texts, making, bands }: TypedTape, id: string): Record<string, unknown> {
  const said = Object.values(making).some((text) => text.trim() !== "");
  return {
    format: "unzel-reference-tape",
    version: 1,
    id,
    name: "",
    ...present(TAPE_NUMBERS.map((key) => [key, number(texts[key])])),
    ...present(TEXTS.map((key) => [key, texts[key]?.trim()])),
    ...(said && {
      making: {
        by: making.by ?? "",
        machine: making.machine ?? "",
        howChecked: making.howChecked ?? "",
        speedUncertaintyPercent: number(making.speedUncertaintyPercent) ?? 0,
      },
    }),
    bands: bands.map(bandOf),
  };
}

export function bandOf({ kind, role, texts }: TypedBand): Record<string, unknown> {
  const pitched = kind === "tone" || kind === "sweep";
  const [left, right] = [number(texts.correctionLeft), number(texts.correctionRight)];
  return {
    kind,
    ...(role && { role }),
    ...present(
      BAND_NUMBERS.filter(
        (key) => (key !== "frequencyHz" || pitched) && (key !== "toFrequencyHz" || kind === "sweep"),
      ).map((key) => [key, number(texts[key])]),
    ),
    ...((left !== undefined || right !== undefined) && {
      correctionDb: { left: left ?? 0, right: right ?? 0 },
    }),
  };
}
