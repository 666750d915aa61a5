/** Progress that is told more often is not seen. */
const EVERY_MS = 100;

/** Says yes when it is asked first, and from then on when a tenth of a second has passed since it said so last. */
export function nowAndThen(): () => boolean {
  let last = 0;
  return () => {
    const now = performance.now();
    if (now - last < EVERY_MS) return false;
    last = now;
    return true;
  };
}

/** Tells progress now and then only. */
export function seldom(onProgress: (share: number) => void): (share: number) => void {
  const isTime = nowAndThen();
  return (share) => {
    if (isTime()) onProgress(share);
  };
}
