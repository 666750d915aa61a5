import { passportRows } from "@/core/alignment/passport-rows";
import { typeWords } from "@/core/records/blank-tape";
import { knobWords } from "@/core/text/knob-words";
import type { JobView } from "../job/use-job-records";
import { PaperKnob } from "./paper-knob";

/** The tapes of a job of which there is something to say to the owner. */
export function tapesForOwner({ job, blanks = [], readings }: Pick<JobView, "job" | "blanks" | "readings">) {
  return (job.blankTapes ?? [])
    .map((named) => ({
      named,
      blank: blanks.find(({ id }) => id === named.id),
      rows: passportRows(readings.filter(({ context }) => context.recordingOn === named.id)),
    }))
    .filter(({ named, rows }) => named.front !== undefined || rows.length > 0);
}

/** What the owner keeps beside the machine: for each tape how its front stands, and what the tape takes. */
export function OwnerCard({ view }: { view: JobView }) {
  const { machine } = view;
  return (
    <section className="owner">
      <h2>Owner&apos;s card: {machine.name}</h2>
      <div className="tapes">
        {tapesForOwner(view).map(({ named: { id, name, front }, blank, rows }) => (
          <div key={id} className="tape">
            <h3>
              {name}
              {blank && <span className="soft"> {typeWords(blank)}</span>}
            </h3>
            {front ? (
              <div className="knobs">
                {machine.adjusters
                  .filter((one) => front.knobs[one.id] !== undefined)
                  .map((knob) => (
                    <div key={knob.id}>
                      <PaperKnob turns={front.knobs[knob.id]} />
                      <div>
                        <b>{knob.name}</b> {knobWords(front.knobs[knob.id])}
                      </div>
                    </div>
                  ))}
              </div>
            ) : (
              <p className="soft">How the front stands for it was not kept.</p>
            )}
            {front?.words && <p>{front.words}</p>}
            {rows.length > 0 && (
              <table>
                <tbody>
                  {rows.map(({ says, figures, means }) => (
                    <tr key={says}>
                      <td>
                        {says}
                        {means && <div className="soft">{means}</div>}
                      </td>
                      <td className="figure">{figures}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </div>
        ))}
      </div>
    </section>
  );
}
