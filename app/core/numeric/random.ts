/**
 * A repeatable stream of numbers in [0, 1) from a whole-number seed: the same seed gives the same stream
 * everywhere. A 32-bit multiply-and-shift generator (mulberry32, public domain); period 2^32, for simulations only.
 */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Numbers of a standard normal distribution from numbers in [0, 1), two for each (Box and Muller 1958). */
export const normalFrom =
  (random: () => number): (() => number) =>
  () =>
    Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
