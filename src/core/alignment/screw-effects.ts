import { fitSlack } from "@/core/guidance/slack-model";
import { guidanceScale, taught } from "@/core/guidance/taught";
import type { JobRecords } from "@/core/records/job-records";
import type { Adjuster } from "@/core/records/machine";
import type { Unit } from "@/core/text/units";
import { quantityOf } from "./registry";

/** What a screw of a machine was seen to do, over all its jobs. */
export interface ScrewEffect {
  adjusterId: string;
  quantity: string;
  unit: Unit;
  /** Change for one turn clockwise: least and most of the jobs that tell it. */
  from: number;
  to: number;
  jobs: number;
  turns: number;
}

/** What is turned by a number of its own, by the station that it is turned at. */
const TURNED_BY: Record<string, string> = {
  speed: "speedError",
  azimuth: "azimuth.phase",
  level: "level.error",
  response: "response.treble",
};

/** What each screw of a machine does, as far as the jobs about it tell; one of which none tells is left out. */
export function screwEffects(jobs: readonly JobRecords[]): ScrewEffect[] {
  const adjusters = jobs.at(0)?.machine.adjusters.filter(({ kind }) => kind === "turn") ?? [];
  return adjusters.flatMap((adjuster) => {
    const quantity = TURNED_BY[adjuster.sets];
    return quantity ? (effectOf(jobs, adjuster, quantity) ?? []) : [];
  });
}

function effectOf(jobs: readonly JobRecords[], adjuster: Adjuster, quantity: string): ScrewEffect | null {
  const { unit } = quantityOf(quantity);
  const seen = jobs.flatMap((records) => {
    const turns = taught(records, adjuster, { quantity, unit, ofBothChannels: false });
    const [best] = fitSlack(turns);
    return best ? [{ perTurn: best.perTurn * guidanceScale(unit), turns: turns.length }] : [];
  });
  if (seen.length === 0) return null;
  const all = seen.map(({ perTurn }) => perTurn);
  return {
    adjusterId: adjuster.id,
    quantity,
    unit,
    from: Math.min(...all),
    to: Math.max(...all),
    jobs: seen.length,
    turns: seen.reduce((sum, { turns }) => sum + turns, 0),
  };
}
