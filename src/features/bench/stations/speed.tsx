import { limitFor } from "@/core/alignment/registry";
import { Strip } from "@/ui/strip";
import { Figure } from "../figure";
import { LikelyReasons } from "../speed/likely-reasons";
import { WithoutTrimmer } from "../speed/without-trimmer";
import type { PictureProps, StationPicture } from "./picture";

/** Number, rule and strip. */
function Speed({ view, bench, advised, listener, absent }: PictureProps) {
  const { live, speedStrip, marks } = listener;
  const now = bench.heard?.speed ?? null;
  const limit = limitFor(view.machine, "speedError");
  return (
    <>
      <Figure
        view={view}
        quantity="speedError"
        value={now && advised.toSet.value}
        uncertainty={now ? advised.toSet.uncertainty : 0}
        settled={now?.settled ?? false}
        shownAs={
          now
            ? [now.channel === "both" ? "both channels" : now.channel, now.creeps && "still creeping"]
                .filter(Boolean)
                .join(", ")
            : undefined
        }
        ends={["slow", "fast"]}
        absent={absent}
        target={advised.target}
        size="large"
      />
      {live && (
        <Strip
          label="Speed error over the last 90 seconds"
          points={speedStrip}
          nowSeconds={live.seconds}
          marks={marks}
          window={limit === null ? null : { from: -limit, to: limit }}
        />
      )}
    </>
  );
}

const Trimmerless = ({ view, bench }: PictureProps) => (
  <WithoutTrimmer errorPercent={bench.heard?.speed?.errorPercent ?? null} parts={view.machine.parts} />
);

export const speed: StationPicture = {
  Middle: Speed,
  Aside: LikelyReasons,
  NothingToTurn: Trimmerless,
};
