import { calibrationSchema, type Calibration } from "@/core/records/input-calibration";
import { database } from "./database";
import { writes } from "./kept-writes";

export const readCalibration = async (deviceId: string): Promise<Calibration | undefined> =>
  database.calibrations.get(deviceId);

/** Changes part of what is known of a device; the rest stays. */
export async function changeCalibration(
  deviceId: string,
  deviceName: string,
  changes: Partial<Pick<Calibration, "clock" | "level" | "loopBack">>,
): Promise<void> {
  await writes.write("a calibration", () =>
    database.transaction("rw", database.calibrations, async () => {
      const before = await database.calibrations.get(deviceId);
      await database.calibrations.put(
        calibrationSchema.parse({ ...before, deviceId, deviceName, ...changes }),
      );
    }),
  );
}
