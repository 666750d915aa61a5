import { firstIssue } from "@/core/formats/import-error";
import { PRESETS } from "@/core/signals/presets";
import { sequenceSchema } from "@/core/signals/sequence";
import { exportOptionsSchema, wavExport } from "@/core/formats/wav-export";

/** A description longer than this is refused unread. */
const MOST_CHARACTERS = 24_000;
/** A file longer than this is refused before it is begun. */
const MOST_BYTES = 2 * 2 ** 30;
/** Somebody who takes the file so slowly is given up, so that nothing is held for ever. */
const LONGEST_MINUTES = 60;

/**
 * Answers `preset=ID` or `sequence=JSON` with `rate` and `bits` by a WAV stream; anything wrong by a sentence and
 * status 400, 404 or 413.
 */
export function answerSignals(query: URLSearchParams): Response {
  const options = exportOptionsSchema.safeParse({
    rate: query.get("rate") ?? 48000,
    bits: query.get("bits") ?? 24,
  });
  if (!options.success) return refusal(400, `${firstIssue(options.error)}.`);
  const described = query.get("sequence");
  if (described !== null && described.length > MOST_CHARACTERS)
    return refusal(
      413,
      `The sequence is described in more than ${MOST_CHARACTERS} characters. Make it shorter.`,
    );
  let raw: unknown;
  if (described === null) {
    raw = PRESETS.find(({ id }) => id === query.get("preset"));
    if (!raw) return refusal(404, "There is no such preset. Give preset=ID or sequence=JSON.");
  } else {
    try {
      raw = JSON.parse(described);
    } catch {
      return refusal(400, "The sequence is not complete JSON.");
    }
  }
  const sequence = sequenceSchema.safeParse(raw);
  if (!sequence.success)
    return refusal(400, `This sequence cannot be played: ${firstIssue(sequence.error)}.`);
  let wav: ReturnType<typeof wavExport>;
  try {
    wav = wavExport(sequence.data, options.data);
  } catch (error) {
    return refusal(400, `${(error as Error).message}.`);
  }
  if (wav.byteLength > MOST_BYTES)
    return refusal(
      413,
      `The file would be larger than ${MOST_BYTES / 2 ** 30} GiB. Make it shorter or take fewer bits.`,
    );

  const pieces = wav.pieces();
  const giveUpAt = Date.now() + LONGEST_MINUTES * 60_000;
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      // others are served between two pieces
      await new Promise((resolve) => setImmediate(resolve));
      if (Date.now() > giveUpAt)
        return controller.error(new Error(`not taken within ${LONGEST_MINUTES} minutes`));
      const { done, value } = pieces.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
  });
  return new Response(stream, {
    headers: {
      "content-type": "audio/wav",
      "content-length": String(wav.byteLength),
      "content-disposition": `attachment; filename="unzel-${sequence.data.id.replace(/[^a-z0-9-]/gi, "-")}.wav"`,
    },
  });
}

const refusal = (status: number, message: string): Response => Response.json({ message }, { status });
