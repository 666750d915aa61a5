import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { OnePass } from "@/core/alignment/one-pass";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";

interface PassOfferProps {
  onBegin(phase: OnePass["phase"]): void;
  /** Something was turned already: what is measured now is as left. */
  asLeft: boolean;
}

/** To let one pass of the whole tape serve every station that it can. */
export function PassOffer({ onBegin, asLeft }: PassOfferProps) {
  return (
    <Card title="One pass">
      <Box sx={{ lineHeight: 1.4 }}>
        Play the whole tape once; each transport and playback station takes its figures as its bands go by.
      </Box>
      <Box sx={{ display: "flex", gap: 0.75, mt: 1, flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={() => onBegin("as found")}>
          As found {!asLeft && <KeyCap>O</KeyCap>}
        </Button>
        <Button variant="outlined" onClick={() => onBegin("as left")}>
          As left {asLeft && <KeyCap>O</KeyCap>}
        </Button>
      </Box>
    </Card>
  );
}
