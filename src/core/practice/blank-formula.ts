import type { BlankTape } from "@/core/records/blank-tape";
import { ordinary, type TapeFormula } from "@/core/simulator/tape-formula";

/** What the demo workshop's blank tapes are really coated with; nobody at the bench knows. */
const COATINGS: Record<string, Omit<TapeFormula, "type"> | undefined> = {
  "demo-blank-plain": { biasDb: 0.3, sensitivityDb: -0.4, trebleDb: 0.3 },
  "demo-blank-bright": { biasDb: -0.2, sensitivityDb: 0.6, trebleDb: 1.1 },
  "demo-blank-reel": { biasDb: 0.2, sensitivityDb: 0.5, trebleDb: -0.3 },
};
/** A tape that sheds does not lie well on the head everywhere. */
const SHEDDING = { dropOutsPerMinute: 12, depthDb: 12, seconds: 0.03 } as const;
const TREBLE_DB = { soft: -1, even: 0, bright: 1 } as const;

/** A blank tape of the library as the practice machine takes it: of another workshop's tapes no more is known than it says. */
export function formulaOf({ id, type, treble = "even", condition }: BlankTape): TapeFormula {
  const own = COATINGS[id] ?? { trebleDb: TREBLE_DB[treble] };
  return { ...ordinary(type ?? "I"), ...own, ...(condition.shedding && { wear: SHEDDING }) };
}
