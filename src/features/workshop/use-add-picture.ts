import { useCallback, useEffect, useState } from "react";
import { newId } from "@/storage/jobs";
import { keepPicture } from "@/storage/pictures";
import { KeptWorker } from "@/workers/kept-worker";
import { startPictures } from "@/workers/start-worker";

/** Takes pictures down to size in a worker and keeps them, one after the other. */
export function useAddPicture(jobId: string) {
  const [worker] = useState(() => new KeptWorker(startPictures));
  const [working, setWorking] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => () => worker.end(), [worker]);
  const add = useCallback(
    async (files: readonly File[], kept: (pictureId: string) => Promise<void>) => {
      setTrouble(null);
      for (const file of files) {
        setWorking((n) => n + 1);
        try {
          const { image, width, height } = await worker.api.reduce(file, file.name);
          const id = newId();
          const at = new Date().toISOString();
          await keepPicture({ id, jobId, at, width, height, bytes: image.size, marks: [], image });
          await kept(id);
        } catch (error) {
          setTrouble((error as Error).message);
        } finally {
          setWorking((n) => n - 1);
        }
      }
    },
    [jobId, worker],
  );
  return { add, isWorking: working > 0, trouble, clearTrouble: () => setTrouble(null) };
}
