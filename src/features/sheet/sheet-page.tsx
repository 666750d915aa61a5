"use client";
export function SheetPage({ jobId }: { jobId: string }) {
  return <div>{jobId}</div>;
}
