import Box from "@mui/material/Box";
import { limitFor, quantityOf } from "@/core/alignment/registry";
import { verdictOf, type Verdict } from "@/core/judging/verdict";
import { inForce } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import { limitSign, type Quantity } from "@/core/stations/quantity";
import { decimalsFor, fixed } from "@/core/text/number-text";
import { unitAfter } from "@/core/text/units";
import { Announcer } from "@/ui/announcer";
import { Readout } from "@/ui/readout";
import { Rule } from "@/ui/rule";
import { VerdictMark } from "@/ui/verdict-mark";
import type { JobView } from "../job/use-job-records";

interface FigureProps {
  view: JobView;
  quantity: string;
  /** Named after the quantity where there are several of it: "left", "right". */
  channel?: string;
  side?: "A" | "B";
  value: number | null;
  uncertainty: number;
  settled: boolean;
  /** Words under the ends of the ruler. */
  ends: [string, string];
  absent: string;
  /** What else is to be known of the number. */
  shownAs?: string;
  /** What it waits for, while it is not settled. */
  settling?: string;
  /** What stands in the place of the verdict while there can be none. */
  noVerdict?: string;
  target?: number;
  /** One of several side by side, or above a picture that needs the room. */
  size?: "large" | "medium" | "narrow";
}

/** A live number of a station with its ruler and verdict. */
export function Figure(props: FigureProps) {
  const { view, quantity, channel, value, uncertainty, settled, shownAs, target = 0 } = props;
  const { settling = "settling", size = "medium" } = props;
  const limit = limitFor(view.machine, quantity);
  const row = quantityOf(quantity);
  const { unit, signed, decimals, scale, atLeast = false, name: quantityName } = row;
  const { noVerdict } = props;
  const verdict =
    value !== null && limit !== null && !noVerdict ? verdictOf(value, uncertainty, limit, atLeast) : null;
  const name = channel ? `${quantityName} ${channel}` : quantityName;
  const logged = inForce(view.readings).filter(isOf(props));
  const range = limit === null ? "" : `${limitSign(row)}${limit}${unitAfter(unit)}`;
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          justifyContent: "space-between",
          alignItems: "baseline",
          columnGap: 1,
        }}
      >
        <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
          {[name, shownAs, value !== null && !settled && settling].filter(Boolean).join(", ")}
        </Box>
        <Box sx={{ fontSize: size === "narrow" ? 16 : 18, whiteSpace: "nowrap" }}>
          {verdict && value !== null && limit !== null ? (
            <VerdictMark
              verdict={verdict}
              detail={
                size === "narrow" && (verdict === "pass" || verdict === "cannot be told")
                  ? `${verdict}, ${range}`
                  : detail(verdict, missedBy(value, limit, row, range), range)
              }
            />
          ) : (
            <Box component="span" sx={{ color: "text.secondary" }}>
              {noVerdict ? `${noVerdict}, ` : ""}
              {limit === null ? "no limit" : `limit ${range}`}
            </Box>
          )}
        </Box>
      </Box>
      <Readout
        small={size === "medium"}
        name={name}
        value={value}
        uncertainty={uncertainty}
        unit={unit}
        decimals={Math.min(decimals, decimalsFor(uncertainty, decimals))}
        signed={signed}
        verdict={`${verdict ?? noVerdict ?? "no limit"}${settled ? "" : ", settling"}`}
        absent={props.absent}
      />
      <Rule
        narrow={size === "narrow"}
        unit={unit}
        scale={scale}
        target={target}
        value={value}
        uncertainty={uncertainty}
        window={
          limit === null
            ? null
            : atLeast
              ? { from: limit, to: scale?.[1] ?? limit }
              : { from: signed ? -limit : 0, to: limit }
        }
        asFound={logged.find(({ phase }) => phase === "as found")?.value ?? null}
        lastLogged={logged.at(-1)?.value ?? null}
        ends={props.ends}
        oneSided={!signed}
      />
      <Announcer words={settled && verdict ? `${name}: ${verdict}` : ""} />
    </Box>
  );
}

/** By how much a limit is missed. */
const missedBy = (value: number, limit: number, { atLeast, decimals }: Quantity, range: string): string =>
  atLeast
    ? `${fixed(limit - value, decimals)} short`
    : `${fixed(Math.abs(value) - limit, decimals)} outside ${range}`;

function detail(verdict: Verdict, missed: string, range: string): string {
  switch (verdict) {
    case "fail":
      return `fail, ${missed}`;
    case "close":
      return `close to ${range}`;
    case "pass":
      return `pass, within ${range}`;
    case "cannot be told":
      return `cannot be told: ± wider than ${range}`;
  }
}

const isOf =
  ({ quantity, channel, side }: FigureProps) =>
  ({ quantity: of, context }: Reading): boolean =>
    of === quantity &&
    (channel === undefined || context.channel === channel) &&
    (side === undefined || context.side === undefined || context.side === side);
