"use client";
import { PageFrame } from "../shell/page-frame";
import { EvidenceCard } from "./evidence-card";
import { SoundCardPanel } from "./sound-card-panel";

/** The sound card, what is known of it, and the sound that is kept. */
export function SettingsPage() {
  return (
    <PageFrame title="Sound card">
      <SoundCardPanel />
      <EvidenceCard />
    </PageFrame>
  );
}
