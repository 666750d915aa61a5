import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { typedOrNothing } from "@/core/text/typed-number";
import {
  cleaningEntrySchema,
  cleaningText,
  currentSays,
  DONE,
  FOUND,
  lastEntry,
  SUBJECTS,
  toClean,
  type CleaningEntry,
  type ToClean,
} from "@/core/workshop/cleaning";
import { changeCleaning, newId } from "@/storage/jobs";
import { NumberField } from "@/ui/number-field";
import { PressButton } from "@/ui/press-button";
import type { JobView } from "../job/use-job-records";

/** Every part of the machine that is cleaned: pressed, and said what was found, what was done, with what. */
export function CleaningTiles({ view: { job, machine } }: { view: JobView }) {
  const entries = job.cleaning ?? [];
  const all = toClean(machine.parts, !(machine.without ?? []).includes("supply"));
  const [openWhat, open] = useState<string | null>(null);
  const chosen = all.find(({ what }) => what === openWhat) ?? null;
  const done = all.filter(({ what }) => lastEntry(entries, what)).length;
  return (
    <Box component="section" aria-label="Part by part">
      <Box sx={{ fontWeight: 700, mb: 0.75 }}>
        Part by part: {done} of {all.length}
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(150px, 1fr))", gap: 0.75 }}>
        {all.map(({ what }) => (
          <Tile
            key={what}
            what={what}
            entry={lastEntry(entries, what)}
            isOpen={what === openWhat}
            onOpen={() => open(what === openWhat ? null : what)}
          />
        ))}
      </Box>
      {chosen && <Said key={chosen.what} jobId={job.id} one={chosen} onDone={() => open(null)} />}
    </Box>
  );
}

function Tile({
  what,
  entry,
  isOpen,
  onOpen,
}: {
  what: string;
  entry: CleaningEntry | null;
  isOpen: boolean;
  onOpen(): void;
}) {
  return (
    <Box
      component="button"
      type="button"
      aria-expanded={isOpen}
      onClick={onOpen}
      sx={{
        minHeight: 58,
        px: 1,
        py: 0.5,
        font: "inherit",
        color: "inherit",
        textAlign: "left",
        cursor: "pointer",
        bgcolor: isOpen ? "action.selected" : "transparent",
        border: 1,
        borderStyle: entry ? "solid" : "dashed",
        borderColor: entry ? "success.main" : "divider",
        borderRadius: 1,
        lineHeight: 1.25,
      }}
    >
      <Box sx={{ fontWeight: 700, overflowWrap: "anywhere" }}>{what}</Box>
      <Box sx={{ fontSize: 14, color: "text.secondary" }}>
        {entry ? cleaningText(entry) : "not looked at"}
      </Box>
    </Box>
  );
}

function Said({ jobId, one: { what, subject }, onDone }: { jobId: string; one: ToClean; onDone(): void }) {
  const { using: usual, mind } = SUBJECTS[subject];
  const [found, setFound] = useState<(typeof FOUND)[number] | null>(null);
  const [using, setUsing] = useState("");
  const [drew, setDrew] = useState({ beforeMa: "", afterMa: "" });
  const [wrong, say] = useState<string | null>(null);
  const typed = { beforeMa: typedOrNothing(drew.beforeMa), afterMa: typedOrNothing(drew.afterMa) };
  const keep = async (done: (typeof DONE)[number]) => {
    if (!found) return;
    const entry = { id: newId(), at: new Date().toISOString(), what, found, done, using, ...typed };
    const checked = cleaningEntrySchema.safeParse(entry);
    if (!checked.success) return say(checked.error.issues[0].message);
    await changeCleaning(jobId, (all) => [...all, checked.data]);
    onDone();
  };
  return (
    <Box sx={{ border: 1, borderColor: "primary.main", borderRadius: 1, p: 1.25, mt: 1 }}>
      <Box sx={{ fontSize: 20, fontWeight: 750 }}>{what}</Box>
      <Box sx={{ color: "warning.main", fontWeight: 600, lineHeight: 1.35 }}>{mind}</Box>
      <Words label="Found" words={FOUND} chosen={found} onChoose={(one) => setFound(one)} />
      <Words label="With" words={usual} chosen={using} onChoose={(one) => setUsing(one)} />
      <TextField
        size="small"
        fullWidth
        margin="dense"
        label="With something else"
        value={(usual as readonly string[]).includes(using) ? "" : using}
        onChange={({ target }) => setUsing(target.value.slice(0, 80))}
      />
      {subject === "motor" && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center", mt: 0.75 }}>
          <NumberField
            label="It drew, mA"
            value={drew.beforeMa}
            onChange={(beforeMa) => setDrew((before) => ({ ...before, beforeMa }))}
          />
          <NumberField
            label="Run in, mA"
            value={drew.afterMa}
            onChange={(afterMa) => setDrew((before) => ({ ...before, afterMa }))}
          />
          <Box sx={{ fontWeight: 600 }}>{currentSays(typed)}</Box>
        </Box>
      )}
      {wrong && <Alert severity="error">{wrong}</Alert>}
      <Box role="group" aria-label="Done" sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", mt: 0.75 }}>
        {DONE.map((done) => (
          <Button key={done} variant="outlined" disabled={!found} onClick={() => void keep(done)}>
            {done}
          </Button>
        ))}
      </Box>
      {!found && <Box sx={{ color: "text.secondary", mt: 0.5 }}>Say what was found first.</Box>}
    </Box>
  );
}

interface WordsProps<T extends string> {
  label: string;
  words: readonly T[];
  chosen: string | null;
  onChoose(word: T): void;
}

const Words = <T extends string>({ label, words, chosen, onChoose }: WordsProps<T>) => (
  <Box role="group" aria-label={label} sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", mt: 0.75 }}>
    {words.map((word) => (
      <PressButton key={word} chosen={chosen === word} onClick={() => onChoose(word)}>
        {word}
      </PressButton>
    ))}
  </Box>
);
