import { useState } from "react";
import { verdictOf } from "@/core/judging/verdict";
import { FLUTTER_SETTLED_SECONDS } from "@/core/measure/flutter";
import { flutterLimit, primaryFigure, primaryFlutter } from "@/core/stations/flutter";
import { THIN_SPACE } from "@/core/text/number-text";
import { Figure } from "../figure";
import { FlutterViews, type View } from "../flutter/flutter-views";
import type { PictureProps, StationPicture } from "./picture";

/** The meter that the machine is judged by, and what lies behind its figure. */
function Flutter({ view, bench, listener, absent, onCircumstances }: PictureProps) {
  const { machine } = view;
  const now = bench.heard?.flutter ?? null;
  const figure = now && primaryFigure(now, machine);
  const limit = flutterLimit(machine);
  // what was chosen stays chosen while nothing is heard
  const [shown, show] = useState<View>("parts");
  const failing =
    figure !== null && limit !== null && verdictOf(figure.value, figure.uncertainty, limit) === "fail";
  return (
    <>
      <Figure
        view={view}
        quantity={primaryFlutter(machine.flutterMeter)}
        value={figure?.value ?? null}
        uncertainty={figure?.uncertainty ?? 0}
        settled={now?.settled ?? false}
        shownAs={now?.channel === "both" ? "both channels" : now?.channel}
        settling={now ? (now.doubt ?? secondsLeft(now.seconds)) : undefined}
        ends={["steady", "restless"]}
        absent={absent}
      />
      {(now || listener.live) && (
        <FlutterViews
          shown={shown}
          onShow={show}
          view={view}
          flutter={now}
          listener={listener}
          failing={failing}
          circumstances={bench.circumstances}
          onPlace={({ side, position }) => onCircumstances({ ...bench.circumstances, side, position })}
          onHearsTick={(hearsTick) => onCircumstances({ ...bench.circumstances, hearsTick })}
        />
      )}
    </>
  );
}

/** How long the meters still take. */
function secondsLeft(seconds: number): string {
  const left = Math.ceil(FLUTTER_SETTLED_SECONDS - seconds);
  return left > 0 ? `settling, ${left}${THIN_SPACE}s left` : "settling";
}

export const flutter: StationPicture = { Middle: Flutter };
