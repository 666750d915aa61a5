import Box from "@mui/material/Box";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { FUNCTIONS, lastTrial, type FunctionId, type FunctionTrial } from "@/core/workshop/function-trial";
import { VerdictMark } from "@/ui/verdict-mark";

interface FunctionsListProps {
  all: readonly FunctionId[];
  current: FunctionId | null;
  trials: readonly FunctionTrial[];
  onChoose(one: FunctionId): void;
}

/** Each function with how it was found and how it is left. */
export const FunctionsList = ({ all, current, trials, onChoose }: FunctionsListProps) => (
  <Box component="ol" aria-label="Functions, as found and as left" sx={{ listStyle: "none", p: 0, m: 0 }}>
    {all.map((one, i) => (
      <Box component="li" key={one} sx={{ borderTop: i > 0 ? 1 : 0, borderColor: "divider" }}>
        <Box
          component="button"
          type="button"
          aria-current={one === current ? "step" : undefined}
          onClick={() => onChoose(one)}
          sx={{
            display: "grid",
            gridTemplateColumns: "26px minmax(0, 1fr)",
            columnGap: 0.5,
            width: "100%",
            minHeight: 44,
            py: 0.5,
            px: 0.5,
            font: "inherit",
            color: "inherit",
            textAlign: "left",
            cursor: "pointer",
            border: 0,
            bgcolor: one === current ? "action.selected" : "transparent",
          }}
        >
          <Box sx={{ color: "text.secondary" }}>{i + 1}</Box>
          <Box sx={{ minWidth: 0, lineHeight: 1.3 }}>
            <Box sx={{ fontWeight: 650 }}>{FUNCTIONS[one].name}</Box>
            <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1, fontSize: 14 }}>
              <Trial trial={lastTrial(trials, one, "as found")} word="found" />
              <Trial trial={lastTrial(trials, one, "as left")} word="left" />
            </Box>
          </Box>
        </Box>
      </Box>
    ))}
  </Box>
);

function Trial({ trial, word }: { trial: FunctionTrial | null; word: string }) {
  if (trial === null) return null;
  const { works, seconds, note } = trial;
  return (
    <Box component="span">
      <VerdictMark verdict={works ? "pass" : "fail"} detail={`${word}: ${works ? "works" : "faulty"}`} />
      {seconds !== null && ` ${fixed(seconds, 1)}${THIN_SPACE}s`}
      {note && `, ${note}`}
    </Box>
  );
}
