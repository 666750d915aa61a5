"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { typedNumber } from "@/core/text/typed-number";
import {
  decide,
  TAPE_SIGNS,
  whyNotBakedSo,
  type MayPlay,
  type TapeCheck,
  type TapeSign,
} from "@/core/workshop/tape-condition";
import { changeTapeChecks, newId, playedTape } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { NumberField } from "@/ui/number-field";
import { PressButton } from "@/ui/press-button";
import type { JobView } from "../job/use-job-records";

const SAYS: Record<MayPlay, { words: string; tone: string }> = {
  play: { words: "✓ It may be played", tone: "success.main" },
  "with care": { words: "~ With care", tone: "warning.main" },
  "not yet": { words: "✕ Not yet", tone: "error.main" },
  "never as it is": { words: "✕ Never as it is", tone: "error.main" },
};

/** Tapes that are looked at before they are threaded, the latest first. */
export function TapeChecks({ view: { job } }: { view: JobView }) {
  const [name, setName] = useState("");
  const checks = (job.tapeChecks ?? []).toReversed();
  const add = async () => {
    const at = new Date().toISOString();
    const check: TapeCheck = {
      id: newId(),
      at,
      name: name.trim(),
      signs: [],
      consent: false,
      baked: null,
      playedAt: null,
    };
    await changeTapeChecks(job.id, (all) => [...all, check]);
    setName("");
  };
  return (
    <>
      <Card title="Before a tape goes in">
        <Box sx={{ lineHeight: 1.4 }}>
          An owner&apos;s tape that sheds ruins heads and every reference tape after it. Look first.
        </Box>
        <TextField
          size="small"
          fullWidth
          margin="dense"
          label="Which tape"
          value={name}
          onChange={({ target }) => setName(target.value.slice(0, 120))}
          onKeyDown={(event) => event.key === "Enter" && name.trim() !== "" && void add()}
        />
        <Button variant="outlined" fullWidth disabled={name.trim() === ""} onClick={() => void add()}>
          Look at it
        </Button>
      </Card>
      {checks.map((check) => (
        <OneTape key={check.id} check={check} jobId={job.id} />
      ))}
    </>
  );
}

function OneTape({ check, jobId }: { check: TapeCheck; jobId: string }) {
  const now = new Date().toISOString();
  const { play, says, notBaked, cleanAfter } = decide(check, now);
  const change = (fields: Partial<TapeCheck>) =>
    void changeTapeChecks(jobId, (all) =>
      all.map((one) => (one.id === check.id ? { ...one, ...fields } : one)),
    );
  const toggle = (sign: TapeSign) =>
    change({
      signs: check.signs.includes(sign)
        ? check.signs.filter((other) => other !== sign)
        : [...check.signs, sign],
    });
  return (
    <Card title={check.name} tone={play === "play" ? "plain" : "warning"}>
      <Box role="status" sx={{ fontSize: 24, fontWeight: 750, color: SAYS[play].tone }}>
        {SAYS[play].words}
      </Box>
      {says.map((line) => (
        <Box key={line} sx={{ lineHeight: 1.35, mt: 0.5 }}>
          {line}
        </Box>
      ))}
      <Box
        role="group"
        aria-label={`Signs of ${check.name}`}
        sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, my: 1 }}
      >
        {TAPE_SIGNS.map((sign) => (
          <PressButton key={sign} chosen={check.signs.includes(sign)} onClick={() => toggle(sign)}>
            {sign}
          </PressButton>
        ))}
      </Box>
      {play === "not yet" && notBaked === null && <Baking check={check} onChange={change} />}
      {play === "not yet" && notBaked !== null && cleanAfter && (
        <Box sx={{ color: "warning.main", fontWeight: 600 }}>{notBaked}</Box>
      )}
      {check.playedAt === null ? (
        <Button variant="outlined" color="inherit" fullWidth onClick={() => void playedTape(jobId, check.id)}>
          {cleanAfter ? "It was played: cleaning is due" : "It was played"}
        </Button>
      ) : (
        <Box sx={{ color: "text.secondary" }}>
          Played{cleanAfter ? "; the path is cleaned before a reference tape goes in" : ""}.
        </Box>
      )}
    </Card>
  );
}

/** What is written down of a tape that was baked: only with consent, never beyond what it bears. */
function Baking({ check, onChange }: { check: TapeCheck; onChange(fields: Partial<TapeCheck>): void }) {
  const [typed, setTyped] = useState({ celsius: "54", hours: "8" });
  const now = new Date().toISOString();
  const how = { celsius: typedNumber(typed.celsius.replace(/°C/i, "")), hours: typedNumber(typed.hours) };
  const why = whyNotBakedSo(check, how, now);
  return (
    <Box sx={{ mb: 1 }}>
      <FormControlLabel
        label="The owner agrees to its being baked"
        control={
          <Checkbox
            checked={check.consent}
            onChange={({ target }) => onChange({ consent: target.checked })}
          />
        }
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <NumberField
          label="Temperature, °C"
          value={typed.celsius}
          onChange={(celsius) => setTyped({ ...typed, celsius })}
        />
        <NumberField label="Hours" value={typed.hours} onChange={(hours) => setTyped({ ...typed, hours })} />
      </Box>
      {why && <Box sx={{ color: "warning.main", mt: 0.5 }}>{why}</Box>}
      <Button
        fullWidth
        variant="outlined"
        disabled={why !== null}
        sx={{ mt: 1 }}
        onClick={() => onChange({ baked: { ...how, at: now } })}
      >
        It was baked like that
      </Button>
    </Box>
  );
}
