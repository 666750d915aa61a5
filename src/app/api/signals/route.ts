import { answerSignals } from "@/features/signals/answer-signals";

export const dynamic = "force-dynamic";

/** A test sequence as a WAV file, rendered while it is sent. */
export function GET(request: Request): Response {
  return answerSignals(new URL(request.url).searchParams);
}
