/** Numbers in [0, 1) that repeat with their seed. */
export function chanceOf(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
