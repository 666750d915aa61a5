"use client";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { PageFrame } from "../shell/page-frame";
import { BeltRule } from "./belt-rule";
import { EqualisationRule } from "./equalisation-rule";
import { AzimuthRule, HeadLoadRule, LossRule, PartsRule } from "./head-rules";
import { DecibelRule, FluxivityRule } from "./level-rules";
import { HumRule, MatchRule, TuningRule } from "./recording-rules";
import { TimedTapeRule } from "./timed-tape-rule";

/** Slide rules: speed without a reference tape, belts, the playback side and its head. */
export function RulesPage() {
  return (
    <PageFrame title="Rules">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" },
          gap: 2,
          alignItems: "start",
        }}
      >
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
          <Typography component="h2" variant="h2">
            Speed without a reference tape
          </Typography>
          <TimedTapeRule />
          <MatchRule />
          <HumRule />
          <TuningRule />
        </Box>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
          <Typography component="h2" variant="h2">
            Belt
          </Typography>
          <BeltRule />
        </Box>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
          <Typography component="h2" variant="h2">
            Playback
          </Typography>
          <FluxivityRule />
          <EqualisationRule />
          <DecibelRule />
          <PartsRule />
        </Box>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
          <Typography component="h2" variant="h2">
            Head
          </Typography>
          <AzimuthRule />
          <LossRule />
          <HeadLoadRule />
        </Box>
      </Box>
    </PageFrame>
  );
}
