import { typedContext } from "@/core/alignment/logbook";
import { meterInRecord } from "@/core/stations/record-level";
import { appendReadings, newId } from "@/storage/jobs";
import { TypedFigures } from "../logging/typed-figures";
import type { PictureProps } from "../stations/picture";

/** What the machine's own meters show while the level tone goes in, against the 0 that was set for the job. */
export function MeterInRecord({ view, station, bench }: Pick<PictureProps, "view" | "station" | "bench">) {
  const { job, machine } = view;
  const zero = job.zero?.inputDbfs ?? null;
  const source = bench.heard?.comparison?.source ?? null;
  const channels = machine.channels === 1 ? ["both"] : ["left", "right"];
  return (
    <TypedFigures
      title="The machine's own meter shows in record, dB"
      channels={channels}
      label={(channel) => `Meter, ${channel}`}
      quantity="recordLevel.meter"
      view={view}
      recordingOn={bench.circumstances.recordingOn}
      lacks={
        zero === null
          ? "set 0 first, with the source heard"
          : source === null
            ? "monitor the source while the level tone goes in"
            : null
      }
      wrong={(shown) => (Math.abs(shown) > 40 ? "A number of dB" : null)}
      onLog={(channel, shownDb) => {
        if (!source || !zero) return;
        const nominalHz = bench.heard?.comparison?.frequenciesHz[0] ?? 0;
        const heard = { name: "the machine's own meter", nominalHz };
        const context = typedContext(station, bench, heard, { newId, now: Date.now() });
        const c = channels.indexOf(channel);
        void appendReadings(meterInRecord({ shownDb, source, zeroDbfs: zero, c, channel }, context));
      }}
    />
  );
}
