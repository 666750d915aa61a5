"use client";
import { openLines } from "@/core/workshop/strip-down";
import type { ChecklistProps } from "../bench/checklist";
import { BeltsCard } from "./belts-card";
import { DeskColumns } from "./desk-columns";
import { EarlierLogCard } from "./earlier-log-card";
import { PartsCard } from "./parts-card";
import { StripDown } from "./strip-down";
import { TicksCard } from "./ticks-card";

/** Mechanical service: the strip-down log, what has to be ticked, and the parts that are waited for. */
export function ServiceDesk(props: ChecklistProps) {
  const { view, station } = props;
  const open = openLines(view.stripDown ?? []).length;
  return (
    <DeskColumns middle={<StripDown view={view} station={station.id} />} asideName="Service and parts">
      <PartsCard view={view} station={station.id} />
      <TicksCard
        {...props}
        lacks={open > 0 ? `Not done while ${open === 1 ? "a line is" : `${open} lines are`} open.` : null}
      />
      <BeltsCard view={view} />
      <EarlierLogCard jobId={view.job.id} machineId={view.machine.id} />
    </DeskColumns>
  );
}
