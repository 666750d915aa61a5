import Box from "@mui/material/Box";
import { returnedByPasses, returnedOf } from "@/core/stations/record-level";
import type { SourceAndTape } from "@/core/playback/source-and-tape";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { Figure } from "../figure";
import { HearsSourceOrTape } from "../recording/hears-source-or-tape";
import { RecordSteps } from "../recording/record-steps";
import { Send } from "../recording/send";
import { SetZero } from "../recording/set-zero";
import { MeterInRecord } from "../recording/meter-in-record";
import { onThisTape } from "../recording/record-view";
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
      <MeterInRecord {...{ view, station, bench }} />
    </>
  );
}

function OffTape({ view: all, bench, listener, station, absent }: PictureProps) {
  const view = onThisTape(all, bench);
  const comparison = bench.heard?.comparison ?? null;
  const { channels: count } = view.machine;
  const channels = count === 1 ? ["both"] : ["left", "right"];
  const returned = returnedOf(comparison?.source ?? null, comparison?.tape ?? null, count);
  return (
    <>
      <HearsSourceOrTape comparison={comparison} onSay={listener.sayHears} live={listener.live !== null} />
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
              went={comparison?.source?.levelsDbfs[0][c] ?? null}
              came={comparison?.tape?.levelsDbfs[0][c] ?? null}
            />
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Send {...{ listener, station, view: all, bench }} />
        <SetZero {...{ listener, view: all }} />
      </Box>
      <MeterInRecord {...{ view: all, station, bench }} />
    </>
  );
}

function absentPart(comparison: SourceAndTape | null, absent: string): string {
  if (!comparison || comparison.frequenciesHz.length === 0) return absent;
  return comparison.source ? "Now monitor the tape" : "Monitor the source first";
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
