/** One figure, a line. */
export const say = (what: string, figure: string) => console.log(`${what.padEnd(72)} ${figure}`);

/** Seconds that something took. */
export const timed = (run: () => void): number => {
  const start = performance.now();
  run();
  return (performance.now() - start) / 1000;
};
