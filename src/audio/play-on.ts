export const OUTPUT_GONE =
  "The output does not answer. Choose another one under Sound card, then play again.";

/**
 * Leads what a context plays to a device. Chromium has this on the context; a browser without it plays on its default.
 * @param outputId null for the default device
 * @throws DOMException when there is no such device any more
 */
export async function playOn(context: AudioContext, outputId: string | null): Promise<void> {
  if (outputId && "setSinkId" in context)
    await (context as AudioContext & { setSinkId(id: string): Promise<void> }).setSinkId(outputId);
}
