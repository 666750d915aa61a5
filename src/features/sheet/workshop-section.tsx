import { stationById } from "@/core/alignment/registry";
import { functionsOf } from "@/core/stations/functions";
import { fixed } from "@/core/text/number-text";
import { FUNCTIONS, lastTrial, type FunctionTrial, type TrialPhase } from "@/core/workshop/function-trial";
import { cleaningText, lastEntry } from "@/core/workshop/cleaning";
import { expectedOn, PART_WORDS, partName, stateOf } from "@/core/workshop/part";
import { minds, nameOf, openLines } from "@/core/workshop/strip-down";
import { decide, type TapeCheck } from "@/core/workshop/tape-condition";
import { shortDay } from "@/ui/short-day";
import type { JobView } from "../job/use-job-records";

/** What was taken apart and put together again, the parts that it took, and what whoever opens it next should know. */
export function WorkshopSection({ view }: { view: JobView }) {
  const { job, stripDown = [], neededParts = [] } = view;
  const tapes = job.tapeChecks ?? [];
  const cleaning = job.cleaning ?? [];
  const cleaned = [...new Set(cleaning.map(({ what }) => what))].flatMap(
    (what) => lastEntry(cleaning, what) ?? [],
  );
  const open = openLines(stripDown).length;
  const assemblies = stripDown.filter(({ kind }) => kind === "assembly").map(nameOf);
  const troubles = stripDown.filter(({ trouble }) => trouble !== null);
  const toMind = minds(stripDown);
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
          {toMind.length > 0 && <p className="soft">For the next time: {toMind.join("; ")}.</p>}
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
      {cleaned.length > 0 && (
        <section>
          <h2>Cleaned</h2>
          <p>{cleaned.map((entry) => `${entry.what}: ${cleaningText(entry)}`).join(". ")}.</p>
        </section>
      )}
      {(job.belts ?? []).length > 0 && (
        <section>
          <h2>Belts</h2>
          <ul>
            {(job.belts ?? []).map(({ id, name, newInsideMm, newThicknessMm, predictedPercent }) => (
              <li key={id}>
                {name}: {fixed(newInsideMm, 1)} × {newThicknessMm} mm; its thickness changes the speed by{" "}
                {fixed(predictedPercent, 2, true)} %
              </li>
            ))}
          </ul>
        </section>
      )}
      <FunctionsTried view={view} />
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

/** The functions of the machine, as found and as left; those that work both times are named in one line. */
function FunctionsTried({ view: { job, machine } }: { view: JobView }) {
  const trials = job.functionTrials ?? [];
  const rows = functionsOf(machine).map((one) => ({
    one,
    found: lastTrial(trials, one, "as found"),
    left: lastTrial(trials, one, "as left"),
  }));
  const tried = rows.filter(({ found, left }) => found || left);
  if (tried.length === 0) return null;
  const told = tried.filter(
    ({ found, left }) => !left?.works || found?.works === false || left.note || left.seconds !== null,
  );
  const sound = tried.filter((row) => !told.includes(row));
  return (
    <section>
      <h2>Functions</h2>
      {told.length > 0 && (
        <ul>
          {told.map(({ one, found, left }) => (
            <li key={one}>
              {FUNCTIONS[one].name}:{" "}
              {[trialText("as found", found), trialText("as left", left)].filter(Boolean).join("; ")}
            </li>
          ))}
        </ul>
      )}
      {sound.length > 0 && (
        <p>Work as left: {sound.map(({ one }) => FUNCTIONS[one].name.toLowerCase()).join(", ")}.</p>
      )}
    </section>
  );
}

function trialText(phase: TrialPhase, trial: FunctionTrial | null): string {
  if (trial === null) return `not tried ${phase}`;
  const { works, seconds, note } = trial;
  return [`${phase} ${works ? "works" : "faulty"}`, seconds !== null && `${fixed(seconds, 1)} s`, note]
    .filter(Boolean)
    .join(", ");
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
