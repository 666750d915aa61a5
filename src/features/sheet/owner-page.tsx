import { ownerWords } from "@/core/alignment/owner-words";
import type { Sheet } from "@/core/alignment/sheet";
import type { JobView } from "../job/use-job-records";
import { useDataUrls } from "./use-data-urls";

/** So many of each: a page does not hold more. */
const MOST_PICTURES = 3;
const day = new Intl.DateTimeFormat("en-GB", { dateStyle: "long", timeZone: "UTC" });

/** The page on top, for the owner: what was wrong, what was done, what is left; the full record is behind it. */
export function OwnerPage({ view, sheet }: { view: JobView; sheet: Sheet }) {
  const { job } = view;
  const { wrong, done, left } = ownerWords(view, sheet);
  const came = useDataUrls((job.pictures ?? []).slice(0, MOST_PICTURES));
  const goes = useDataUrls((job.picturesAfter ?? []).slice(0, MOST_PICTURES));
  if (
    came.length + goes.length + wrong.length + done.length + left.length === 0 &&
    !job.ownerWords &&
    !job.nextCheck
  )
    return null;
  return (
    <section className="for-owner">
      <h2>For the owner</h2>
      <Pictures title="As it came in" urls={came} />
      <Lines title="What was wrong" lines={wrong} />
      <Lines title="What was done" lines={done} />
      <Lines title="What is left as it is" lines={left} />
      <Pictures title="As it goes out" urls={goes} />
      {job.ownerWords && (
        <>
          <h3>To be minded</h3>
          <p style={{ whiteSpace: "pre-wrap" }}>{job.ownerWords}</p>
        </>
      )}
      {job.nextCheck && <p>To be looked at again by {day.format(new Date(job.nextCheck))}.</p>}
      <p className="soft">The figures behind this follow.</p>
    </section>
  );
}

const Pictures = ({ title, urls }: { title: string; urls: string[] }) =>
  urls.length === 0 ? null : (
    <div className="pictures">
      {urls.map((url, i) => (
        // eslint-disable-next-line @next/next/no-img-element -- it is exported with the sheet, in its own bytes
        <img key={i} src={url} alt={`${title}, picture ${i + 1}`} />
      ))}
    </div>
  );

const Lines = ({ title, lines }: { title: string; lines: string[] }) =>
  lines.length === 0 ? null : (
    <>
      <h3>{title}</h3>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
