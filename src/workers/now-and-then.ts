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

/** Progress is shown in whole percent, and whatever shows it is drawn anew each time. */
const LEAST_SHARE = 0.01;

/** Tells progress now and then only, and where it is another percent. */
export function seldom(onProgress: (share: number) => void): (share: number) => void {
  const isTime = nowAndThen();
  let told = -Infinity;
  return (share) => {
    if (Math.abs(share - told) < LEAST_SHARE || !isTime()) return;
    told = share;
    onProgress(share);
  };
}
