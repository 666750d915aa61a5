import { answerSignals, askedByAddress, askedByPost } from "@/features/signals/answer-signals";

export const dynamic = "force-dynamic";

/** A test sequence as a WAV file, rendered while it is sent. */
export function GET(request: Request): Response {
  const asked = askedByAddress(new URL(request.url).searchParams);
  return asked instanceof Response ? asked : answerSignals(asked);
}

/** The same for a sequence that is too long for an address. */
export async function POST(request: Request): Promise<Response> {
  const asked = askedByPost(await request.text());
  return asked instanceof Response ? asked : answerSignals(asked);
}
