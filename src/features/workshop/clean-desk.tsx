"use client";
import { Card } from "@/ui/card";
import { Checklist, type ChecklistProps } from "../bench/checklist";
import { CleaningTiles } from "./cleaning-tiles";
import { Demagnetising } from "./demagnetising";
import { DeskColumns } from "./desk-columns";
import { TapeChecks } from "./tape-checks";

/** Cleaning, part by part, and what is looked at of a tape before it goes in: one that sheds undoes the cleaning. */
export const CleanDesk = (props: ChecklistProps) => (
  <DeskColumns
    middle={
      <Checklist {...props}>
        <Demagnetising view={props.view} listener={props.listener} />
      </Checklist>
    }
    asideName="Parts, and tapes before they go in"
    equal
  >
    <Card title="What was found and done">
      <CleaningTiles view={props.view} />
    </Card>
    <TapeChecks view={props.view} />
  </DeskColumns>
);
