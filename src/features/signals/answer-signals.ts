import { firstIssue, MOST_TEXT_BYTES } from "@/core/formats/import-error";
import { valueOfJson } from "@/core/formats/json-text";
import { PRESETS } from "@/core/signals/presets";
import { sequenceSchema } from "@/core/signals/sequence";
import { exportOptionsSchema, wavExport } from "@/core/formats/wav-export";
import * as z from "@/core/text/zod";

/** A description in an address that is longer than this is refused unread. */
const MOST_CHARACTERS = 24_000;
/** A file longer than this is refused before it is begun. */
const MOST_BYTES = 2 * 2 ** 30;
/** Somebody who takes the file so slowly is given up, so that nothing is held for ever. */
const LONGEST_MINUTES = 60;

/** What is asked for: a preset or a sequence, and how it is to be written. */
export interface AskedSignals {
  preset: string | null;
  /** As it came; null where none did. */
  sequence: unknown;
  rate: unknown;
  bits: unknown;
}

/** What an address asks for, `preset=ID` or `sequence=JSON` with `rate` and `bits`; or the refusal. */
export function askedByAddress(query: URLSearchParams): AskedSignals | Response {
  const described = query.get("sequence");
  const [rate, bits] = [query.get("rate"), query.get("bits")];
  if (described !== null && described.length > MOST_CHARACTERS)
    return refusal(
      413,
      `The sequence is described in more than ${MOST_CHARACTERS} characters. Send it by POST.`,
    );
  const sequence = described === null ? null : valueOrRefusal(described);
  return sequence instanceof Response ? sequence : { preset: query.get("preset"), sequence, rate, bits };
}

/** What a posted text asks for: `{ "sequence": {…} or "preset": ID, "rate", "bits" }`; or the refusal. */
export function askedByPost(text: string): AskedSignals | Response {
  if (text.length > MOST_TEXT_BYTES)
    return refusal(413, "The sequence is described in more than 4 MiB. Make it shorter.");
  const value = valueOrRefusal(text);
  if (value instanceof Response) return value;
  const asked = postSchema.safeParse(value);
  if (!asked.success) return refusal(400, `${firstIssue(asked.error)}.`);
  const { preset = null, sequence = null, rate, bits } = asked.data;
  return { preset, sequence, rate, bits };
}

const postSchema = z.object({
  preset: z.string().optional(),
  sequence: z.unknown().optional(),
  rate: z.unknown().optional(),
  bits: z.unknown().optional(),
});

function valueOrRefusal(text: string): unknown {
  try {
    return valueOfJson(text) ?? refusal(400, "The sequence is not complete JSON.");
  } catch (error) {
    return refusal(400, (error as Error).message);
  }
}

/**
 * Answers by a WAV stream; anything wrong by a sentence and status 400, 404 or 413.
 */
export function answerSignals(asked: AskedSignals): Response {
  const options = exportOptionsSchema.safeParse({ rate: asked.rate ?? 48000, bits: asked.bits ?? 24 });
  if (!options.success) return refusal(400, `${firstIssue(options.error)}.`);
  const raw = asked.sequence ?? PRESETS.find(({ id }) => id === asked.preset);
  if (!raw) return refusal(404, "There is no such preset. Give preset=ID or sequence=JSON.");
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
    cancel: () => void pieces.return(undefined),
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
