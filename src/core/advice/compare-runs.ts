export interface PartChange {
  part: string;
  /** Peak deviation in either run, percent; 0 where the part was not heard. */
  beforePercent: number;
  afterPercent: number;
  change: "gone" | "less" | "stayed" | "more" | "new";
}

/** A line within this factor of what it was has stayed. */
const SAME = 1.3;

/** The parts of a run with their peak deviation, as found now or as kept. */
interface Heard {
  parts: Array<{ part: string; peakPercent: number }>;
}

/** What became of each part between two runs of one machine, the largest change first. */
export function compareRuns(before: Heard, after: Heard): PartChange[] {
  const peak = (finding: Heard, name: string) =>
    finding.parts.find(({ part }) => part === name)?.peakPercent ?? 0;
  const names = [...new Set([...before.parts, ...after.parts].map(({ part }) => part))];
  return names
    .map((part): PartChange => {
      const [beforePercent, afterPercent] = [peak(before, part), peak(after, part)];
      const change =
        afterPercent === 0
          ? "gone"
          : beforePercent === 0
            ? "new"
            : afterPercent > SAME * beforePercent
              ? "more"
              : afterPercent < beforePercent / SAME
                ? "less"
                : "stayed";
      return { part, beforePercent, afterPercent, change };
    })
    .sort((a, b) => Math.abs(b.afterPercent - b.beforePercent) - Math.abs(a.afterPercent - a.beforePercent));
}
