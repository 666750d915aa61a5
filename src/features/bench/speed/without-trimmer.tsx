import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { fixed } from "@/core/text/number-text";
import type { MachinePart } from "@/core/workshop/machine-part";
import { withoutTrimmer } from "@/core/workshop/without-trimmer";

/** A slotted mount, the belt, the pulley: with what each would have to change by, where that is known. */
export function WithoutTrimmer({
  errorPercent,
  parts,
}: {
  errorPercent: number | null;
  parts: MachinePart[];
}) {
  const pulley = errorPercent === null ? null : withoutTrimmer(errorPercent, parts);
  return (
    <>
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
    </>
  );
}
