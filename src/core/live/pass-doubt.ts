import type { CheckName, SignalReport } from "@/core/measure/signal-findings";
import type { ListeningResult } from "./listening-result";

/** Faults of the signal that make a figure wrong which looks right; the others are found at their stations. */
const FALSIFIES: readonly CheckName[] = ["clipping", "both channels", "polarity", "sample rate", "no gaps"];

/** Why what is heard now is not to be trusted without somebody who looks at it; null for nothing. */
export function passDoubt(
  { tapeDoubt, sequencePlays, band }: Pick<ListeningResult, "tapeDoubt" | "sequencePlays" | "band">,
  check: SignalReport | null,
): string | null {
  if (tapeDoubt) return tapeDoubt;
  if (sequencePlays) return `${sequencePlays}, not the reference tape.`;
  const fault = check?.findings.find(
    ({ check: about, state }) =>
      state === "fault" && (FALSIFIES.includes(about) || (about === "arrives" && band !== null)),
  );
  return fault ? `${fault.says}. ${fault.advice}` : null;
}
