import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState, type ReactNode } from "react";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { recordedHere } from "@/core/stations/recorded";
import { PRESETS } from "@/core/signals/presets";
import { timelineOf } from "@/core/signals/timeline";
import { usePlayer } from "../signals/use-player";
import type { PictureProps } from "./stations/picture";

interface RecordStepsProps extends Pick<PictureProps, "bench" | "listener" | "station" | "view"> {
  /** What else is chosen beside what is sent. */
  children?: ReactNode;
}

type Step = "record" | "rewind" | "play";

/** Record, rewind, play, or source and tape: what to press now, and what was heard so far, as large as a number. */
export function RecordSteps({ bench, listener, station, view, children }: RecordStepsProps) {
  const sequence = PRESETS.find(({ id }) => id === station.hears.sequence);
  const { lacks, recorded } = recordedHere(bench);
  const hears = bench.heard?.returned?.passes.at(-1)?.hears ?? null;
  const now = stepNow(bench, hears, recorded.length);
  if (!sequence) return null;
  const blank = view.blanks?.find(({ id }) => id === bench.circumstances.recordingOn) ?? null;
  const steps: Array<[Step, string]> = view.machine.monitorsTape
    ? [
        ["record", "Record, source"],
        ["play", "Monitor the tape"],
      ]
    : [
        ["record", "Record"],
        ["rewind", "Rewind"],
        ["play", "Play"],
      ];
  return (
    <Box sx={{ display: "grid", gap: 0.75 }}>
      <Box role="group" aria-label="Steps" sx={{ display: "flex", gap: 0.75 }}>
        {steps.map(([step, words], i) => (
          <Box
            key={step}
            aria-current={step === now ? "step" : undefined}
            sx={{
              flex: 1,
              border: 2,
              borderColor: step === now ? "primary.main" : "divider",
              color: step === now ? "text.primary" : "text.secondary",
              borderRadius: 1,
              px: 1.25,
              py: 0.5,
              fontSize: 18,
              fontWeight: step === now ? 750 : 500,
            }}
          >
            {i + 1} {words}
          </Box>
        ))}
      </Box>
      <Box role="status" aria-label="Recording" sx={{ lineHeight: 1.35, fontWeight: 600, fontSize: 17 }}>
        {lacks ?? `Pass ${recorded.at(-1)?.pass.pass} came back whole; nothing was turned since.`}
        {lacks === null && !recorded.at(-1)?.source && (
          <Box component="span" sx={{ fontWeight: 400 }}>
            {" "}
            Re what was sent: monitor the source for one pass to take away what the way there does.
          </Box>
        )}
      </Box>
      <Box sx={{ display: "flex", columnGap: 2, rowGap: 0.75, flexWrap: "wrap", alignItems: "center" }}>
        <Send {...{ listener, sequence, blank }} />
        {children}
      </Box>
    </Box>
  );
}

function stepNow({ heard, here }: OnTheBench, hears: string | null, count: number): Step {
  if (here.machine.monitorsTape) return hears === null ? "record" : "play";
  if (heard?.returned?.passes.length && hears === "source" && count === 0) return "rewind";
  return hears === "tape" ? "play" : "record";
}

const PASSES = [1, 3, 5, 8];
const QUIET_DB = -6;

interface SendProps {
  listener: PictureProps["listener"];
  sequence: (typeof PRESETS)[number];
  blank: Parameters<PictureProps["listener"]["recordSequence"]>[1];
}

/** Sends the station's sequence: into the practice machine, or out of the sound card. */
function Send({ listener, sequence, blank }: SendProps) {
  const player = usePlayer();
  const [passes, setPasses] = useState(1);
  const [agreed, setAgreed] = useState(false);
  const asked = { ...sequence, passes };
  const { practice } = listener;
  const seconds = Math.round(timelineOf(asked).seconds);
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      <TextField
        select
        size="small"
        label="Passes"
        value={passes}
        onChange={({ target }) => setPasses(Number(target.value))}
        sx={{ width: 90 }}
      >
        {PASSES.map((count) => (
          <MenuItem key={count} value={count}>
            {count}
          </MenuItem>
        ))}
      </TextField>
      {practice ? (
        <>
          <Button variant="contained" onClick={() => void listener.recordSequence(asked, blank)}>
            Record the sequence, {seconds} s
          </Button>
          {practice.heads > 2 ? (
            <Button
              variant="outlined"
              color="inherit"
              onClick={() => void listener.monitor(practice.deck.monitor === "tape" ? "source" : "tape")}
            >
              Monitor the {practice.deck.monitor === "tape" ? "source" : "tape"}
            </Button>
          ) : (
            <Button variant="outlined" color="inherit" onClick={() => void listener.playRecording()}>
              Rewind and play
            </Button>
          )}
        </>
      ) : player.playingId ? (
        <Button variant="contained" onClick={player.stop}>
          Stop sending
        </Button>
      ) : agreed ? (
        <Button variant="contained" onClick={() => void player.play(asked, QUIET_DB)}>
          Send the sequence, {seconds} s
        </Button>
      ) : (
        <Button variant="outlined" onClick={() => setAgreed(true)}>
          Loud tones will leave the sound card: headphones off, monitors down. Agreed
        </Button>
      )}
      {player.trouble && <Box sx={{ color: "warning.main" }}>{player.trouble}</Box>}
    </Box>
  );
}
