import Box from "@mui/material/Box";
import { passportRows } from "@/core/alignment/passport-rows";
import { dropOutRates, whoseFlicker } from "@/core/measure/drop-out-rates";
import type { Reading } from "@/core/records/reading";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { dropOutsOf, passportOf, type PassportChannel } from "@/core/stations/passport";
import { recordedHere } from "@/core/stations/recorded";
import { DropOutTable } from "@/ui/drop-out-table";
import { PLAIN_TABLE } from "@/ui/plain-table";
import { READING_FONT } from "@/ui/theme";

interface PassportOfTapeProps {
  bench: OnTheBench;
  /** As it came back just now; null before. */
  passport: readonly PassportChannel[] | null;
  /** What was logged on this tape. */
  readings: readonly Reading[];
}

/** What is to be known of a tape, in words and figures, and its drop-outs by depth and length. */
export function PassportOfTape({ bench, passport, readings }: PassportOfTapeProps) {
  const rates = passport && dropOutRates(dropOutsOf(passport));
  const rows = passportRows(readings);
  return (
    <Box
      component="section"
      aria-label="Passport of the tape"
      sx={{ display: "flex", gap: 3, flexWrap: "wrap", alignItems: "flex-start" }}
    >
      {rows.length > 0 ? (
        <Box component="table" sx={PLAIN_TABLE}>
          <tbody>
            {rows.map(({ says, figures, means }) => (
              <tr key={says}>
                <th scope="row">{says}</th>
                <Box component="td" sx={{ fontFamily: READING_FONT, whiteSpace: "nowrap" }}>
                  {figures}
                </Box>
                <Box component="td" sx={{ color: "text.secondary" }}>
                  {means}
                </Box>
              </tr>
            ))}
          </tbody>
        </Box>
      ) : (
        <Box sx={{ color: "text.secondary" }}>
          {passport ? "Log it: then it stands here." : "No passport of this tape was logged yet."}
        </Box>
      )}
      {rates && <DropOutTable rates={rates} says={flickerSays(bench)} />}
    </Box>
  );
}

/** Whose the drop-outs are, from the last two goes at the same stretch of tape. */
function flickerSays(bench: OnTheBench): string {
  const goes = recordedHere(bench)
    .recorded.slice(-2)
    .map((one) => passportOf(one, bench.here.machine.channels));
  const of = (go: PassportChannel[]) => dropOutsOf(go).flatMap(({ events }) => events);
  const told = goes.length === 2 ? whoseFlicker(of(goes[0]), of(goes[1])) : null;
  if (told === null)
    return "Rewind and play it once more: drop-outs at the same places are the tape's own, others the machine's.";
  const counted = `${told.same} of ${told.of} came back at the same places`;
  switch (told.whose) {
    case "the tape's":
      return `${counted}: they are the tape's own.`;
    case "the machine's":
      return `${counted}: they are the machine's. Look at the head's surface, pressure, contacts and the tape's path.`;
    case "both":
      return `${counted}: some are the tape's own, the others the machine's.`;
  }
}
