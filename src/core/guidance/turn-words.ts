import type { Unit } from "@/core/text/units";
import { directionInWords, turnInWords, type TurnAdvice } from "./turn-guidance";
import { fixed } from "@/core/text/number-text";

/** What a turn changes, and how its numbers are written. */
export interface TurnedQuantity {
  /** "the speed" */
  name: string;
  unit: Unit;
  /** Of the readings over what turn guidance counts in. */
  scale: number;
  decimals: number;
  /** Where to look when there is no more travel; left out where nothing more is known. */
  atStop?: string;
}

export function headline(advice: TurnAdvice): string {
  switch (advice.kind) {
    case "trial":
      return `try ${turnInWords(advice.turns)}, ${directionInWords(advice.turns)}`;
    case "turn":
      return `${directionInWords(advice.turns)}, ${turnInWords(advice.turns)}`;
    case "wait":
      return "let it settle";
    case "unclear":
      return "cannot be told";
    case "no answer":
      return "it hardly answers";
    case "stop":
      return "it is at its stop";
    case "leave":
      return "leave it there";
  }
}

/** Why, and how it knows. */
export function reason(advice: TurnAdvice, { name, unit, scale, decimals, atStop }: TurnedQuantity): string {
  const change = (value: number, places = decimals) =>
    `${fixed(scale * value, places, true)}${unit === "°" ? "" : " "}${unit}`;
  switch (advice.kind) {
    case "trial":
      return "A small trial turn shows what this screw does. Turn, then say so.";
    case "wait":
      return "The number firms up in a few seconds.";
    case "unclear":
      return `${name[0].toUpperCase()}${name.slice(1)} is known worse than its limit is wide: a turn by it could go the wrong way. What makes it uncertain stands beside the number.`;
    case "no answer":
      return `The last turn changed ${name} by ${change(advice.lastTurn.change)}. Is it the right screw?`;
    case "stop":
      return `There is no more travel this way. Look for the reason${atStop ? `: ${atStop}.` : " behind it."}`;
    case "leave":
      return "Within reach of what can be known. Log it as left.";
    case "turn": {
      const { lastTurn, slackKnown, slackTurns, perTurn, fromBefore } = advice.effect;
      const perTurnWords = `${change(perTurn, Math.max(0, decimals - 1))} a turn`;
      const degrees = `${Math.round(360 * Math.abs(advice.turns))}°`;
      if (fromBefore) return `${degrees}, as an earlier job on this machine has taught: ${perTurnWords}.`;
      const learned = `${degrees}. Last: ${turnInWords(lastTurn.turns)} ${directionInWords(lastTurn.turns)} gave ${change(lastTurn.change)}`;
      const slack = slackKnown
        ? slackTurns > 0.01
          ? `; slack ${Math.round(360 * slackTurns)}° counted in.`
          : `; ${perTurnWords}.`
        : ". Stops short at first: the screw may have slack.";
      return learned + slack;
    }
  }
}
