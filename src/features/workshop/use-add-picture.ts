import { useCallback, useSyncExternalStore } from "react";
import { pictureIntake } from "./picture-intake";

/** Adds pictures to a job, and tells how that goes. */
export function useAddPicture(jobId: string) {
  const now = () => pictureIntake.of(jobId);
  const { left, trouble } = useSyncExternalStore(pictureIntake.subscribe, now, now);
  return {
    add: useCallback(
      (files: readonly File[], kept: (pictureId: string) => Promise<void>) =>
        pictureIntake.add(jobId, files, kept),
      [jobId],
    ),
    isWorking: left > 0,
    trouble,
    clearTrouble: () => pictureIntake.clearTrouble(jobId),
  };
}
