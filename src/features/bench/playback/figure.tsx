import Box from "@mui/material/Box";
import { limitFor } from "@/core/alignment/limits";
import { decimalsOf, isSigned, QUANTITIES, unitOf, type Quantity } from "@/core/alignment/quantities";
import { inForce, type Reading, type StationId } from "@/core/alignment/records";
import { verdictOf } from "@/core/alignment/verdict";
import { THIN_SPACE } from "@/core/formats/number-text";
import { Announcer } from "@/ui/announcer";
import { Readout } from "@/ui/readout";
import { Rule } from "@/ui/rule";
import { VerdictMark } from "@/ui/verdict-mark";
import type { JobView } from "@/features/job/use-job-records";

interface FigureProps {
  view: JobView;
  station: StationId;
  quantity: Quantity;
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
  target?: number;
  narrow?: boolean;
}

/** A live number of a playback station with its ruler and verdict. */
export function Figure(props: FigureProps) {
  const { view, quantity, channel, value, uncertainty, settled, shownAs, target = 0, narrow = false } = props;
  const limit = limitFor(view.machine, quantity);
  const unit = unitOf(quantity);
  const signed = isSigned(quantity);
  const verdict = value !== null && limit !== null ? verdictOf(value, uncertainty, limit) : null;
  const name = channel ? `${QUANTITIES[quantity]} ${channel}` : QUANTITIES[quantity];
  const logged = inForce(view.readings).filter(isOf(props));
  const range = limit === null ? "" : `${signed ? "±" : ""}${limit}${unit === "°" ? "" : THIN_SPACE}${unit}`;
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 1 }}>
        <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
          {[name, shownAs, value !== null && !settled && "settling"].filter(Boolean).join(", ")}
        </Box>
        <Box sx={{ fontSize: 18, whiteSpace: "nowrap" }}>
          {verdict ? (
            <VerdictMark verdict={verdict} detail={`${verdict}, ${range}`} />
          ) : (
            limit !== null && (
              <Box component="span" sx={{ color: "text.secondary" }}>
                limit {range}
              </Box>
            )
          )}
        </Box>
      </Box>
      <Readout
        small={!narrow}
        name={name}
        value={value}
        uncertainty={uncertainty}
        unit={unit}
        decimals={decimalsOf(quantity)}
        signed={signed}
        verdict={`${verdict ?? "no limit"}${settled ? "" : ", settling"}`}
        absent={props.absent}
      />
      <Rule
        narrow={narrow}
        unit={unit}
        target={target}
        value={value}
        uncertainty={uncertainty}
        window={limit === null ? null : { from: signed ? -limit : 0, to: limit }}
        asFound={logged.find(({ phase }) => phase === "as found")?.value ?? null}
        lastLogged={logged.at(-1)?.value ?? null}
        ends={props.ends}
        oneSided={!signed}
      />
      <Announcer words={settled && verdict ? `${name}: ${verdict}` : ""} />
    </Box>
  );
}

const isOf =
  ({ quantity, channel, side }: FigureProps) =>
  ({ quantity: of, context }: Reading): boolean =>
    of === quantity &&
    (channel === undefined || context.channel === channel) &&
    (side === undefined || context.side === undefined || context.side === side);
