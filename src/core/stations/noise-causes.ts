import { inForce } from "@/core/records/job-records";
import { fixed } from "@/core/text/number-text";
import type { Erased } from "./erased";
import { HIGH_TONE_HZ, noiseNow, quietNow, TONE_HZ, type NoiseQuantity } from "./noise";
import type { OnTheBench } from "./on-the-bench";
import { channelLeakCauses, otherDirectionCauses, type Across } from "./separation";

/** Beyond this, noise of bias says that something is magnetised or lopsided. */
const BIAS_NOISE_DB = 3;
const HARDLY_DB = 1;

/** What usually makes it when noise or separation is not as it should be. */
export const noiseCauses = (bench: OnTheBench): string[] => [...leakCauses(bench), ...biasNoiseCauses(bench)];

/** What is heard now of what comes across. */
function leakCauses(bench: OnTheBench): string[] {
  switch (bench.circumstances.noiseOf) {
    case undefined: {
      const { channels, lacks } = noiseNow(bench);
      return lacks === null
        ? channelLeakCauses(channels.map((one) => ({ channel: one.channel, across: acrossOf(one) })))
        : [];
    }
    case "other side": {
      const { channels, lacks } = quietNow(bench);
      return lacks === null
        ? otherDirectionCauses(
            channels.map(({ channel, across }) => ({
              channel,
              across: across.filter(({ hidden }) => !hidden),
            })),
          )
        : [];
    }
    case "machine":
    case "bulk":
      return [];
  }
}

/** What a channel hears of the other. */
function acrossOf(heard: Erased): Across[] {
  const at = (frequencyHz: number, db: number | null, uncertaintyDb: number) =>
    db === null ? [] : [{ frequencyHz, db, uncertaintyDb }];
  return [
    ...at(TONE_HZ, heard.crosstalkDb, heard.crosstalkUncertaintyDb),
    ...at(HIGH_TONE_HZ, heard.crosstalkHighDb, heard.crosstalkHighUncertaintyDb),
  ];
}

/** What the noises mean beside each other; none where there are not two to compare. */
function biasNoiseCauses({ here, circumstances }: Pick<OnTheBench, "here" | "circumstances">): string[] {
  const last = (quantity: NoiseQuantity): number | null => {
    const own = inForce(here.readings).filter(
      (reading) =>
        reading.quantity === quantity &&
        (quantity !== "noise.a" || reading.context.recordingOn === circumstances.recordingOn),
    );
    const at = own.at(-1)?.at;
    const values = own.filter((reading) => reading.at === at).map(({ value }) => value);
    return values.length > 0 ? Math.max(...values) : null;
  };
  const [recorded, bulk, machine] = [last("noise.a"), last("noise.bulk"), last("noise.machine")];
  return [
    ...(recorded !== null && bulk !== null && recorded - bulk > BIAS_NOISE_DB
      ? [
          `A recorded silence is ${fixed(recorded - bulk, 1)} dB louder than a bulk-erased tape: heads are magnetised, or bias is lopsided. Demagnetise, then look at the oscillator's waveform.`,
        ]
      : []),
    ...(bulk !== null && machine !== null && bulk - machine < HARDLY_DB
      ? [
          "A bulk-erased tape is no louder than the machine without one: the machine's own noise hides the tape's. Look at its first stage, the head's leads and the earth.",
        ]
      : []),
  ];
}
