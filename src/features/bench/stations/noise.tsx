import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo } from "react";
import { humMeans } from "@/core/advice/hum-means";
import { NOISE_UNCERTAINTY_DB } from "@/core/stations/erased";
import { NOISE_OF, noiseCauses, noiseNow, quietNow } from "@/core/stations/noise";
import { fixed, hertzText, THIN_SPACE } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import { Figure } from "../figure";
import { RecordSteps } from "../record-steps";
import { onThisTape } from "../record-view";
import { UsualCauses } from "../usual-causes";
import type { PictureProps, StationPicture } from "./picture";

/** Noise of a recorded silence by its three weightings, the mains lines in it, and what comes across between the channels. */
function Noise({ view, bench, listener, station, absent, onCircumstances }: PictureProps) {
  const mine = useMemo(() => onThisTape(view, bench), [view, bench]);
  const { channels, lacks } = noiseNow(bench);
  const { noiseOf } = bench.circumstances;
  const quiet = quietNow(bench);
  const causes = noiseCauses(bench);
  const names = view.machine.channels === 1 ? ["both"] : ["left", "right"];
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
        {names.map((name) => {
          const own = channels.find(({ channel }) => channel === name);
          const silent = quiet.channels.find(({ channel }) => channel === name);
          return (
            <Figure
              key={name}
              view={mine}
              quantity={noiseOf ? NOISE_OF[noiseOf].quantity : "noise.a"}
              channel={names.length === 1 ? undefined : name}
              value={noiseOf ? (silent?.aDb ?? null) : (own?.noise?.aDb ?? null)}
              uncertainty={noiseOf ? (silent?.uncertaintyDb ?? 0) : NOISE_UNCERTAINTY_DB}
              settled={noiseOf ? quiet.lacks === null : lacks === null}
              settling="look"
              ends={["quiet", "loud"]}
              absent={absent}
              size="narrow"
            />
          );
        })}
      </Box>
      <RecordSteps {...{ bench, listener, station, view }} lacks={noiseOf ? quiet.lacks : lacks} />
      <Box role="group" aria-label="Noise of" sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
        {([undefined, "machine", "bulk"] as const).map((one) => (
          <Button
            key={one ?? "silence"}
            size="small"
            variant={noiseOf === one ? "contained" : "outlined"}
            color={noiseOf === one ? "primary" : "inherit"}
            aria-pressed={noiseOf === one}
            onClick={() => onCircumstances({ ...bench.circumstances, noiseOf: one })}
          >
            {one ? NOISE_OF[one].says : "a recorded silence"}
          </Button>
        ))}
      </Box>
      <UsualCauses>
        {causes.map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </UsualCauses>
      {noiseOf ? (
        <Box>
          Over 20 Hz to 20 kHz:{" "}
          {quiet.channels
            .map(({ channel, flatDb }) => `${channel} ${fixed(flatDb, 1)}${THIN_SPACE}dB`)
            .join(", ")}
        </Box>
      ) : (
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: `repeat(${names.length}, 1fr)` }, gap: 2 }}>
          {channels.map(({ channel, noise, hum, crosstalkDb, crosstalkHighDb }) => (
            <Box key={channel} component="table" sx={{ borderCollapse: "collapse", "& td": { py: 0.25 } }}>
              <tbody>
                <Row what="20 Hz to 20 kHz" db={noise?.flatDb ?? null} />
                <Row what="A-weighted" db={noise?.aDb ?? null} />
                <Row what="468 quasi-peak" db={noise?.itu468Db ?? null} />
                {names.length > 1 && (
                  <Row
                    what="comes across from the other channel, 1 kHz"
                    db={crosstalkDb}
                    absent="no more than chance"
                  />
                )}
                {names.length > 1 && (
                  <Row what="the same at 10 kHz" db={crosstalkHighDb} absent="no more than chance" />
                )}
                {hum.map(({ frequencyHz, levelDb }) => (
                  <Row
                    key={frequencyHz}
                    what={`mains line at ${hertzText(frequencyHz)}: ${humMeans(frequencyHz)}`}
                    db={levelDb}
                  />
                ))}
              </tbody>
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}

function Row({ what, db, absent = "cannot be told" }: { what: string; db: number | null; absent?: string }) {
  return (
    <tr>
      <td>{what}</td>
      <Box component="td" sx={{ fontFamily: READING_FONT, textAlign: "right", whiteSpace: "nowrap", pl: 1 }}>
        {db === null ? absent : `${fixed(db, 1)}${THIN_SPACE}dB`}
      </Box>
    </tr>
  );
}

export const noise: StationPicture = { Middle: Noise };
