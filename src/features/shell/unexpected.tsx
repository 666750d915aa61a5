"use client";
import Alert from "@mui/material/Alert";
import { useEffect, useState } from "react";
import { firstIssue } from "@/core/formats/import-error";
import { ZodError } from "@/core/text/zod";
import { onNotice } from "@/ui/notify";

/** Not errors of ours: a browser reports it where nothing was lost, and a request that was given up is one on purpose. */
const HARMLESS = /^ResizeObserver loop|AbortError|was discarded before/;

/** What went wrong, in a sentence; null for what is no fault. */
function inWords(reason: unknown): string | null {
  if (reason instanceof ZodError) return `This was not stored: ${firstIssue(reason)}.`;
  const said = reason instanceof Error ? reason.message : String(reason);
  const name = reason instanceof Error ? `${reason.name}: ${said}` : said;
  if (HARMLESS.test(name) || HARMLESS.test(said)) return null;
  if (said.startsWith("This was not stored")) return said;
  return `Something did not work (${name}). What was logged is stored; repeat the last step, and reload the page if it happens again.`;
}

/** What went wrong where nothing else reports it, and what is to be known once: shown calmly, until it is closed. */
export function Unexpected() {
  const [text, setText] = useState<string | null>(null);
  useEffect(() => {
    const show = (reason: unknown) => setText((before) => before ?? inWords(reason));
    const rejected = ({ reason }: PromiseRejectionEvent) => show(reason);
    const thrown = ({ error, message }: ErrorEvent) => show(error ?? message);
    window.addEventListener("unhandledrejection", rejected);
    window.addEventListener("error", thrown);
    const end = onNotice(setText);
    return () => {
      window.removeEventListener("unhandledrejection", rejected);
      window.removeEventListener("error", thrown);
      end();
    };
  }, []);
  if (text === null) return null;
  return (
    <Alert severity="warning" onClose={() => setText(null)} sx={{ displayPrint: "none" }}>
      {text}
    </Alert>
  );
}
