import type { BlankTape } from "@/core/records/blank-tape";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { typedOrNothing } from "@/core/text/typed-number";

/** A blank tape while it is being typed: numbers are still text. */
export interface TypedBlank {
  name: string;
  type: string;
  thickness: string;
  /** One line for each speed. */
  overBias: Array<{ speed: string; frequency: string; db: string }>;
  level: string;
  treble: string;
  shedding: boolean;
  backCoated: boolean;
  age: string;
  notes: string;
}

export const NOT_SAID = "not said";

export const typedBlank = (blank: BlankTape): TypedBlank => ({
  name: blank.name,
  type: blank.type ?? NOT_SAID,
  thickness: blank.thicknessMicrometres?.toString() ?? "",
  overBias: blank.overBias.map(({ speedCmPerS, frequencyHz, db }) => ({
    speed: String(speedCmPerS),
    frequency: String(frequencyHz),
    db: String(db),
  })),
  level: blank.recommendedLevelDb?.toString() ?? "",
  treble: blank.treble ?? NOT_SAID,
  ...blank.condition,
  notes: blank.notes,
});

/** The blank tape as typed, to be checked by its schema; what is no number becomes NaN and is refused. */
export function blankOf(typed: TypedBlank, id: string): Record<string, unknown> {
  const number = typedOrNothing;
  return {
    format: "unzel-blank-tape",
    version: 1,
    id,
    name: typed.name,
    type: TAPE_TYPES.find((type) => type === typed.type) ?? null,
    thicknessMicrometres: typed.type === "open reel" ? number(typed.thickness) : undefined,
    overBias: typed.overBias
      .filter(({ speed, db }) => speed.trim() !== "" || db.trim() !== "")
      .map(({ speed, frequency, db }) => ({
        speedCmPerS: number(speed) ?? NaN,
        frequencyHz: number(frequency) ?? 10_000,
        db: number(db) ?? NaN,
      })),
    recommendedLevelDb: number(typed.level),
    treble: typed.treble === NOT_SAID ? undefined : typed.treble,
    condition: { shedding: typed.shedding, backCoated: typed.backCoated, age: typed.age.trim() },
    notes: typed.notes,
  };
}
