import Box from "@mui/material/Box";
import { saidOfTape } from "@/core/stations/said-of-tape";
import type { Hears, MeasuringStation } from "@/core/stations/station";
import { DeskPaper } from "@/ui/desk-paper";
import { PICTURES } from "./stations";
import type { PictureProps } from "./stations/picture";
import type { ListenerState } from "./listening/use-listener";

/** The middle of the bench at a station that measures. */
export function Middle(props: PictureProps) {
  const { station, bench } = props;
  const { Middle: Picture } = pictureOf(station);
  const lacks = saidOfTape(station, bench);
  return (
    <DeskPaper label={station.name} spread={station.group === "transport"} gap={1}>
      {lacks && (
        <Box sx={{ color: "warning.main", fontWeight: 600 }}>{lacks} Choose another tape on the left.</Box>
      )}
      <Picture {...props} absent={lacks ? NOT_BY_THIS_TAPE : props.absent} />
    </DeskPaper>
  );
}

/** Where a tape lacks something, what it does tell is still shown; this stands in place of the rest. */
const NOT_BY_THIS_TAPE = "Cannot be told by this tape";

export const pictureOf = ({ id }: MeasuringStation) => PICTURES[id as keyof typeof PICTURES];

const PLAY: Record<Hears["what"], string> = {
  "speed tone": "Waiting for the tone",
  "reference tape": "Play the tape from its first tone",
  "source and tape": "Send a tone to the machine and record it",
  sequence: "Send the sequence to the machine and record it",
  recording: "Send both tones to the machine and record them",
};

/** What stands where there is no number yet. */
export function absence(
  { kind, progress, live, heard }: ListenerState,
  { hears }: MeasuringStation,
  tapeName: string,
): string {
  if (progress !== null) return `Measuring the file, ${Math.round(100 * progress)} %`;
  if (kind === null) return "Start a source below, or drop a recording here";
  // what is wrong with a tone tells nothing of bands that are not in the file
  const ofTone = hears.what === "speed tone" ? (heard?.problems.at(0) ?? null) : null;
  if (kind === "file") return ofTone ?? `Nothing of ${tapeName} in this file`;
  if (!live) return "Listening…";
  if (ofTone) return ofTone;
  return hears.flutter && heard?.speed ? "Listening; a few seconds more" : PLAY[hears.what];
}
