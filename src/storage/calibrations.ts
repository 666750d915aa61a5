import { z } from "zod";
import { database } from "./database";

/** What is known of one input device. */
export const calibrationSchema = z.object({
  deviceId: z.string().min(1),
  deviceName: z.string(),
  /** How fast its clock is: the true sample rate is the nominal one times 1 + ppm · 10⁻⁶. */
  clock: z
    .object({
      ppm: z.number().min(-5000).max(5000),
      uncertaintyPpm: z.number().positive(),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
  /** Level in dBu of a sine that just reaches full scale, per channel. */
  level: z
    .object({
      leftDbu: z.number().min(-80).max(80),
      rightDbu: z.number().min(-80).max(80),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
  /** With its output cabled to its input. */
  loopBack: z
    .object({
      noiseDbfs: z.number(),
      toneDbfs: z.number(),
      /** Harmonics of its own, in dB below the tone. */
      secondDb: z.number(),
      thirdDb: z.number(),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
});
export type Calibration = z.infer<typeof calibrationSchema>;

export const readCalibration = async (deviceId: string): Promise<Calibration | undefined> =>
  database.calibrations.get(deviceId);

/** Changes part of what is known of a device; the rest stays. */
export async function changeCalibration(
  deviceId: string,
  deviceName: string,
  changes: Partial<Pick<Calibration, "clock" | "level" | "loopBack">>,
): Promise<void> {
  await database.transaction("rw", database.calibrations, async () => {
    const before = await database.calibrations.get(deviceId);
    await database.calibrations.put(calibrationSchema.parse({ ...before, deviceId, deviceName, ...changes }));
  });
}
