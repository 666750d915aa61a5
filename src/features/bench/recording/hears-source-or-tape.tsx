import Box from "@mui/material/Box";
import type { SourceAndTape } from "@/core/playback/source-and-tape";
import { hertzText } from "@/core/text/number-text";
import { PressButton } from "@/ui/press-button";
import type { ListenerState } from "../listening/use-listener";

const HEARS = {
  source: "hears the source",
  tape: "hears the tape",
  unclear: "listening: source or tape?",
} as const;

/** Which of the two is heard, found out by itself or said by hand. */
export function HearsSourceOrTape({
  comparison,
  live,
  onSay,
}: {
  comparison: SourceAndTape | null;
  live: boolean;
  onSay: ListenerState["sayHears"];
}) {
  const hears = comparison?.hears ?? null;
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      <Box role="status" aria-label="Monitor" sx={{ fontSize: 20, fontWeight: 720, flex: 1, minWidth: 260 }}>
        {hears ? HEARS[hears] : live ? "no tone" : "nothing is heard yet"}
        {hears && comparison && comparison.frequenciesHz.length > 0 && (
          <Box component="span" sx={{ color: "text.secondary", fontWeight: 400, whiteSpace: "nowrap" }}>
            , {comparison.frequenciesHz.map((hz) => hertzText(hz)).join(" and ")}
            {comparison.byHand && ", said by hand"}
          </Box>
        )}
      </Box>
      <Box role="group" aria-label="Say it by hand" sx={{ display: "flex", gap: 0.5 }}>
        {(["source", "tape"] as const).map((what) => {
          const said = comparison?.byHand === true && hears === what;
          return (
            <PressButton key={what} chosen={said} disabled={!live} onClick={() => onSay(said ? null : what)}>
              it is the {what}
            </PressButton>
          );
        })}
      </Box>
    </Box>
  );
}
