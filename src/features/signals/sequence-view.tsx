"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import LinearProgress from "@mui/material/LinearProgress";
import Slider from "@mui/material/Slider";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { writeSequenceJson } from "@/core/formats/sequence-json";
import { segmentName, type Sequence } from "@/core/signals/sequence";
import { timelineOf } from "@/core/signals/timeline";
import { EXPORT_BITS, EXPORT_RATES, wavExport } from "@/core/formats/wav-export";
import { BandStrip } from "@/ui/band-strip";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import { download } from "../job/download";
import { sequencePieces } from "./sequence-pieces";
import { useExport } from "./use-export";
import type { usePlayer } from "./use-player";

interface SequenceViewProps {
  sequence: Sequence;
  player: ReturnType<typeof usePlayer>;
  editWord: string;
  onEdit(): void;
  onDelete: (() => void) | null;
}

const QUIETEST_DB = -60;
const STARTING_DB = -20;

/** One sequence: what is in it, play it, take it away as a file. */
export function SequenceView({ sequence, player, editWord, onEdit, onDelete }: SequenceViewProps) {
  const playing = player.playingId === sequence.id;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 2, minWidth: 0 }}>
      <Box>
        <Box component="h2" sx={{ fontSize: 24, m: 0, overflowWrap: "anywhere" }}>
          {sequence.name}
        </Box>
        <Box sx={{ color: "text.secondary", lineHeight: 1.4 }}>{sequence.description}</Box>
      </Box>
      <BandStrip
        label={`${sequence.name}, drawn as a tape`}
        pieces={sequencePieces(sequence)}
        played={playing ? player.share : null}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, gap: 2 }}>
        <PlayCard sequence={sequence} player={player} playing={playing} />
        <ExportCard sequence={sequence} />
      </Box>
      <Card title="What is in it">
        <Box component="ol" sx={{ m: 0, pl: 3, columns: { md: sequence.segments.length > 8 ? 2 : 1 } }}>
          {sequence.segments.map((segment, i) => (
            <Box component="li" key={i} sx={{ fontFamily: READING_FONT, fontSize: 15, py: 0.25 }}>
              {segment.name ? `${segment.name}: ` : ""}
              {segmentName(segment)}
            </Box>
          ))}
        </Box>
        <Box sx={{ color: "text.secondary", mt: 1, lineHeight: 1.4 }}>
          {sequence.leaderSeconds > 0 &&
            `${sequence.leaderSeconds} s of silence to start the recorder and announce. `}
          {sequence.marked &&
            "A short mark stands before each segment, by which Unzel finds it in a recording at any speed, after a rewind, or started in the middle. "}
          {sequence.gapSeconds > 0 && `${sequence.gapSeconds} s of silence after each. `}
          {(sequence.passes ?? 1) > 1 &&
            `Gone through ${sequence.passes} times, ${sequence.passGapSeconds} s apart; the marks count the passes. `}
          Levels are sine peaks in dBFS.
        </Box>
      </Card>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={onEdit}>
          {editWord}
        </Button>
        <Button
          color="inherit"
          onClick={() =>
            download(`${sequence.name}.sequence.json`, writeSequenceJson(sequence), "application/json")
          }
        >
          Export description
        </Button>
        {onDelete && (
          <Button color="error" onClick={onDelete}>
            Delete
          </Button>
        )}
      </Box>
    </Box>
  );
}

function PlayCard({
  sequence,
  player,
  playing,
}: {
  sequence: Sequence;
  player: SequenceViewProps["player"];
  playing: boolean;
}) {
  const [levelDb, setLevelDb] = useState(STARTING_DB);
  const { seconds } = timelineOf(sequence);
  return (
    <Card title="Play through the sound card">
      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
        <Button
          variant="contained"
          sx={{ minWidth: 96 }}
          onClick={() => (playing ? player.stop() : void player.play(sequence, levelDb))}
        >
          {playing ? "Stop" : "Play"}
        </Button>
        <Slider
          aria-label="Playing level"
          min={QUIETEST_DB}
          max={0}
          value={levelDb}
          getAriaValueText={(value) => `${value} dB`}
          onChange={(_, value) => {
            setLevelDb(value);
            player.setLevel(value);
          }}
        />
        <Box sx={{ fontFamily: READING_FONT, minWidth: 76, textAlign: "right" }}>
          {fixed(levelDb, 0)}
          {THIN_SPACE}dB
        </Box>
      </Box>
      <Box sx={{ mt: 1, color: "warning.main", fontWeight: 600, lineHeight: 1.35 }}>
        Test tones are loud and steady: headphones off, loudspeakers down, then raise the level.
      </Box>
      <Box role="status" sx={{ color: "text.secondary" }}>
        {playing &&
          player.share !== null &&
          `${(player.share * seconds).toFixed(0)} of ${seconds.toFixed(0)} s`}
        {levelDb > 0 - 0.5 && " As written: levels in dBFS are what leaves the converter."}
      </Box>
    </Card>
  );
}

function ExportCard({ sequence }: { sequence: Sequence }) {
  const [rate, setRate] = useState(48000);
  const [bits, setBits] = useState(24);
  let bytes: number | null = null;
  let why = "";
  try {
    bytes = wavExport(sequence, { rate, bits }).byteLength;
  } catch (error) {
    why = (error as Error).message;
  }
  const writing = useExport();
  return (
    <Card title="Take it away as a WAV file">
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
        <TextField
          select
          size="small"
          label="Rate"
          value={rate}
          onChange={({ target }) => setRate(Number(target.value))}
          sx={{ width: 110 }}
        >
          {EXPORT_RATES.map((value) => (
            <MenuItem key={value} value={value}>
              {value / 1000} kHz
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Bits"
          value={bits}
          onChange={({ target }) => setBits(Number(target.value))}
          sx={{ width: 116 }}
        >
          {EXPORT_BITS.map((value) => (
            <MenuItem key={value} value={value}>
              {value === 32 ? "32, float" : `${value}, dither`}
            </MenuItem>
          ))}
        </TextField>
        {writing.share === null ? (
          <Button
            variant="contained"
            disabled={bytes === null}
            onClick={() => void writing.write(sequence, { rate, bits })}
          >
            Export WAV
          </Button>
        ) : (
          <>
            <LinearProgress
              variant="determinate"
              value={100 * writing.share}
              aria-label="Written"
              sx={{ width: 120 }}
            />
            <Button variant="outlined" onClick={writing.cancel}>
              Stop
            </Button>
          </>
        )}
      </Box>
      <Box sx={{ color: "text.secondary", mt: 1 }}>
        {bytes !== null && `${(bytes / 1e6).toFixed(1)} MB, to play from any pocket player.`}
      </Box>
      {why && <Alert severity="warning">{why}</Alert>}
      {writing.trouble && <Alert severity="error">{writing.trouble}</Alert>}
    </Card>
  );
}
