import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Slider from "@mui/material/Slider";
import TextField from "@mui/material/TextField";
import { useEffect, useState } from "react";
import { SteadyLevels } from "@/core/measure/steady-levels";
import { PRESETS } from "@/core/signals/presets";
import { typedNumber } from "@/core/text/typed-number";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { changeJob } from "@/storage/jobs";
import { READING_FONT } from "@/ui/theme";
import { usePlayer } from "@/features/signals/use-player";
import type { PictureProps } from "../stations/picture";

/** Before 0 was set: not so loud that an input is likely to clip. */
export const UNSET_SEND_DB = -6;
const LEVEL_TONE = PRESETS.find(({ id }) => id === "level-tone")!;
/** A level tone that comes in is louder than this. */
const TONE_DBFS = -50;

/** The practice machine was chosen, and is not there yet: what is sent now would go elsewhere. */
export const isStarting = ({ kind, practice }: PictureProps["listener"]): boolean =>
  kind === "practice" && practice === null;

/** Peak of a tone that stands in each channel, dBFS; null while none does, as with noise, or between two monitors. */
function useToneLevels(live: PictureProps["listener"]["live"]): readonly number[] | null {
  const [steady] = useState(() => new SteadyLevels());
  const [heard, setHeard] = useState<readonly number[] | null>(null);
  useEffect(() => {
    const levels = live?.channels.map(({ peakDbfs }) => peakDbfs) ?? null;
    const isLoud = levels?.every((level) => level > TONE_DBFS) ?? false;
    const stood = steady.push(isLoud ? levels : null, performance.now() / 1000);
    queueMicrotask(() => setHeard(stood));
  }, [steady, live]);
  return heard;
}

/** Finds the machine's 0 once per job: the level tone plays until its meter, or a voltmeter, shows 0. */
export function SetZero({ listener, view }: Pick<PictureProps, "listener" | "view">) {
  const [open, setOpen] = useState(false);
  const { zero } = view.job;
  return (
    <>
      <Button
        variant="text"
        color={zero ? "inherit" : "primary"}
        onClick={() => setOpen(true)}
        sx={{ whiteSpace: "nowrap" }}
      >
        {zero ? "0 is set" : "Set 0"}
      </Button>
      {open && <ZeroDialog {...{ listener, view }} onClose={() => setOpen(false)} />}
    </>
  );
}

function ZeroDialog({
  listener,
  view,
  onClose,
}: Pick<PictureProps, "listener" | "view"> & { onClose(): void }) {
  const { job } = view;
  const player = usePlayer();
  const [sendDb, setSendDb] = useState(job.zero?.sendDb ?? UNSET_SEND_DB);
  const [typed, setTyped] = useState(job.zero?.volts === undefined ? "" : String(job.zero.volts));
  const volts = typed.trim() ? typedNumber(typed) : null;
  const wrong = volts !== null && !(volts > 0 && volts <= 100);
  const { practice } = listener;
  const plays = practice ? practice.deck.key === "record" : player.playingId !== null;
  const heard = useToneLevels(listener.live);
  const play = async () => {
    if (!practice) return player.play(LEVEL_TONE, sendDb);
    await listener.recordSequence(LEVEL_TONE, null);
    await listener.monitor("source");
  };
  const keep = async () => {
    const at = new Date().toISOString();
    await changeJob(job.id, {
      zero: { at, sendDb, inputDbfs: heard && [...heard], ...(volts !== null && { volts }) },
    });
    onClose();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Where 0 is on this machine</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5, lineHeight: 1.4 }}>
        <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
          <li>Send the level tone, the machine in record or record pause, its monitor on source.</li>
          <li>Turn the machine&apos;s own record level, both channels, until its meter shows 0.</li>
          <li>Say so here, while the tone plays. Leave the record level there until the job is done.</li>
        </Box>
        <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
          <Button
            variant={plays ? "outlined" : "contained"}
            disabled={isStarting(listener)}
            onClick={() => (plays && !practice ? player.stop() : void play())}
          >
            {plays && !practice ? "Stop the tone" : "Send the level tone"}
          </Button>
          {!practice && (
            <Box sx={{ flex: 1, px: 1 }}>
              <Slider
                aria-label="Sent at, dB below full output"
                min={-40}
                max={0}
                step={1}
                value={sendDb}
                valueLabelDisplay="auto"
                onChange={(_, value) => {
                  setSendDb(value as number);
                  player.setLevel(value as number);
                }}
              />
              <Box sx={{ color: "text.secondary" }}>
                Sent at {fixed(sendDb, 0)}
                {THIN_SPACE}dB below full output. Everything in this job is sent so.
              </Box>
            </Box>
          )}
        </Box>
        <Box role="status" aria-label="What goes in" sx={{ fontFamily: READING_FONT }}>
          {heard
            ? `What Unzel hears: ${heard.map((level) => `${fixed(level, 1)}${THIN_SPACE}dBFS`).join(" and ")}`
            : "Unzel hears no tone that stands: with the source monitored it will notice when the record level is moved later."}
          {practice && heard && (
            <Box>
              The machine&apos;s meters:{" "}
              {practice.deck.meterDb.map((db) => `${fixed(db, 1, true)}${THIN_SPACE}dB`).join(" and ")}
            </Box>
          )}
        </Box>
        <TextField
          size="small"
          label="Or a voltmeter at its input shows, V (leave empty for the meter)"
          value={typed}
          error={wrong}
          helperText={wrong ? "Volts, more than nothing and up to 100." : " "}
          onChange={({ target }) => setTyped(target.value)}
        />
        {player.trouble && <Box sx={{ color: "warning.main" }}>{player.trouble}</Box>}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button variant="contained" disabled={!plays || wrong} onClick={() => void keep()}>
          It shows 0
        </Button>
      </DialogActions>
    </Dialog>
  );
}
