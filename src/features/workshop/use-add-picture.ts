import { useCallback, useSyncExternalStore } from "react";
import { pictureIntake } from "./picture-intake";

/** Adds pictures to a job, and tells how that goes. */
export function useAddPicture(jobId: string) {
  const all = useSyncExternalStore(pictureIntake.subscribe, pictureIntake.now, pictureIntake.now);
  const { left = 0, trouble = null } = all.get(jobId) ?? {};
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
