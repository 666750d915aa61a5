import type { ControlTest } from "@/core/measure/control-watch";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { channelNames } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import type { Quantity } from "./quantity";

/** What is logged of a control that is worked while a tone plays. */
export const controlQuantities = {
  "level.crackles": {
    name: "Crackles of a control",
    unit: "/min",
    decimals: 0,
    signed: false,
    unmoved: true,
  },
  "level.dropOuts": {
    name: "Drop-outs of a control",
    unit: "/min",
    decimals: 0,
    signed: false,
    unmoved: true,
  },
  "level.tracking": {
    name: "Balance while it is worked",
    unit: "dB",
    decimals: 1,
    signed: false,
    unmoved: true,
  },
} as const satisfies Record<string, Quantity>;
export type ControlQuantity = keyof typeof controlQuantities;

/** What is worked most, for who does not want to type. */
export const USUAL_CONTROLS = [
  "output level",
  "record level",
  "balance",
  "headphone level",
  "source and tape switch",
  "tape type switch",
  "noise reduction switch",
  "record and play switch",
] as const;

/** House figures: a sound control gives none; one in ten seconds may have been a knock. */
const MOST_A_MINUTE = 6;
const TRACKING_DB = 2;
/** Of fewer seconds even none at all says too little. */
const LEAST_SECONDS = 12;
const COUNT_SHARE = 0.1;
const TRACKING_UNCERTAINTY_DB = 0.1;
const METHOD =
  "counted above 5 kHz, and where the tone is 3 dB down, while the control is worked and a tone plays";

export const controlLimit = (quantity: ControlQuantity, { channels }: Machine): number | null => {
  switch (quantity) {
    case "level.crackles":
    case "level.dropOuts":
      return MOST_A_MINUTE;
    case "level.tracking":
      return channels === 1 ? null : TRACKING_DB;
  }
};

export interface ControlNow {
  test: ControlTest | null;
  /** Why it cannot be logged; null when it can. */
  lacks: string | null;
}

/** A control as far as it was worked. */
export function controlNow({
  heard,
  circumstances,
}: Pick<OnTheBench, "heard" | "circumstances">): ControlNow {
  const test = heard?.controls ?? null;
  const { control } = circumstances;
  const lacks = !control
    ? "Say which control or switch it is."
    : test === null
      ? "Play a steady tone, press Begin, and work the control slowly from end to end."
      : test.seconds < LEAST_SECONDS
        ? "Work it on: twelve seconds of tone are wanted."
        : null;
  return { test, lacks };
}

/** What is logged of it: each channel a minute, and how far the balance went. */
export function controlReadings(
  station: { id: string; quantities: Readonly<Record<ControlQuantity, Quantity>> },
  { seconds, channels, balance }: ControlTest,
  machine: Machine,
  context: LogContext,
): Reading[] {
  const names = channelNames(machine.channels);
  const aMinute = (quantity: ControlQuantity, channel: string, count: number): Figure<ControlQuantity> => ({
    quantity,
    channel: names.length === 1 ? "both" : channel,
    value: (60 * count) / seconds,
    uncertainty: (60 * Math.max(1, COUNT_SHARE * count)) / seconds,
  });
  return readingsOfMoment(station, context, { seconds, method: METHOD }, [
    ...names.flatMap((name, c) => {
      const heard = channels.at(Math.min(c, channels.length - 1))!;
      return [
        aMinute("level.crackles", name, heard.crackles),
        aMinute("level.dropOuts", name, heard.dropOuts),
      ];
    }),
    balance !== null &&
      names.length > 1 && {
        quantity: "level.tracking" as const,
        channel: "both",
        value: Math.max(balance.toDb, -balance.fromDb, 0),
        uncertainty: TRACKING_UNCERTAINTY_DB,
      },
  ]);
}
