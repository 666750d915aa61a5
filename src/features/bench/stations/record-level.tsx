import Box from "@mui/material/Box";
import { returnedByPasses, returnedOf } from "@/core/stations/record-level";
import type { SourceAndTape } from "@/core/playback/source-and-tape";
import { fixed, hertzText, THIN_SPACE } from "@/core/text/number-text";
import { PressButton } from "@/ui/press-button";
import { READING_FONT } from "@/ui/theme";
import { Figure } from "../figure";
import { RecordSteps } from "../record-steps";
import { onThisTape } from "../record-view";
import type { PictureProps, StationPicture } from "./picture";

/** What went in and what came back, a ruler for each channel. */
function RecordLevel(props: PictureProps) {
  return props.view.machine.monitorsTape ? <OffTape {...props} /> : <ByPasses {...props} />;
}

/** Two heads: what came back of the last pass less what went in. */
function ByPasses({ view, bench, listener, station, absent }: PictureProps) {
  const { returned, lacks } = returnedByPasses(bench);
  const channels = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  const mine = onThisTape(view, bench);
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${channels.length}, 1fr)` }, gap: 2 }}>
        {channels.map((channel, c) => (
          <Figure
            key={channel}
            view={mine}
            quantity="recordLevel.error"
            channel={channels.length === 1 ? undefined : channel}
            value={returned?.[c].errorDb ?? null}
            uncertainty={returned?.[c].uncertaintyDb ?? 0}
            settled={lacks === null}
            settling="turned since"
            ends={["comes back low", "comes back high"]}
            absent={absent}
            size="narrow"
          />
        ))}
      </Box>
      <RecordSteps {...{ bench, listener, station, view }} />
    </>
  );
}

function OffTape({ view: all, bench, listener, absent }: PictureProps) {
  const view = onThisTape(all, bench);
  const comparison = bench.heard?.comparison ?? null;
  const { channels: count } = view.machine;
  const channels = count === 1 ? ["both"] : ["left", "right"];
  const returned = returnedOf(comparison?.source ?? null, comparison?.tape ?? null, count);
  return (
    <>
      <Hears comparison={comparison} onSay={listener.sayHears} live={listener.live !== null} />
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${channels.length}, 1fr)` }, gap: 2 }}>
        {channels.map((channel, c) => (
          <Box key={channel} sx={{ minWidth: 0 }}>
            <Figure
              view={view}
              quantity="recordLevel.error"
              channel={count === 1 ? undefined : channel}
              value={returned?.[c].errorDb ?? null}
              uncertainty={returned?.[c].uncertaintyDb ?? 0}
              settled={comparison?.tape?.settled ?? false}
              ends={["comes back low", "comes back high"]}
              absent={absentPart(comparison, absent)}
              size="narrow"
            />
            <Pair
              went={comparison?.source?.levelsDbfs[c] ?? null}
              came={comparison?.tape?.levelsDbfs[c] ?? null}
            />
          </Box>
        ))}
      </Box>
    </>
  );
}

function absentPart(comparison: SourceAndTape | null, absent: string): string {
  if (!comparison || comparison.frequencyHz === 0) return absent;
  return comparison.source ? "Now monitor the tape" : "Monitor the source first";
}

const HEARS = {
  source: "hears the source: what goes in",
  tape: "hears the tape: what comes back",
  unclear: "listening: source or tape?",
} as const;

/** Which of the two is heard, found out by itself or said by hand. */
function Hears({
  comparison,
  live,
  onSay,
}: {
  comparison: SourceAndTape | null;
  live: boolean;
  onSay: PictureProps["listener"]["sayHears"];
}) {
  const hears = comparison?.hears ?? null;
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      <Box role="status" aria-label="Monitor" sx={{ fontSize: 20, fontWeight: 720, flex: 1, minWidth: 260 }}>
        {hears ? HEARS[hears] : live ? "no tone" : "nothing is heard yet"}
        {hears && comparison && comparison.frequencyHz > 0 && (
          <Box component="span" sx={{ color: "text.secondary", fontWeight: 400, whiteSpace: "nowrap" }}>
            , {hertzText(comparison.frequencyHz)}
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

/** What went in hollow, what came back solid, on one scale below full scale. */
function Pair({ went, came }: { went: number | null; came: number | null }) {
  const row = (name: string, level: number | null, solid: boolean) => (
    <Box
      sx={{ display: "flex", alignItems: "center", gap: 1, color: solid ? "text.primary" : "text.secondary" }}
    >
      <Box sx={{ width: 78 }}>{name}</Box>
      <Box sx={{ flex: 1, height: 14, border: 1, borderColor: "divider", position: "relative" }}>
        {level !== null && (
          <Box
            sx={{
              position: "absolute",
              inset: 0,
              right: "auto",
              bgcolor: solid ? "text.primary" : "transparent",
              borderRight: 3,
              borderColor: solid ? "text.primary" : "text.secondary",
            }}
            style={{ width: `${Math.max(0, Math.min(100, (100 * (level + LOWEST_DBFS)) / LOWEST_DBFS))}%` }}
          />
        )}
      </Box>
      <Box sx={{ fontFamily: READING_FONT, width: 118, textAlign: "right", whiteSpace: "nowrap" }}>
        {level === null ? "–" : `${fixed(level, 2)}${THIN_SPACE}dBFS`}
      </Box>
    </Box>
  );
  return (
    <Box sx={{ mt: 1, display: "grid", gap: 0.5 }}>
      {row("went in", went, false)}
      {row("came back", came, true)}
    </Box>
  );
}

const LOWEST_DBFS = 40;

export const recordLevel: StationPicture = { Middle: RecordLevel };
