import Box from "@mui/material/Box";
import { LENGTHS, type DropOutRates } from "@/core/measure/drop-out-rates";
import { fixed } from "@/core/text/number-text";
import { PLAIN_TABLE } from "@/ui/plain-table";
import { READING_FONT } from "@/ui/theme";

/** Drop-outs a minute of each channel and of both at once, and all of them by depth and length; what is said of them below. */
export function DropOutTable({ rates, says }: { rates: DropOutRates; says: string }) {
  return (
    <Box sx={{ lineHeight: 1.4 }}>
      <Box sx={{ fontWeight: 600 }}>
        Drop-outs a minute:{" "}
        {rates.perMinute.map(({ channel, perMinute }) => `${channel} ${fixed(perMinute, 1)}`).join(", ")}
        {rates.perMinute.length > 1 && `, both at once ${fixed(rates.bothPerMinute, 1)}`}
      </Box>
      <Box component="table" aria-label="Drop-outs by depth and length" sx={PLAIN_TABLE}>
        <thead>
          <tr>
            <th scope="col">depth</th>
            {LENGTHS.map(({ says }) => (
              <th key={says} scope="col">
                {says}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rates.table.map(({ depth, counts }) => (
            <tr key={depth}>
              <th scope="row">{depth}</th>
              {counts.map((count, i) => (
                <Box component="td" key={LENGTHS[i].says} sx={{ fontFamily: READING_FONT }}>
                  {count}
                </Box>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ color: "text.secondary", maxWidth: 420 }}>{says}</Box>
    </Box>
  );
}
