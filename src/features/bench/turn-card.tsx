"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import Link from "next/link";
import type { MachinePart } from "@/core/workshop/machine-part";
import { withoutTrimmer } from "@/core/workshop/without-trimmer";
import type { CoupledAdvice } from "@/core/alignment/coupled-adjusters";
import { speedsOf, workAt } from "@/core/alignment/job-speeds";
import { directionInWords, turnInWords, type TurnAdvice } from "@/core/alignment/turn-guidance";
import { fixed } from "@/core/formats/number-text";
import { changeJob } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import { INK, SOFT, token } from "@/ui/theme";
import type { JobView } from "../job/use-job-records";
import type { ToTurn } from "./use-turn-advice";

/** Amounts a hand can judge. */
const AMOUNTS = [1 / 64, 1 / 32, 1 / 16, 1 / 12, 1 / 8, 1 / 6, 1 / 4, 1 / 3, 3 / 8, 1 / 2, 3 / 4, 1, 1.5, 2];

interface TurnCardProps {
  toTurn: ToTurn;
  view: JobView;
  /** Present speed error, for a machine that has nothing to turn. */
  errorPercent: number | null;
  /** Nothing was logged yet, so as found comes before any turn. */
  foundFirst: boolean;
  /** The practice machine knows how far its slot was turned. */
  counted: boolean;
  onTurned(atStop: boolean): void;
}

/** Which adjuster, which way, and how much is left, with how it knows. */
export function TurnCard({ toTurn, view, errorPercent, foundFirst, counted, onTurned }: TurnCardProps) {
  const { adjusters, adjuster, choose, advice, coupled, turns, setTurns } = toTurn;
  if (!adjuster) return <WithoutTrimmer errorPercent={errorPercent} parts={view.machine.parts} />;
  const elsewhere = advice.kind === "wait" ? null : (coupled?.read ?? null);
  const shown = !elsewhere && (advice.kind === "turn" || advice.kind === "trial") ? advice.turns : 0;
  return (
    <Card title="Turn" tone="oxide">
      {adjusters.length > 1 && (
        <TextField
          select
          size="small"
          fullWidth
          label="Adjuster"
          value={adjuster.id}
          onChange={({ target }) => choose(target.value)}
          sx={{ mb: 1 }}
        >
          {adjusters.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
        <Slot turns={shown} />
        <Box sx={{ fontSize: 23, fontWeight: 720, lineHeight: 1.15 }} aria-live="polite">
          {elsewhere ? `read ${elsewhere.speedCmPerS} cm/s` : headline(advice)}
        </Box>
      </Box>
      {elsewhere ? (
        <ReadElsewhere view={view} read={elsewhere} />
      ) : (
        <Typography sx={{ color: "text.secondary", mt: 1, lineHeight: 1.35 }}>
          {foundFirst ? "First log as found, before anything is turned. " : ""}
          {reason(advice)}
          {coupled && advice.kind !== "wait" && ` ${beyond(coupled)}`}
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
      <Button variant="contained" fullWidth sx={{ mt: 1 }} onClick={() => onTurned(false)}>
        I turned it<KeyCap>T</KeyCap>
      </Button>
      {!counted && (
        <Button color="inherit" fullWidth sx={{ mt: 0.5 }} onClick={() => onTurned(true)}>
          I turned it, and it is at its stop
        </Button>
      )}
    </Card>
  );
}

type Read = NonNullable<CoupledAdvice["read"]>;

const WHY_ELSEWHERE: Record<Read["why"], string> = {
  "as found": "Log it there too: what is turned here may move it.",
  effect: "What the last turn did there is not known yet.",
  "turn there": "What is left to set is set there.",
  confirm: "Here all is well; there something was turned after the last reading.",
};

function ReadElsewhere({ view, read }: { view: JobView; read: Read }) {
  const speed = speedsOf(view.job).find(({ speedCmPerS }) => speedCmPerS === read.speedCmPerS);
  return (
    <>
      <Typography sx={{ color: "text.secondary", mt: 1, lineHeight: 1.35 }}>
        {WHY_ELSEWHERE[read.why]}
      </Typography>
      <Button
        fullWidth
        variant="outlined"
        sx={{ mt: 1 }}
        onClick={() => speed && void changeJob(view.job.id, workAt(view.job, speed))}
      >
        Go to {read.speedCmPerS} cm/s
      </Button>
    </>
  );
}

/** What a turn means for the other speeds. */
function beyond({ aimPercent, elsewhere, compromise }: CoupledAdvice): string {
  const moved = elsewhere.filter(({ from, to }) => Math.abs(to - from) >= 0.03);
  return [
    Math.abs(aimPercent) >= 0.03 && `Aim at ${fixed(aimPercent, 2, true)} % here.`,
    ...moved.map(
      ({ speedCmPerS, from, to }) =>
        `${speedCmPerS} cm/s goes from ${fixed(from, 2, true)} to ${fixed(to, 2, true)} %.`,
    ),
    compromise && "Not every speed can be right with what there is to turn; this is the best of it.",
  ]
    .filter(Boolean)
    .join(" ");
}

/** A slotted mount, the belt, the pulley: with what each would have to change by, where that is known. */
function WithoutTrimmer({ errorPercent, parts }: { errorPercent: number | null; parts: MachinePart[] }) {
  const pulley = errorPercent === null ? null : withoutTrimmer(errorPercent, parts);
  return (
    <Card title="Turn" tone="oxide">
      <Typography>
        This machine has no speed trimmer written down. First a slotted motor mount, belt tension and drag.
      </Typography>
      {pulley && errorPercent !== null && (
        <Typography sx={{ mt: 1 }}>
          For {fixed(errorPercent, 2, true)} % the motor pulley of {fixed(pulley.motorPulleyMm, 2)} mm would
          have to be {fixed(pulley.neededPulleyMm, 2)} mm, or the belt{" "}
          {fixed(Math.abs(pulley.thickerBeltMm), 2)} mm {pulley.thickerBeltMm > 0 ? "thicker" : "thinner"}.
        </Typography>
      )}
      <Typography sx={{ mt: 1 }}>
        <Link href="/rules">Belt bench</Link>
      </Typography>
    </Card>
  );
}

const closest = (turns: number) => {
  const amount = Math.abs(turns);
  return AMOUNTS.find((a) => Math.abs(a - amount) < 1e-6) ?? amount;
};
const amountsWith = (turns: number) =>
  [...new Set([...AMOUNTS, closest(turns)])].filter((a) => a > 0).sort((a, b) => a - b);

function headline(advice: TurnAdvice): string {
  switch (advice.kind) {
    case "trial":
      return `try ${turnInWords(advice.turns)}, ${directionInWords(advice.turns)}`;
    case "turn":
      return `${directionInWords(advice.turns)}, ${turnInWords(advice.turns)}`;
    case "wait":
      return "let it settle";
    case "no answer":
      return "it hardly answers";
    case "stop":
      return "it is at its stop";
    case "leave":
      return "leave it there";
  }
}

function reason(advice: TurnAdvice): string {
  switch (advice.kind) {
    case "trial":
      return "A small trial turn shows what this screw does. Turn, then say so.";
    case "wait":
      return "The number firms up in a few seconds.";
    case "no answer":
      return `The last turn changed the speed by ${fixed(advice.lastTurn.change, 2, true)} %. Is it the right screw?`;
    case "stop":
      return "There is no more travel this way. Look for the mechanical reason: belt, drag, pulley, supply voltage.";
    case "leave":
      return "Within reach of what can be known. Log it as left.";
    case "turn": {
      const { lastTurn, slackKnown, slackTurns, perTurn, fromBefore } = advice.effect;
      if (fromBefore)
        return `${Math.round(360 * Math.abs(advice.turns))}°, as an earlier job on this machine has taught: ${fixed(perTurn, 1, true)} % a turn.`;
      const learned = `${Math.round(360 * Math.abs(advice.turns))}°. Last: ${turnInWords(lastTurn.turns)} ${directionInWords(lastTurn.turns)} gave ${fixed(lastTurn.change, 2, true)} %`;
      const slack = slackKnown
        ? slackTurns > 0.01
          ? `; slack ${Math.round(360 * slackTurns)}° counted in.`
          : `; ${fixed(perTurn, 1, true)} % a turn.`
        : ". Stops short at first: the screw may have slack.";
      return learned + slack;
    }
  }
}

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
