import { useEffect, useState } from "react";
import type { Answers, Questions, Topic } from "@/core/advice/thinking";
import type { Thinker } from "@/workers/thinker";

/**
 * The answer to a question that takes time, from a worker; null until it is there, and when nothing is asked. An answer
 * to another question than the present one is never shown.
 * @param key says when the question is another
 */
export function useThought<T extends Topic>(
  thinker: Thinker,
  topic: T,
  about: string,
  key: string,
  question: Questions[T] | null,
): Answers[T] | null {
  const [answered, setAnswered] = useState<{ key: string; answer: Answers[T] } | null>(null);
  const asks = question !== null;
  useEffect(() => {
    if (question === null) return;
    let gone = false;
    thinker.ask(topic, about, question).then(
      (answer) => !gone && answer !== null && setAnswered({ key, answer }),
      // what could not be thought out is not said; the next question is another try
      () => undefined,
    );
    return () => {
      gone = true;
      thinker.drop(about);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says when the question is another
  }, [thinker, topic, about, key, asks]);
  return asks && answered?.key === key ? answered.answer : null;
}
