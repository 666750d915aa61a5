import Box from "@mui/material/Box";
import { fixed, THIN_SPACE } from "@/core/text/number-text";

interface ReadoutProps {
  /** The quantity's full name. */
  name: string;
  value: number | null;
  uncertainty: number;
  unit?: string;
  decimals: number;
  signed: boolean;
  /** Said after the number, such as "fail". */
  verdict: string;
  /** Leaves room for a picture below. */
  small?: boolean;
  /** Shown instead of a number while there is none. */
  absent: string;
}

/** What the numbers of a unit stay within. */
const SPAN: Record<string, number> = { "%": 15, "°": 3600, dB: 90 };

/** The one big number, with its uncertainty, in digits that do not move as they change. */
export function Readout({
  name,
  value,
  uncertainty,
  unit = "%",
  decimals,
  signed,
  verdict,
  small = false,
  absent,
}: ReadoutProps) {
  const number = value === null ? "" : fixed(value, decimals, signed);
  return (
    <Box
      role="meter"
      aria-label={name}
      // a meter has to have a number; before there is one the words say so
      aria-valuenow={value ?? 0}
      aria-valuemin={signed ? -SPAN[unit] || -15 : 0}
      aria-valuemax={SPAN[unit] ?? 15}
      aria-valuetext={
        value === null ? absent : `${number}${unit === "°" ? "" : THIN_SPACE}${unit}, ${verdict}`
      }
      sx={{ textAlign: "center", whiteSpace: "nowrap", containerType: "inline-size", py: small ? 0 : 1 }}
    >
      {/* words take the room of the number, so that nothing below moves under a finger when one comes or goes */}
      <Box
        sx={{
          display: "flex",
          justifyContent: "center",
          alignItems: value === null ? "center" : "baseline",
          gap: "1.6cqw",
          minHeight: small ? "18cqw" : "24cqw",
        }}
      >
        {value === null ? (
          <Box
            sx={{
              fontSize: small ? "clamp(20px, 4.4cqw, 30px)" : "clamp(22px, 6.4cqw, 46px)",
              fontWeight: 600,
              lineHeight: 1.2,
              whiteSpace: "normal",
              color: "text.secondary",
            }}
          >
            {absent}
          </Box>
        ) : (
          <>
            <Box
              component="span"
              sx={{
                fontSize: small ? "17cqw" : "23cqw",
                lineHeight: 1,
                fontWeight: 620,
                letterSpacing: "-0.03em",
              }}
            >
              {number}
            </Box>
            <Box component="span" sx={{ fontSize: "6.2cqw", color: "text.secondary" }}>
              {unit} ±{THIN_SPACE}
              {Math.max(uncertainty, 10 ** -decimals).toFixed(decimals)}
            </Box>
          </>
        )}
      </Box>
    </Box>
  );
}
