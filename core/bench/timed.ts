/** Runs work so often and tells how long it took: the first time, in the middle, at worst. @param goalMs null: a reference */
export function timed(name: string, goalMs: number | null, runs: number, work: (i: number) => unknown): void {
  const ms: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    work(i);
    ms.push(performance.now() - start);
  }
  const first = ms[0]!;
  ms.sort((a, b) => a - b);
  console.log(
    `${name.padEnd(58)} first ${first.toFixed(0)} ms, median ${ms[ms.length >> 1]!.toFixed(1)} ms, slowest ${ms.at(-1)!.toFixed(0)} ms${goalMs === null ? '' : ` (goal ${goalMs} ms)`}`,
  );
}
