import { stationById } from "@/core/alignment/registry";
import { expectedOn, PART_WORDS, partName, stateOf } from "@/core/workshop/part";
import { nameOf, openLines } from "@/core/workshop/strip-down";
import { readStripLine } from "@/core/workshop/strip-line";
import { decide, type TapeCheck } from "@/core/workshop/tape-condition";
import { shortDay } from "@/ui/short-day";
import type { JobView } from "../job/use-job-records";

/** What was taken apart and put together again, the parts that it took, and what whoever opens it next should know. */
export function WorkshopSection({ view: { job, stripDown = [], neededParts = [] } }: { view: JobView }) {
  const tapes = job.tapeChecks ?? [];
  const open = openLines(stripDown).length;
  const assemblies = stripDown.filter(({ kind }) => kind === "assembly").map(nameOf);
  const troubles = stripDown.filter(({ trouble }) => trouble !== null);
  const minds = stripDown.flatMap((entry) => {
    const { nextTime } = readStripLine(entry.kind, entry.line);
    return nextTime ? [`${nameOf(entry)}: ${nextTime}`] : [];
  });
  return (
    <>
      {stripDown.length > 0 && (
        <section>
          <h2>Taken apart</h2>
          <p>
            {assemblies.length > 0 && `${assemblies.join(", ")}: `}
            {stripDown.length} lines in the strip-down log,{" "}
            {open === 0 ? "all of them back in their places." : `${open} not yet back in their places.`}
          </p>
          {troubles.length > 0 && (
            <p>Found wrong: {troubles.map((one) => `${nameOf(one)} (${one.trouble!.what})`).join("; ")}.</p>
          )}
          {minds.length > 0 && <p className="soft">For the next time: {minds.join("; ")}.</p>}
        </section>
      )}
      {neededParts.length > 0 && (
        <section>
          <h2>Parts</h2>
          <ul>
            {neededParts.map((part) => {
              const due = expectedOn(part);
              return (
                <li key={part.id}>
                  {partName(part)}, for {stationById(part.station)?.name.toLowerCase() ?? part.station}:{" "}
                  {PART_WORDS[stateOf(part)]}
                  {due && `, expected ${shortDay(due)}`}
                </li>
              );
            })}
          </ul>
        </section>
      )}
      {tapes.length > 0 && (
        <section>
          <h2>Tapes that were looked at</h2>
          <ul>
            {tapes.map((check) => (
              <li key={check.id}>{tapeText(check)}</li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function tapeText(check: TapeCheck): string {
  const { name, signs, baked, playedAt, at } = check;
  const { play } = decide(check, playedAt ?? at);
  const pieces = [
    signs.length > 0 ? signs.join(", ") : "nothing against it",
    baked &&
      `baked at ${baked.celsius} °C for ${baked.hours} h on ${shortDay(baked.at)}, with the owner's consent`,
    playedAt ? `played on ${shortDay(playedAt)}` : `not played: ${play}`,
  ];
  return `${name}: ${pieces.filter(Boolean).join("; ")}`;
}
