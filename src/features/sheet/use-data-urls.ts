import { useEffect, useState } from "react";
import { database } from "@/storage/database";

const read = (blob: Blob): Promise<string> =>
  new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => failed(new Error("The picture could not be read."));
    reader.readAsDataURL(blob);
  });

/** Kept pictures as they are written into a sheet that is exported whole; those that are gone are left out. */
export function useDataUrls(pictureIds: readonly string[]): string[] {
  const ids = pictureIds.join();
  const [urls, setUrls] = useState<string[]>([]);
  useEffect(() => {
    let gone = false;
    void (async () => {
      const kept = await database.pictures.bulkGet(ids === "" ? [] : ids.split(","));
      const images = kept.flatMap((one) => (one ? [one.image] : []));
      const read64 = await Promise.all(images.map(read));
      if (!gone) setUrls(read64);
    })();
    return () => {
      gone = true;
    };
  }, [ids]);
  return urls;
}
