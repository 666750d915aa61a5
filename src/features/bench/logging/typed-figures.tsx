import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { inForce } from "@/core/records/job-records";
import type { Phase, Reading } from "@/core/records/reading";
import { typedNumber } from "@/core/text/typed-number";
import { withUncertainty } from "@/core/text/number-text";
import { READING_FONT } from "@/ui/theme";
import type { JobView } from "@/features/job/use-job-records";

interface TypedFiguresProps {
  title: string;
  channels: readonly string[];
  label(channel: string): string;
  /** Why a number cannot be what is asked for; null when it can. */
  wrong(value: number): string | null;
  /** What is missing before anything can be made of it; null for nothing. */
  lacks: string | null;
  /** As what it may be logged; "working" alone is called Log. */
  phases?: readonly Phase[];
  onLog(channel: string, value: number, phase: Phase): void;
}

const offBy = ({ value, uncertainty }: Reading): string =>
  `off by ${withUncertainty(value, uncertainty, "dB", true)}`;

const WORDS: Record<Phase, string> = { "as found": "As found", working: "Log", "as left": "As left" };

/** Figures that are read off a meter and typed, a channel each. */
export function TypedFigures({
  view,
  quantity,
  recordingOn,
  saysOf = offBy,
  ...props
}: TypedFiguresProps & {
  view: Pick<JobView, "readings">;
  /** Of which the last that was logged is shown. */
  quantity: string;
  recordingOn?: string;
  /** The last one in words. */
  saysOf?(reading: Reading): string;
}) {
  const logged = inForce(view.readings).filter(
    (one) => one.quantity === quantity && one.context.recordingOn === recordingOn,
  );
  const { title, channels } = props;
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "center" }}
    >
      <Box sx={{ fontWeight: 600, color: "text.secondary", flexBasis: "100%" }}>{title}</Box>
      {channels.map((channel) => {
        const last = logged.findLast(({ context }) => context.channel === channel);
        const says = last ? saysOf(last) : "";
        return <TypedFigure key={channel} {...props} channel={channel} says={says} />;
      })}
    </Box>
  );
}

function TypedFigure({
  channel,
  label,
  wrong,
  lacks,
  phases = ["working"],
  onLog,
  says,
}: TypedFiguresProps & { channel: string; says: string }) {
  const [typed, setTyped] = useState("");
  const value = typedNumber(typed);
  const empty = !typed.trim();
  const fault = empty ? null : Number.isFinite(value) ? wrong(value) : "A number, please";
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "center", mt: 0.75, flexWrap: "wrap" }}>
      <TextField
        size="small"
        label={label(channel)}
        value={typed}
        error={fault !== null}
        onChange={({ target }) => setTyped(target.value)}
        sx={{ width: 150 }}
      />
      {phases.map((phase) => (
        <Button
          key={phase}
          variant="outlined"
          color="inherit"
          aria-label={phases.length > 1 ? `${WORDS[phase]}, ${channel}` : undefined}
          disabled={empty || fault !== null || lacks !== null}
          onClick={() => onLog(channel, value, phase)}
        >
          {WORDS[phase]}
        </Button>
      ))}
      <Box sx={{ fontFamily: READING_FONT, fontSize: 15 }}>{fault ?? (says || lacks)}</Box>
    </Box>
  );
}
