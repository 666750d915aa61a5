import { nameOf } from "@/core/workshop/strip-down";
import type { StripEntry } from "@/core/workshop/strip-entry";
import { dropStripPicture } from "@/storage/strip-down";
import { KeptPictures } from "./kept-pictures";

/** The pictures of a line of the strip-down log. */
export const EntryPictures = ({ entry, height }: { entry: StripEntry; height: number }) => (
  <KeptPictures
    pictureIds={entry.pictures}
    of={nameOf(entry)}
    height={height}
    onDrop={(id) => dropStripPicture(entry.id, id)}
  />
);
