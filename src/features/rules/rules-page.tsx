"use client";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
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
        <Column title="Speed without a reference tape">
          <TimedTapeRule />
          <MatchRule />
          <HumRule />
          <TuningRule />
        </Column>
        <Column title="Belt">
          <BeltRule />
        </Column>
        <Column title="Playback">
          <FluxivityRule />
          <EqualisationRule />
          <DecibelRule />
          <PartsRule />
        </Column>
        <Column title="Head">
          <AzimuthRule />
          <LossRule />
          <HeadLoadRule />
        </Column>
      </Box>
    </PageFrame>
  );
}

function Column({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
      <Typography component="h2" variant="h2">
        {title}
      </Typography>
      {children}
    </Box>
  );
}
