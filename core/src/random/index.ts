/** Seeded chance: the same seed gives the same demo, the same simulated world, the same figures. */
export interface Random {
  /** 0 ≤ x < 1 */
  next(): number;
  between(low: number, high: number): number;
  whole(low: number, high: number): number;
  pick<T>(list: readonly T[]): T;
  normal(): number;
  yes(share: number): boolean;
}

/** mulberry32 */
export function random(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    between: (low, high) => low + (high - low) * next(),
    whole: (low, high) => low + Math.floor(next() * (high - low + 1)),
    pick: <T>(list: readonly T[]): T => {
      const found = list[Math.floor(next() * list.length)];
      if (found === undefined) throw new Error('nothing to pick from');
      return found;
    },
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    yes: (share) => next() < share,
  };
}
