import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { quantityOf } from "@/core/alignment/registry";
import { readingVerdict } from "@/core/alignment/station-state";
import type { Taking } from "@/core/alignment/one-pass";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { withUncertainty } from "@/core/text/number-text";
import { Announcer } from "@/ui/announcer";
import { BandStrip } from "@/ui/band-strip";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { JobView } from "@/features/job/use-job-records";
import { tapePieces } from "@/features/tapes/tape-pieces";
import { DeskPaper } from "@/ui/desk-paper";
import type { ListenerState } from "../listening/use-listener";
import type { PassHands } from "./use-one-pass";

interface PassPictureProps {
  view: JobView;
  listener: ListenerState;
  hands: PassHands;
  side: "A" | "B" | undefined;
}

/** A whole tape that goes by, and what each station has taken from it. */
export function PassPicture({ view, listener, hands, side }: PassPictureProps) {
  const { pass, isOver, doubt } = hands;
  if (!pass) return null;
  const { live, kind } = listener;
  const { bands, name } = view.tape;
  const playing = live?.band?.sequence === null ? live.band : null;
  const taken = pass.stations.filter(({ state }) => state === "taken");
  return (
    <DeskPaper label="One pass">
      <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
        One pass of {name}
        {side ? `, side ${side}` : ""}: everything {pass.phase}
      </Box>
      <Box role="status" aria-label="What to do" sx={{ fontSize: 34, fontWeight: 750, lineHeight: 1.15 }}>
        {isOver
          ? ended(taken.length, pass.stations.length)
          : kind === null
            ? "Start a source below"
            : (doubt ??
              (playing
                ? `Playing ${playing.name}`
                : pass.heard.length > 0
                  ? "Let it play on; touch nothing"
                  : "Play the tape from its start"))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        {isOver ? (
          <>
            <Button variant="contained" size="large" onClick={hands.close}>
              Back to the station
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => hands.begin(pass.phase)}>
              One more pass
            </Button>
            {view.machine.adjusters.some((adjuster) => adjuster.side) && (
              <Box sx={{ fontWeight: 600 }}>
                Each direction has its own: turn the tape over, or reverse, and take one more.
              </Box>
            )}
          </>
        ) : (
          <>
            <Button variant="outlined" onClick={hands.end}>
              End the pass here
            </Button>
            <Button color="inherit" onClick={hands.close}>
              Leave it, take nothing more
            </Button>
          </>
        )}
      </Box>
      <BandStrip
        label={`${name}: ${pass.heard.length} of ${bands.length} bands have gone by`}
        pieces={tapePieces(bands)}
        marked={[...pass.heard]}
        played={playing ? shareOf(bands, playing.index, playing.seconds) : null}
      />
      <Box component="ol" aria-label="Stations of the pass" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {pass.stations.map((one) => (
          <StationRow key={one.station.id} one={one} machine={view.machine} />
        ))}
      </Box>
      <Announcer words={taken.map(({ station }) => `${station.name} taken`).at(-1) ?? ""} />
    </DeskPaper>
  );
}

const ended = (taken: number, of: number): string =>
  taken === of ? "All taken" : taken === 0 ? "Nothing could be taken" : `${taken} of ${of} taken`;

/** How far along a tape a band is that has been playing for some seconds. */
function shareOf(bands: ReadonlyArray<{ seconds: number }>, index: number, seconds: number): number {
  const upTo = (end: number) => bands.slice(0, end).reduce((sum, band) => sum + band.seconds, 0);
  return Math.min(1, (upTo(index) + Math.min(seconds, bands[index].seconds)) / upTo(bands.length));
}

function StationRow({ one, machine }: { one: Taking; machine: Machine }) {
  const { station } = one;
  const readings =
    one.state === "taken" ? one.readings : one.state === "open" ? (one.last.at(-1)?.readings ?? []) : [];
  const deciding: readonly string[] = station.deciding(machine);
  const figures = readings.filter(({ quantity }) => deciding.includes(quantity));
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "150px minmax(0, 1fr) 96px" },
        columnGap: 1.5,
        alignItems: "baseline",
        borderTop: 1,
        borderColor: "divider",
        py: 0.75,
        minHeight: 48,
      }}
    >
      <Box sx={{ fontSize: 19, fontWeight: 700 }}>{station.name}</Box>
      <Box>
        {figures.map((reading) => (
          <FigureLine key={reading.id} reading={reading} machine={machine} one={one} />
        ))}
        {figures.length === 0 && one.state !== "taken" && (
          <Box
            sx={{
              color: "text.secondary",
              lineHeight: 1.35,
              display: "-webkit-box",
              WebkitBoxOrient: "vertical",
              WebkitLineClamp: one.state === "open" ? "2" : "none",
              overflow: "hidden",
            }}
          >
            {one.says}
          </Box>
        )}
      </Box>
      <Box sx={{ fontWeight: 700, color: one.state === "not taken" ? "warning.main" : undefined }}>
        {WORDS[one.state]}
      </Box>
    </Box>
  );
}

const WORDS: Record<Taking["state"], string> = { open: "waits", taken: "taken", "not taken": "not taken" };

function FigureLine({ reading, machine, one }: { reading: Reading; machine: Machine; one: Taking }) {
  const { quantity, value, uncertainty, unit, context } = reading;
  const { signed, decimals, name } = quantityOf(quantity);
  const [first] = one.station.deciding(machine);
  const words = [
    context.channel !== "both" && context.channel,
    quantity !== first && name.toLowerCase(),
  ].filter(Boolean);
  return (
    <Box sx={{ display: "flex", gap: 1.25, alignItems: "baseline", flexWrap: "wrap" }}>
      <Box
        component="span"
        sx={{ fontFamily: READING_FONT, fontSize: 20, fontWeight: one.state === "taken" ? 700 : 400 }}
      >
        {withUncertainty(value, uncertainty, unit, signed, decimals)}
      </Box>
      <VerdictMark verdict={readingVerdict(reading, machine)} />
      {words.length > 0 && <Box sx={{ color: "text.secondary" }}>{words.join(", ")}</Box>}
    </Box>
  );
}
