import { channelName } from "@/core/measure/channel-name";
import type { SegmentKind } from "@/core/signals/sequence";
import { molOf } from "./mol";
import { saturationOf } from "./saturation";
import { LEAST_DEPTH_UNCERTAINTY_DB } from "./returned";
import type { ReturnedChannel, ReturnedPass, ReturnedPoint, ReturnedSegment } from "./returned";
import type { SectionReturned } from "./section-meter";

/** One sound of a segment that was measured, a result for each channel. */
export interface MeasuredSection {
  segment: number;
  kind: SegmentKind;
  /** Level that it was sent at. */
  sentDbfs: number;
  startSeconds: number;
  endSeconds: number;
  channels: SectionReturned[];
}

/** The sounds of one pass put together to its segments, curves re its first sine. */
export function returnedPass(
  pass: number,
  sections: readonly MeasuredSection[],
  channelCount: number,
): ReturnedPass {
  const count = Math.min(2, channelCount);
  const first = Array.from({ length: count }, (_, c) => firstSineDb(sections, c));
  const places = [...new Set(sections.map(({ segment }) => segment))];
  const segments = places.map((index): ReturnedSegment => {
    const parts = sections.filter(({ segment }) => segment === index);
    const { kind, startSeconds } = parts[0];
    const channels = Array.from({ length: count }, (_, c) => c).flatMap((c): ReturnedChannel[] => {
      const came = parts.flatMap((part) => part.channels.at(c) ?? []);
      const one = channelOf(kind, came, first[c] ?? 0, toneBefore(sections, index, c));
      return one ? [{ channel: channelName(c, channelCount), ...one }] : [];
    });
    return { index, kind, startSeconds, endSeconds: parts.at(-1)!.endSeconds, channels };
  });
  return { pass, segments };
}

/** Level, dBFS, that the last tone before a segment came back with; null where it was not heard. */
function toneBefore(sections: readonly MeasuredSection[], segment: number, c: number): number | null {
  const tone = sections.findLast(
    (one) => one.segment < segment && one.kind === "sine" && one.channels.at(c)?.kind === "sine",
  );
  const came = tone?.channels.at(c);
  return tone !== undefined && came?.kind === "sine" && came.levelDb !== null
    ? tone.sentDbfs + came.levelDb
    : null;
}

/** What the first sine of a pass came back with; null where it has none. */
export function firstSineDb(sections: readonly MeasuredSection[], c: number): number | null {
  for (const { kind, channels } of sections) {
    const came = channels.at(c);
    if (kind === "sine" && came?.kind === "sine" && came.levelDb !== null) return came.levelDb;
  }
  return null;
}

/** @param toneDbfs what the tone before it came back with; null where there was none */
function channelOf(kind: SegmentKind, came: SectionReturned[], firstDb: number, toneDbfs: number | null) {
  const re = (point: ReturnedPoint): ReturnedPoint => ({ ...point, levelDb: point.levelDb - firstDb });
  switch (kind) {
    case "sine":
      return came.find((one) => one.kind === "sine") ?? null;
    case "two-tone":
      return came.find((one) => one.kind === "two-tone") ?? null;
    case "steps": {
      const points = came.flatMap((one): ReturnedPoint[] =>
        one.kind === "sine" && one.levelDb !== null
          ? [
              {
                frequencyHz: one.frequencyHz,
                levelDb: one.levelDb,
                spreadDb: one.spreadDb,
                uncertaintyDb: one.uncertaintyDb,
              },
            ]
          : [],
      );
      const clipped = came.some((one) => one.kind === "sine" && one.clipped);
      return points.length > 0 ? { kind, points: points.map(re), clipped } : null;
    }
    case "sweep":
    case "pink":
    case "white": {
      const points = came.flatMap((one) => (one.kind === "points" ? one.points : []));
      const clipped = came.some((one) => one.kind === "points" && one.clipped);
      return points.length > 0 ? { kind, points: points.map(re), clipped } : null;
    }
    case "staircase": {
      const heard = came.filter((one) => one.kind === "step");
      const steps = heard.map(({ step }) => step);
      return heard.length > 0
        ? {
            kind,
            frequencyHz: heard[0].frequencyHz,
            steps,
            molDb: molOf(steps),
            saturationDb: saturationOf(steps),
          }
        : null;
    }
    case "silence": {
      const heard = came.find((one) => one.kind === "silence");
      if (!heard) return null;
      const { residue, noise, hum, doubt } = heard;
      const known = residue !== null && toneDbfs !== null;
      return {
        kind,
        residualDb: known ? residue.levelDbfs - toneDbfs : null,
        residualUncertaintyDb:
          known && residue.measurable ? Math.hypot(LEAST_DEPTH_UNCERTAINTY_DB, residue.uncertaintyDb) : null,
        residualMeasurable: known && residue.measurable,
        noise,
        hum,
        doubt,
      };
    }
  }
}
