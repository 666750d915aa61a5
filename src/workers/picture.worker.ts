import "./without-eval";
import { serve } from "./serve";

/** A picture as it is kept. */
export interface ReducedPicture {
  image: Blob;
  width: number;
  height: number;
}

export interface PictureApi {
  /**
   * Turns a picture upright, takes it down to a sensible size and writes it as JPEG.
   * Rejects with a sentence for what is no picture, or none that this browser can read.
   */
  reduce(file: Blob, name: string): Promise<ReducedPicture>;
}

/** A thread in a slot can still be counted at that. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.85;
const MOST_BYTES = 80 * 1024 * 1024;
const IMAGE_TYPE = "image/jpeg";

const api: PictureApi = {
  async reduce(file, name) {
    if (file.size === 0) throw new Error(`${name} is empty: take the picture again.`);
    if (file.size > MOST_BYTES)
      throw new Error(`${name} is larger than 80 MB: save it smaller, or take it with the camera here.`);
    const whole = await decoded(file, name);
    const scale = Math.min(1, LONGEST_SIDE / Math.max(whole.width, whole.height));
    const [width, height] = [whole.width, whole.height].map((side) => Math.max(1, Math.round(scale * side)));
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext("2d")!.drawImage(whole, 0, 0, width, height);
    whole.close();
    return { image: await canvas.convertToBlob({ type: IMAGE_TYPE, quality: QUALITY }), width, height };
  },
};

async function decoded(file: Blob, name: string): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    const isHeic = /\.hei[cf]$/i.test(name) || /hei[cf]/.test(file.type);
    throw new Error(
      isHeic
        ? `${name} is in the format of a phone (HEIC) that this browser cannot read: set the phone to JPEG, or share the picture as one.`
        : `${name} cannot be read as a picture: choose a JPEG, PNG or WebP that is whole.`,
    );
  }
}

serve(api);
