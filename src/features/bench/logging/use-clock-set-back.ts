import { useEffect, useMemo, useState } from "react";
import { clockSetBack, lastEntryMs } from "@/core/records/clock";
import type { JobRecords } from "@/core/records/job-records";

const LOOKS_EVERY_MS = 2000;

/** What is to be said of the clock of this computer beside what was logged; null while it is as it should be. */
export function useClockSetBack({ readings, adjustments }: JobRecords): string | null {
  const last = useMemo(() => lastEntryMs({ readings, adjustments }), [readings, adjustments]);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    const look = () => setSaid(clockSetBack(last, Date.now()));
    const first = setTimeout(look);
    const timer = setInterval(look, LOOKS_EVERY_MS);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [last]);
  return said;
}
