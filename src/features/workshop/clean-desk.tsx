"use client";
import { Checklist, type ChecklistProps } from "../bench/checklist";
import { CleaningTiles } from "./cleaning-tiles";
import { DeskColumns } from "./desk-columns";
import { TapeChecks } from "./tape-checks";

/** Cleaning, and what is looked at of a tape before it goes in: one that sheds undoes the cleaning. */
export const CleanDesk = (props: ChecklistProps) => (
  <DeskColumns
    middle={
      <Checklist {...props}>
        <CleaningTiles view={props.view} />
      </Checklist>
    }
    asideName="Tapes before they go in"
    equal
  >
    <TapeChecks view={props.view} />
  </DeskColumns>
);
