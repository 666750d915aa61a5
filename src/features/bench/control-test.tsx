import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { controlNow, USUAL_CONTROLS } from "@/core/stations/controls";
import { channelNames } from "@/core/stations/channels";
import { readingsOf, readingVerdict } from "@/core/alignment/station-state";
import { quantityOf } from "@/core/alignment/registry";
import { fixed, THIN_SPACE, withUncertainty } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { VerdictMark } from "@/ui/verdict-mark";
import type { PictureProps } from "./stations/picture";

/** A control or switch is worked while a tone plays: its crackles and drop-outs counted, its balance followed, before and after. */
export function ControlTest({ view, station, bench, listener, absent, onCircumstances }: PictureProps) {
  const { circumstances } = bench;
  const { control = "" } = circumstances;
  const { test, lacks } = controlNow(bench);
  const names = channelNames(view.machine.channels);
  const kept = readingsOf(view, station).filter(
    ({ context }) => context.control === control && control !== "",
  );
  return (
    <>
      <Autocomplete
        freeSolo
        options={USUAL_CONTROLS}
        inputValue={control}
        onInputChange={(_, words) => onCircumstances({ ...circumstances, control: words.slice(0, 60) })}
        renderInput={(params) => <TextField {...params} label="Which control or switch" />}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {names.map((name, c) => {
          const heard = test?.channels.at(Math.min(c, test.channels.length - 1)) ?? null;
          return (
            <Box key={name}>
              <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
                Crackles{names.length > 1 ? `, ${name}` : ""}
              </Box>
              <Box
                role="meter"
                aria-label={`Crackles ${name}`}
                aria-valuenow={heard?.crackles ?? 0}
                aria-valuetext={heard ? `${heard.crackles} crackles, ${heard.dropOuts} drop-outs` : absent}
                sx={{ fontFamily: READING_FONT, fontSize: 88, fontWeight: 700, lineHeight: 1.05 }}
              >
                {heard?.crackles ?? "–"}
              </Box>
              <Box sx={{ fontSize: 20 }}>
                {heard
                  ? `${heard.dropOuts} drop-outs, tone at ${fixed(heard.levelDbfs, 1)}${THIN_SPACE}dBFS`
                  : absent}
              </Box>
            </Box>
          );
        })}
      </Box>
      {test?.balance && (
        <Box sx={{ fontSize: 20 }}>
          Balance went from {fixed(test.balance.fromDb, 1, true)} to {fixed(test.balance.toDb, 1, true)}
          {THIN_SPACE}dB re where it began.
        </Box>
      )}
      <Box role="status" aria-label="Control test" sx={{ fontWeight: 600, fontSize: 19, lineHeight: 1.35 }}>
        {lacks ??
          `${fixed(test?.seconds ?? 0, 0)} s of it heard: log it as found before cleaning, as left after it.`}
      </Box>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
        <Button
          variant={test ? "outlined" : "contained"}
          size="large"
          disabled={!listener.hears}
          onClick={listener.beginControls}
        >
          {test ? "Begin again" : "Begin"}
        </Button>
        {!listener.hears && (
          <Box sx={{ color: "text.secondary" }}>It is counted live: start the source first.</Box>
        )}
      </Box>
      {kept.length > 0 && (
        <Box component="ul" aria-label="This control before" sx={{ listStyle: "none", p: 0, m: 0 }}>
          {kept.map((reading) => (
            <Box
              component="li"
              key={reading.id}
              sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", py: 0.25 }}
            >
              <Box sx={{ width: 80, color: "text.secondary" }}>{reading.phase}</Box>
              <Box sx={{ minWidth: 210 }}>
                {quantityOf(reading.quantity).name}
                {reading.context.channel === "both" ? "" : `, ${reading.context.channel}`}
              </Box>
              <Box sx={{ fontFamily: READING_FONT, fontWeight: 600 }}>
                {withUncertainty(reading.value, reading.uncertainty, reading.unit)}
              </Box>
              <VerdictMark verdict={readingVerdict(reading, view.machine)} />
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}
