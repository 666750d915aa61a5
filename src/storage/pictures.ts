import { pictureSchema, type PictureMark } from "@/core/workshop/picture";
import { database, type KeptPicture } from "./database";
import { writes } from "./kept-writes";
import { validFields } from "./valid-fields";

/** Keeps a picture with its image; one of a job that was deleted meanwhile is let go. */
export async function keepPicture({ image, ...picture }: KeptPicture): Promise<void> {
  const known = { ...pictureSchema.parse(picture), image };
  await writes.write(
    "a picture",
    () =>
      database.transaction("rw", database.jobs, database.pictures, async () => {
        if (await database.jobs.get(known.jobId)) await database.pictures.put(known);
      }),
    { kind: "pictures" },
  );
}

/** What is drawn on it. */
export const markPicture = (id: string, marks: PictureMark[]): Promise<void> =>
  writes.write("a mark on a picture", async () => {
    await database.pictures.update(id, validFields(pictureSchema.shape, { marks }));
  });

export const deletePicture = (id: string): Promise<void> =>
  writes.write("a picture", () => database.pictures.delete(id));
