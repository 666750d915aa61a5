"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { writeTapeJson } from "@/core/formats/tape-json";
import { writeTapesCsv } from "@/core/formats/tape-csv";
import { uncertaintyText, type Band, type ReferenceTape } from "@/core/reference/reference-tape";
import { sectionName } from "@/core/programme/programme";
import { countPlay } from "@/storage/tapes";
import { BandStrip } from "@/ui/band-strip";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import { download } from "../job/download";
import { tapePieces } from "./tape-pieces";

interface TapeViewProps {
  tape: ReferenceTape;
  builtIn: boolean;
  onEdit(): void;
  onDelete(): void;
}

/** One reference tape: drawn, described, and its bands with their certificate. */
export function TapeView({ tape, builtIn, onEdit, onDelete }: TapeViewProps) {
  const offPitch = tape.bands.some(({ frequencyErrorPercent }) => frequencyErrorPercent);
  const corrected = tape.bands.some(({ correctionDb }) => correctionDb);
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 2, minWidth: 0 }}>
      <Box>
        <Box component="h2" sx={{ fontSize: 24, m: 0, overflowWrap: "anywhere" }}>
          {tape.name}
        </Box>
        <Box sx={{ color: "text.secondary", lineHeight: 1.45 }}>{facts(tape).join(" · ")}</Box>
        {tape.notes && <Box sx={{ mt: 0.5, lineHeight: 1.4, overflowWrap: "anywhere" }}>{tape.notes}</Box>}
      </Box>
      <BandStrip label={`${tape.name}, drawn as a tape`} pieces={tapePieces(tape.bands)} />
      {tape.making && (
        <Card title="Home-made">
          <Box sx={{ lineHeight: 1.45, overflowWrap: "anywhere" }}>
            Made by {tape.making.by || "somebody"} on {tape.making.machine || "a deck that was not named"}
            {tape.making.howChecked && `; the deck was checked: ${tape.making.howChecked}`}. Its speed was
            known to ±{tape.making.speedUncertaintyPercent} %, so no reading with this tape is better than
            that.
          </Box>
        </Card>
      )}
      <Card title={`Bands, ${minutes(tape.bands)}`}>
        <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Bands">
          <Box
            component="table"
            sx={{
              borderCollapse: "collapse",
              "& th": { textAlign: "left", color: "text.secondary", fontWeight: 600, pr: 3, py: 0.25 },
              "& td": { pr: 3, py: 0.25, fontFamily: READING_FONT, whiteSpace: "nowrap" },
            }}
          >
            <thead>
              <tr>
                <th>no.</th>
                <th>band</th>
                <th>for</th>
                <th>length</th>
                {corrected && <th>off by, left and right</th>}
                {offPitch && <th>frequency off by</th>}
              </tr>
            </thead>
            <tbody>
              {tape.bands.map((band, i) => (
                <tr key={i}>
                  <td>{i + 1}</td>
                  <td>{sectionName(band)}</td>
                  <td>{band.role ?? ""}</td>
                  <td>
                    {band.seconds}
                    {THIN_SPACE}s
                  </td>
                  {corrected && <td>{correctionText(band)}</td>}
                  {offPitch && (
                    <td>
                      {band.frequencyErrorPercent ? `${fixed(band.frequencyErrorPercent, 3, true)} %` : ""}
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      </Card>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={onEdit}>
          {builtIn ? "Make my own from it" : "Change"}
        </Button>
        <Button color="inherit" onClick={() => void countPlay(tape.id)}>
          Played once more ({tape.plays ?? 0})
        </Button>
        <Button
          color="inherit"
          onClick={() => download(`${tape.name}.tape.json`, writeTapeJson(tape), "application/json")}
        >
          Export JSON
        </Button>
        <Button
          color="inherit"
          onClick={() => download(`${tape.name}.csv`, writeTapesCsv([tape]), "text/csv")}
        >
          Export CSV
        </Button>
        {!builtIn && (
          <Button color="error" onClick={onDelete}>
            Delete
          </Button>
        )}
      </Box>
    </Box>
  );
}

function facts(tape: ReferenceTape): string[] {
  const { speedCmPerS, equalisation, fluxivityNwbPerM, fluxivityMethod, trackWidthMm, condition } = tape;
  return [
    `${speedCmPerS} cm/s`,
    `frequencies known to ±${uncertaintyText(tape)} %`,
    ...(equalisation ? [`${equalisation} µs`] : []),
    ...(fluxivityNwbPerM
      ? [`${fluxivityNwbPerM} nWb/m${fluxivityMethod ? ` (${fluxivityMethod.toUpperCase()})` : ""}`]
      : []),
    ...(trackWidthMm ? [`track ${trackWidthMm} mm`] : []),
    ...(condition ? [`condition: ${condition}`] : []),
  ];
}

function correctionText({ correctionDb, correctionUncertaintyDb }: Band): string {
  if (!correctionDb) return "";
  const { left, right } = correctionDb;
  const doubt = correctionUncertaintyDb ? ` ± ${correctionUncertaintyDb}` : "";
  return `${fixed(left, 1, true)}, ${fixed(right, 1, true)}${doubt} dB`;
}

function minutes(bands: readonly Band[]): string {
  const seconds = bands.reduce((sum, band) => sum + band.seconds, 0);
  return `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s in all`;
}
