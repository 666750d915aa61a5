import type { Returned } from "./returned";

/** Whether the input clipped while it was heard: its levels are too low then, and its distortion is not the machine's. */
export function clips(one: Returned): boolean {
  switch (one.kind) {
    case "sine":
    case "two-tone":
    case "steps":
    case "sweep":
    case "pink":
    case "white":
      return one.clipped;
    case "staircase":
      return one.steps.some(({ clipped }) => clipped);
    case "silence":
      return false;
  }
}
