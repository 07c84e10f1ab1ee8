/** A seeded stream of numbers in [0, 1): the same seed gives the same plan on every machine. */
export type Random = () => number;

/** Small fast generator with 32-bit state. @source mulberry32, public domain; integer arithmetic only, so portable */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Whole number in [0, below). */
export const randomInt = (random: Random, below: number): number => Math.floor(random() * below);
