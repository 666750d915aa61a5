"use client";
import { Missing } from "@/features/shell/missing";

export default function ErrorPage({ error }: { error: Error }) {
  return (
    <Missing
      what={`This page could not be shown: ${error.message} What was logged is safe in this browser.`}
    />
  );
}
