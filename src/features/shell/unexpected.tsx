"use client";
import Alert from "@mui/material/Alert";
import { useEffect, useState } from "react";

/** Not errors of ours: a browser reports it where nothing was lost, and a request that was given up is one on purpose. */
const HARMLESS = /^ResizeObserver loop|AbortError/;

const nameOf = (reason: unknown): string =>
  reason instanceof Error ? `${reason.name}: ${reason.message}` : String(reason);

/** What went wrong where nothing else reports it: shown once, calmly, until it is closed. */
export function Unexpected() {
  const [what, setWhat] = useState<string | null>(null);
  useEffect(() => {
    const show = (reason: unknown) => {
      const name = nameOf(reason);
      if (!HARMLESS.test(name)) setWhat((before) => before ?? name);
    };
    const rejected = ({ reason }: PromiseRejectionEvent) => show(reason);
    const thrown = ({ error, message }: ErrorEvent) => show(error ?? message);
    window.addEventListener("unhandledrejection", rejected);
    window.addEventListener("error", thrown);
    return () => {
      window.removeEventListener("unhandledrejection", rejected);
      window.removeEventListener("error", thrown);
    };
  }, []);
  if (what === null) return null;
  return (
    <Alert severity="warning" onClose={() => setWhat(null)} sx={{ displayPrint: "none" }}>
      Something did not work ({what}). What was logged is stored; repeat the last step, and reload the page if
      it happens again.
    </Alert>
  );
}
