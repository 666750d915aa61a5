import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

/** What is seen, heard or smelled of a tape before it is threaded. */
export const TAPE_SIGNS = [
  "squeals",
  "brown residue",
  "winds slowly",
  "back-coated",
  "acetate base",
  "unknown base",
  "vinegar smell",
  "mould",
  "splices",
  "wound oxide out",
  "curled edges",
] as const;
export type TapeSign = (typeof TAPE_SIGNS)[number];

const bakedSchema = z.object({
  at: time,
  celsius: z.number(),
  hours: z.number(),
});

/** A tape that was looked at before it was played, and what was done with it. */
export const tapeCheckSchema = z.object({
  id,
  at: time,
  name: z.string().trim().min(1, "Say which tape it is.").max(120),
  signs: z.array(z.enum(TAPE_SIGNS)).max(TAPE_SIGNS.length),
  /** The owner agreed to its being baked. */
  consent: z.boolean().default(false),
  baked: bakedSchema.nullable().default(null),
  playedAt: time.nullable().default(null),
});
export type TapeCheck = z.infer<typeof tapeCheckSchema>;

/** From the safest to what is never done. */
export const MAY_PLAY = ["play", "with care", "not yet", "never as it is"] as const;
export type MayPlay = (typeof MAY_PLAY)[number];

/** What may be done with a tape. */
export interface TapeDecision {
  play: MayPlay;
  /** Why, and what to do, the gravest first. */
  says: string[];
  /** Why it is not to be baked; null where that is what helps. */
  notBaked: string | null;
  /** It leaves something in the machine: the tape path is cleaned before anything else goes in. */
  cleanAfter: boolean;
}

/** A baked tape plays for some weeks, then takes up water again: a house figure, to the safe side. */
export const BAKED_DAYS = 21;
/** Below, nothing comes of it; above, base and wind suffer. House figures around the usual 54 °C for eight hours or more. */
export const BAKES = { fromCelsius: 45, toCelsius: 57, fromHours: 4, toHours: 72 } as const;
const DAY_MS = 24 * 60 * 60 * 1000;

/**
 * What signs say may be done with a tape; the gravest decides.
 * @param now ISO time, for a window of days after it was baked
 */
export function decide({ signs, baked }: Pick<TapeCheck, "signs" | "baked">, now: string): TapeDecision {
  const has = (...some: TapeSign[]) => some.some((one) => signs.includes(one));
  const sheds = has("squeals", "brown residue");
  const suspect = has("winds slowly", "back-coated");
  const left = daysLeft(baked, now);
  const notBaked = whyNotBaked(signs);
  const says: string[] = [];
  let play: MayPlay = "play";
  const atLeast = (one: MayPlay, why: string) => {
    if (MAY_PLAY.indexOf(one) > MAY_PLAY.indexOf(play)) play = one;
    says.push(why);
  };
  if (has("mould"))
    atLeast(
      "never as it is",
      "Mould: mask and gloves, apart from all other tapes; it is cleaned dry by who is equipped for it.",
    );
  if (sheds && left !== null && left > 0)
    atLeast(
      "with care",
      `Baked: it may be played for ${left} more ${left === 1 ? "day" : "days"}, once, straight into the transfer.`,
    );
  else if (sheds)
    atLeast(
      "not yet",
      left === null
        ? "Its binder breaks down: stop. It is not run over glass or ferrite heads as it is."
        : "It was baked too long ago: the binder has taken up water again.",
    );
  else if (suspect)
    atLeast(
      "with care",
      "It may shed: wind it slowly by hand once, play ten seconds, then look at the heads for brown residue.",
    );
  if (has("wound oxide out"))
    atLeast(
      "not yet",
      "Find the oxide side first: it is dull, the backing shines. Then wind it the other way round.",
    );
  if (has("vinegar smell"))
    atLeast("with care", "Acetate that decays: apart from other tapes, played once and slowly, copied now.");
  else if (has("acetate base"))
    atLeast("with care", "Acetate breaks clean under tension: low torque, no fast stops.");
  if (has("splices"))
    atLeast("with care", "Look at every splice while it winds by hand; one that oozes sticks the next turn.");
  if (has("curled edges"))
    atLeast(
      "with care",
      "Edges that curl lift off the head: treble of this tape tells nothing of the machine.",
    );
  if (has("unknown base"))
    atLeast(
      sheds ? "not yet" : "with care",
      "Find its base: acetate lets light through its pack, polyester does not.",
    );
  return {
    play,
    says,
    notBaked: sheds ? notBaked : "Nothing of it asks for heat.",
    cleanAfter: sheds || suspect || has("mould"),
  };
}

function whyNotBaked(signs: readonly TapeSign[]): string | null {
  if (signs.includes("acetate base") || signs.includes("vinegar smell"))
    return "Acetate is never baked: heat destroys it.";
  if (signs.includes("unknown base")) return "Its base has to be known first: acetate is never baked.";
  if (signs.includes("mould")) return "Not with mould on it.";
  return null;
}

/** Whole days for which a baked tape may still be played, 0 once they are over; null where it was not baked. */
export function daysLeft(baked: TapeCheck["baked"], now: string): number | null {
  if (!baked) return null;
  return Math.max(0, Math.ceil(BAKED_DAYS - (Date.parse(now) - Date.parse(baked.at)) / DAY_MS));
}

/** Why a tape cannot be said to have been baked like that; null where it can. */
export function whyNotBakedSo(
  check: Pick<TapeCheck, "signs" | "consent">,
  { celsius, hours }: { celsius: number; hours: number },
  now: string,
): string | null {
  const { notBaked } = decide({ signs: check.signs, baked: null }, now);
  if (notBaked) return notBaked;
  if (!check.consent) return "Only with the owner's consent: it is a risk to the only copy.";
  if (!(celsius >= BAKES.fromCelsius && celsius <= BAKES.toCelsius))
    return `Between ${BAKES.fromCelsius} and ${BAKES.toCelsius} °C: cooler does nothing, hotter harms it.`;
  if (!(hours >= BAKES.fromHours && hours <= BAKES.toHours))
    return `For ${BAKES.fromHours} to ${BAKES.toHours} hours, by the width of the tape.`;
  return null;
}
