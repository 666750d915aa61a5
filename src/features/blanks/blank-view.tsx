import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { writeBlankJson } from "@/core/formats/blank-tape-json";
import { typeWords, type BlankTape } from "@/core/records/blank-tape";
import { fixed, hertzText, THIN_SPACE } from "@/core/text/number-text";
import { Card } from "@/ui/card";
import { READING_FONT } from "@/ui/theme";
import { download } from "../job/download";

interface BlankViewProps {
  blank: BlankTape;
  /** Numbers of the jobs that are set for it. */
  jobs: readonly string[];
  onEdit(): void;
  onDelete(): void;
}

/** One blank tape: what kind it is, how it wants to be biased and recorded, and what to mind. */
export function BlankView({ blank, jobs, onEdit, onDelete }: BlankViewProps) {
  const { condition, overBias, recommendedLevelDb, treble } = blank;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 2, minWidth: 0 }}>
      <Box>
        <Box component="h2" sx={{ fontSize: 24, m: 0, overflowWrap: "anywhere" }}>
          {blank.name}
        </Box>
        <Box sx={{ fontSize: 20, fontWeight: 650 }}>{typeWords(blank)}</Box>
        {blank.type === null && (
          <Box sx={{ color: "warning.main", fontWeight: 600 }}>
            Say which type it is: trimmers of a type are offered only for tapes of that type.
          </Box>
        )}
      </Box>
      {condition.shedding && (
        <Box
          role="note"
          sx={{ border: 2, borderColor: "error.main", borderRadius: 1, p: 1.5, fontWeight: 600 }}
        >
          This tape sheds: do not set a machine with it, and clean the heads after it.
        </Box>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, gap: 2 }}>
        <Card title="Over-bias">
          {overBias.length === 0 && (
            <Box sx={{ color: "text.secondary", lineHeight: 1.4 }}>
              No figure is written down. Bias is set flat, or by the least third harmonic.
            </Box>
          )}
          {overBias.map(({ speedCmPerS, frequencyHz, db }) => (
            <Box key={`${speedCmPerS} ${frequencyHz}`} sx={{ py: 0.5 }}>
              <Box component="span" sx={{ fontFamily: READING_FONT, fontSize: 24 }}>
                {fixed(db, 1)}
                {THIN_SPACE}dB
              </Box>{" "}
              past the loudest point of {hertzText(frequencyHz)}, at {speedCmPerS} cm/s
            </Box>
          ))}
        </Card>
        <Card title="Recording">
          <Box sx={{ lineHeight: 1.6 }}>
            {recommendedLevelDb === undefined
              ? "No recommended level is written down."
              : `Up to ${fixed(recommendedLevelDb, 1, true)} dB re the machine's 0.`}
            <br />
            {treble ? `Its treble is ${treble} beside others of its kind.` : "Its treble is not described."}
            <br />
            {[condition.backCoated && "back-coated", condition.age].filter(Boolean).join(", ")}
          </Box>
        </Card>
      </Box>
      {blank.notes && <Card title="Notes">{blank.notes}</Card>}
      <Box sx={{ color: "text.secondary" }}>
        {jobs.length > 0 ? `Jobs set for it: ${jobs.join(", ")}.` : "No job is set for it yet."}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={onEdit}>
          Change
        </Button>
        <Button
          color="inherit"
          onClick={() => download(`${blank.name}.blank.json`, writeBlankJson(blank), "application/json")}
        >
          Export JSON
        </Button>
        <Button color="error" onClick={onDelete}>
          Delete
        </Button>
      </Box>
    </Box>
  );
}
