import { useCallback, useEffect, useRef, useState } from "react";
import { newId } from "@/storage/jobs";
import { keepPicture } from "@/storage/pictures";
import { startPictures, type WorkerOf } from "@/workers/start-worker";
import type { PictureApi } from "@/workers/picture.worker";

/** Takes pictures down to size in a worker and keeps them, one after the other. */
export function useAddPicture(jobId: string) {
  const worker = useRef<WorkerOf<PictureApi> | null>(null);
  const [working, setWorking] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  const add = useCallback(
    async (files: readonly File[], kept: (pictureId: string) => Promise<void>) => {
      setTrouble(null);
      for (const file of files) {
        setWorking((n) => n + 1);
        try {
          worker.current ??= startPictures();
          const { image, width, height } = await worker.current.api.reduce(file, file.name);
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
    [jobId],
  );
  return { add, isWorking: working > 0, trouble, clearTrouble: () => setTrouble(null) };
}
