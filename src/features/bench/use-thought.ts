import { useEffect, useRef, useState } from "react";
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

/** What was thought about last, and what came of it; the answer is null where it could not be thought out. */
interface LastThought<T extends Topic> {
  key: string;
  question: Questions[T];
  answer: Answers[T] | null;
}

/**
 * As `useThought`, for a question that is another one with every result: each is thought about to its end, and then the
 * newest. What comes back may be the answer to an earlier question, which stands beside it.
 */
export function useThoughtsInTurn<T extends Topic>(
  thinker: Thinker,
  topic: T,
  about: string,
  key: string,
  question: Questions[T] | null,
): LastThought<T> | null {
  const [last, setLast] = useState<LastThought<T> | null>(null);
  const busy = useRef(false);
  const asks = question !== null;
  const isAnswered = last?.key === key;
  useEffect(() => {
    if (question === null || isAnswered || busy.current) return;
    busy.current = true;
    const thought = (answer: Answers[T] | null) => {
      busy.current = false;
      setLast({ key, question, answer });
    };
    thinker.ask(topic, about, question).then(
      // nobody waits for what was dropped
      (answer) => answer !== null && thought(answer),
      () => thought(null),
    );
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says when the question is another; what came last frees the next
  }, [thinker, topic, about, key, asks, isAnswered, last]);
  useEffect(
    () => () => {
      busy.current = false;
      thinker.drop(about);
    },
    [thinker, about],
  );
  return last;
}
