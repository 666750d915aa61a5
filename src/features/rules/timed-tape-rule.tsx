"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { timedTape } from "@/core/workshop/timed-tape";
import { Card } from "@/ui/card";
import { useKeptForm } from "../use-kept-form";
import { typedNumber } from "@/core/text/typed-number";
import { NumberField } from "@/ui/number-field";
import { SpeedAnswer } from "./speed-answer";

const BEGIN = { metres: "", seconds: "", nominal: "4.76" };

/** A measured length of tape between two marks, and the time it takes to pass. */
export function TimedTapeRule() {
  const { form, change } = useKeptForm("rule-timed-tape", () => BEGIN);
  const [since, setSince] = useState<number | null>(null);
  const [metres, seconds, nominal] = [form.metres, form.seconds, form.nominal].map(typedNumber);
  const answer = metres > 0 && seconds > 0 && nominal > 0 ? timedTape(metres, seconds, nominal) : null;
  const press = () => {
    const now = performance.now();
    if (since === null) return setSince(now);
    change({ seconds: ((now - since) / 1000).toFixed(2) });
    setSince(null);
  };
  return (
    <Card title="A timed length of tape">
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <NumberField label="Length, m" value={form.metres} onChange={(m) => change({ metres: m })} />
        <NumberField label="Time, s" value={form.seconds} onChange={(s) => change({ seconds: s })} />
        <NumberField label="Should be, cm/s" value={form.nominal} onChange={(n) => change({ nominal: n })} />
        <Button variant="outlined" color="inherit" onClick={press}>
          {since === null ? "First mark passes" : "Second mark passes"}
        </Button>
      </Box>
      {answer ? (
        <SpeedAnswer
          errorPercent={answer.errorPercent}
          uncertaintyPercent={answer.uncertaintyPercent}
          method="a timed length of tape"
          source={{ kind: "by hand", name: `${form.metres} m in ${form.seconds} s` }}
          seconds={seconds}
        />
      ) : (
        <Typography sx={{ color: "text.secondary", mt: 1 }}>
          Two marks on a worthless tape, {nominal > 0 ? (nominal * 0.6).toFixed(1) : "30"} m apart make a
          minute: good to about half a per cent by hand.
        </Typography>
      )}
    </Card>
  );
}
