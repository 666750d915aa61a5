import { playBlocks, type Playing } from "@/audio/sound-player";
import type { Session } from "@/core/live/session";
import type { Sequence } from "@/core/signals/sequence";
import { readSettings } from "@/storage/settings";
import { callback, handOver, startPlayer } from "@/workers/start-worker";

const RATE_HZ = 48_000;

interface Told {
  /** @param share of the sequence that is rendered, 0 to 1 */
  onProgress(share: number): void;
  /** It has sounded to its end, or broke off: `why` is a sentence then. */
  onEnd(why: string | null): void;
}

/**
 * Plays a sequence through the chosen output for a session, and stops with it; a session that is over is told nothing
 * more. Whatever goes wrong is told `onEnd`.
 * @param gain amplitude ratio, 1 or below
 * @returns what sounds; null where nothing does, because the session ended or it went wrong
 */
export async function playSequence(
  session: Session,
  sequence: Sequence,
  gain: number,
  { onProgress, onEnd }: Told,
): Promise<Playing | null> {
  const end = (why: string | null) => {
    if (!session.closed) onEnd(why);
  };
  const player = startPlayer();
  session.own(player.end);
  player.died.catch(({ message }: Error) => end(message));
  const { port1, port2 } = new MessageChannel();
  try {
    const progress = callback((share: number) => {
      if (!session.closed) onProgress(share);
    });
    await player.api.open(sequence, RATE_HZ, handOver(port1, [port1]), progress);
    const { outputId } = await readSettings();
    if (session.closed) return null;
    const playing = await playBlocks(port2, RATE_HZ, outputId, gain, (late) =>
      end(
        late > 0
          ? `${late} samples came too late and were silent: the computer was too busy. Play it again, or export it as a file.`
          : null,
      ),
    );
    // of two that were asked for one after the other only the latter sounds
    session.own(playing.stop);
    return session.closed ? null : playing;
  } catch (error) {
    end((error as Error).message);
    return null;
  }
}
