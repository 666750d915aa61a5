import Box from "@mui/material/Box";
import Button from "@mui/material/Button";

interface ChoiceListProps {
  label: string;
  choices: Array<{ id: string; name: string; detail?: string }>;
  chosenId: string | undefined;
  onChoose(id: string): void;
}

/** What there is to look at, one under the other, the present one marked at its edge. */
export function ChoiceList({ label, choices, chosenId, onChoose }: ChoiceListProps) {
  return (
    <Box component="nav" aria-label={label}>
      {choices.map(({ id, name, detail }) => {
        const chosen = id === chosenId;
        return (
          <Button
            key={id}
            fullWidth
            color="inherit"
            aria-current={chosen ? "true" : undefined}
            onClick={() => onChoose(id)}
            sx={{
              justifyContent: "space-between",
              textAlign: "left",
              borderLeft: 4,
              borderRadius: 0,
              borderColor: chosen ? "primary.main" : "transparent",
              fontWeight: chosen ? 700 : 500,
              overflowWrap: "anywhere",
              lineHeight: 1.25,
            }}
          >
            {name}
            {detail && (
              <Box component="span" sx={{ color: "text.secondary", fontWeight: 400, pl: 1 }}>
                {detail}
              </Box>
            )}
          </Button>
        );
      })}
    </Box>
  );
}
