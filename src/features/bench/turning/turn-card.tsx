"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { memo, type ReactNode } from "react";
import type { Adjuster } from "@/core/records/machine";
import { arcOf, type Advised } from "@/core/stations/advised";
import { directionInWords, turnInWords } from "@/core/guidance/turn-guidance";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import { INK, SOFT, token } from "@/ui/theme";
import type { ProposedTurns } from "./use-proposed-turns";

/** Amounts a hand can judge. */
const AMOUNTS = [1 / 64, 1 / 32, 1 / 16, 1 / 12, 1 / 8, 1 / 6, 1 / 4, 1 / 3, 3 / 8, 1 / 2, 3 / 4, 1, 1.5, 2];

interface TurnCardProps {
  advised: Advised;
  proposed: ProposedTurns;
  onChoose(adjusterId: string): void;
  /** What is to be done before anything is turned here. */
  first?: ReactNode;
  /** Nothing was logged yet, so as found comes before any turn. */
  foundFirst: boolean;
  /** The practice machine knows how far its slot was turned. */
  counted: boolean;
  /** What the practice machine knows of its stop decides, where nothing is said of it. */
  onTurned(atStop?: boolean): void;
}

/** Which adjuster, which way, and how much is left, with how it knows. */
export function TurnCard({
  advised,
  proposed,
  onChoose,
  first,
  foundFirst,
  counted,
  onTurned,
}: TurnCardProps) {
  const { adjusters, adjuster } = advised;
  const { turns, setTurns, adjuster: inHand } = proposed;
  if (!adjuster) return null;
  return (
    <Card title="Turn" tone="oxide">
      {adjusters.length > 1 && (
        <AdjusterChoice adjusters={adjusters} chosenId={adjuster.id} onChoose={onChoose} />
      )}
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
        <Slot turns={arcOf(advised)} />
        <Box sx={{ fontSize: 23, fontWeight: 720, lineHeight: 1.15 }} aria-live="polite">
          {advised.headline}
        </Box>
      </Box>
      {first ?? (
        <Typography sx={{ color: "text.secondary", mt: 1, lineHeight: 1.35 }}>
          {foundFirst ? "First log as found, before anything is turned. " : ""}
          {advised.reason}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1, mt: 1.25 }}>
        <TextField
          select
          size="small"
          label="Turned by"
          value={String(closest(turns))}
          onChange={(e) => setTurns(Math.sign(turns || 1) * Number(e.target.value))}
          disabled={counted}
          sx={{ flex: 1 }}
        >
          {turns === 0 && <MenuItem value="0">not yet turned</MenuItem>}
          {amountsWith(turns).map((amount) => (
            <MenuItem key={amount} value={String(amount)}>
              {Math.round(360 * amount)}°, {turnInWords(amount)}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="outlined"
          color="inherit"
          disabled={counted}
          onClick={() => setTurns(-turns)}
          sx={{ minWidth: 100, px: 1 }}
        >
          {directionInWords(turns)}
        </Button>
      </Box>
      <Button variant="contained" fullWidth sx={{ mt: 1 }} onClick={() => onTurned()}>
        {inHand === undefined || inHand.id === adjuster.id ? "I turned it" : `I turned ${inHand.name}`}
        <KeyCap>T</KeyCap>
      </Button>
      {!counted && (
        <Button color="inherit" fullWidth sx={{ mt: 0.5 }} onClick={() => onTurned(true)}>
          I turned it, and it is at its stop
        </Button>
      )}
    </Card>
  );
}

interface AdjusterChoiceProps {
  adjusters: readonly Adjuster[];
  chosenId: string;
  onChoose(adjusterId: string): void;
}

/** Drawn anew when there are others, not with each result. */
const AdjusterChoice = memo(
  function AdjusterChoice({ adjusters, chosenId, onChoose }: AdjusterChoiceProps) {
    return (
      <TextField
        select
        size="small"
        fullWidth
        label="Adjuster"
        value={chosenId}
        onChange={({ target }) => onChoose(target.value)}
        sx={{ mb: 1 }}
      >
        {adjusters.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    );
  },
  (before, now) =>
    before.chosenId === now.chosenId &&
    before.onChoose === now.onChoose &&
    before.adjusters.length === now.adjusters.length &&
    before.adjusters.every((one, i) => one === now.adjusters[i]),
);

const closest = (turns: number) => {
  const amount = Math.abs(turns);
  return AMOUNTS.find((a) => Math.abs(a - amount) < 1e-6) ?? amount;
};
const amountsWith = (turns: number) =>
  [...new Set([...AMOUNTS, closest(turns)])].filter((a) => a > 0).sort((a, b) => a - b);

/** A screw slot with an arc for the way it has to go. */
function Slot({ turns }: { turns: number }) {
  const angle = Math.max(-0.94, Math.min(0.94, turns)) * 2 * Math.PI;
  const at = (radius: number, a: number) => `${42 + radius * Math.sin(a)} ${42 - radius * Math.cos(a)}`;
  const sign = Math.sign(angle);
  const arc = Math.abs(angle) < 0.22 ? 0.22 * sign : angle;
  return (
    <svg width={84} height={84} viewBox="0 0 84 84" aria-hidden style={{ flex: "none" }}>
      <circle cx={42} cy={42} r={28} fill="none" stroke={SOFT} strokeWidth={2} />
      <rect x={39} y={17} width={6} height={50} rx={2} fill={INK} opacity={0.55} />
      {turns !== 0 && (
        <>
          <path
            d={`M${at(36, 0)} A36 36 0 ${Math.abs(arc) > Math.PI ? 1 : 0} ${sign > 0 ? 1 : 0} ${at(36, arc)}`}
            fill="none"
            stroke={token("oxide")}
            strokeWidth={6}
          />
          <path d={`M${at(36, arc + 0.24 * sign)} L${at(29, arc)} L${at(43, arc)} z`} fill={token("oxide")} />
        </>
      )}
    </svg>
  );
}
