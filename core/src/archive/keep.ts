/** Which backups are kept: so many of the newest days, weeks and months, one of each. */

export interface KeepRule {
  readonly daily: number;
  readonly weekly: number;
  readonly monthly: number;
}

const DAY_MS = 86_400_000;

/** Weeks begin on a Monday: 1 January 1970 was a Thursday. */
const weekOf = (at: string): string => String(Math.floor((Math.floor(Date.parse(at) / DAY_MS) + 3) / 7));

/**
 * The newest of a day stands for the day, the newest of a week for the week. The newest of all is always kept, whatever
 * the rule says.
 * @param backups ISO instants of good backups, in any order
 * @returns those to keep, the newest first
 */
export function keptBackups(backups: readonly string[], rule: KeepRule): string[] {
  const newestFirst = [...new Set(backups)].sort().reverse();
  const kept = new Set(newestFirst.slice(0, 1));
  const keep = (periodOf: (at: string) => string, n: number) => {
    const periods = new Set<string>();
    for (const at of newestFirst) {
      const period = periodOf(at);
      if (periods.has(period)) continue;
      if (periods.size >= n) return;
      periods.add(period);
      kept.add(at);
    }
  };
  keep((at) => at.slice(0, 10), rule.daily);
  keep(weekOf, rule.weekly);
  keep((at) => at.slice(0, 7), rule.monthly);
  return newestFirst.filter((at) => kept.has(at));
}
