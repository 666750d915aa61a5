import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { SWITCHES, type FrontSwitch, type Machine } from "@/core/records/machine";

interface SwitchedOnProps {
  machine: Machine;
  chosen: readonly FrontSwitch[];
  /** The practice machine knows by itself. */
  known: boolean;
  onChoose(switchedOn: FrontSwitch[]): void;
}

/** What is switched on on the front of the machine, by the words that stand there. */
export function SwitchedOn({ machine: { switches = {} }, chosen, known, onChoose }: SwitchedOnProps) {
  const has = SWITCHES.filter((one) => switches[one] !== undefined);
  if (has.length === 0) return null;
  return (
    <Box role="group" aria-label="Switched on" sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600 }}>Switched on{known && ", as the practice machine is"}</Box>
      <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5, mt: 0.5 }}>
        {has.map((one) => {
          const on = chosen.includes(one);
          return (
            <Button
              key={one}
              variant={on ? "contained" : "outlined"}
              color={on ? "primary" : "inherit"}
              aria-pressed={on}
              disabled={known}
              onClick={() =>
                onChoose(on ? chosen.filter((other) => other !== one) : [...chosen, one].toSorted())
              }
              sx={{ justifyContent: "space-between" }}
            >
              {switches[one]}
              <Box component="span" sx={{ fontWeight: 400 }}>
                {on ? "on" : "off"}
              </Box>
            </Button>
          );
        })}
      </Box>
    </Box>
  );
}
