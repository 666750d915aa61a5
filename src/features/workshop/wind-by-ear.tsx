import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { WindHeard } from "@/core/measure/wind-watch";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { KeyCap } from "@/ui/key-cap";

interface WindByEarProps {
  /** Null while it is not timed by ear. */
  wind: WindHeard | null;
  /** A microphone can be heard. */
  hasEar: boolean;
  onBegin(): void;
}

const ASKS: Record<WindHeard["state"], string> = {
  "waits for quiet": "Hush for two seconds, the machine too…",
  ready: "Now wind.",
  runs: "It winds; keep quiet.",
  stopped: "It has stopped.",
};

/** Times a wind by a microphone at the machine. */
export function WindByEar({ wind, hasEar, onBegin }: WindByEarProps) {
  if (!hasEar)
    return (
      <Box sx={{ color: "text.secondary" }}>By ear: start a microphone at the machine as the sound card.</Box>
    );
  return (
    <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
      <Button variant="outlined" size="large" onClick={onBegin}>
        {wind === null ? "Time it by ear" : "By ear anew"}
        <KeyCap>E</KeyCap>
      </Button>
      {wind && (
        <Box role="status" aria-label="By ear" sx={{ fontSize: 20, fontWeight: 650 }}>
          {ASKS[wind.state]}
          {wind.seconds !== null && ` ${fixed(wind.seconds, 1)}${THIN_SPACE}s`}
          {wind.uncertaintySeconds !== null && ` ± ${fixed(wind.uncertaintySeconds, 1)}`}
        </Box>
      )}
      {wind?.doubt && (
        <Box sx={{ color: "warning.main", fontWeight: 650, flexBasis: "100%" }}>
          {wind.doubt} It is not kept; time it anew, or with the watch.
        </Box>
      )}
    </Box>
  );
}

/** What is kept of it: seconds to a tenth; null while it has not ended, and where it is doubted. */
export const secondsByEar = (wind: WindHeard | null): number | null =>
  wind?.state === "stopped" && wind.doubt === null && wind.seconds !== null
    ? Math.round(10 * wind.seconds) / 10
    : null;
