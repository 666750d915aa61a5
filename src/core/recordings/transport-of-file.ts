import { TransportMeter } from "@/core/measure/transport-meter";

/** Of a longer piece of tone the last so many seconds are measured, so that what is kept of it does not grow for ever. */
const LONGEST_SECONDS = 3600;
/** What a container says of its length may be a little short of what comes. */
const MARGIN_SECONDS = 1;

/** Speed and flutter of a piece of a file, of a length that is known. @throws RangeError when the sample rate cannot hold the tone */
export const transportOfFile = (
  { sampleRateHz, channelCount }: { sampleRateHz: number; channelCount: number },
  nominalHz: number,
  seconds: number,
): TransportMeter =>
  new TransportMeter(sampleRateHz, channelCount, nominalHz, {
    keepSeconds: LONGEST_SECONDS,
    expectSeconds: seconds + MARGIN_SECONDS,
  });

/** What is to be said of a piece that is longer than what is measured; none of any other. */
export const notAllMeasured = (seconds: number): string[] =>
  seconds > LONGEST_SECONDS
    ? ["It is longer than an hour: speed and flutter are those of its last hour. Cut it for what was before."]
    : [];
