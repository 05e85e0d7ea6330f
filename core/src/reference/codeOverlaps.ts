/** Two rules of one date code that read the same stamp as different years. */
import type { DateCode } from './pack.ts';
import { readDateCode } from './readDateCode.ts';

/** Stamps tried at most; a serial range with millions of numbers is not walked through. */
const MOST_STAMPS = 20_000;

/** @returns one sentence for each stamp shape that has more than one reading, at most five */
export function ruleOverlaps(code: DateCode): string[] {
  const choices = code.reads.map((read): (string | number)[] => {
    if (read.type === 'choice') return read.values ?? [];
    const from = read.min ?? 0;
    const to = Math.min(read.max ?? from + 99, from + 999);
    return Array.from({ length: to - from + 1 }, (_, i) => from + i);
  });
  const stamps = choices.reduce((n, values) => n * Math.max(1, values.length), 1);
  if (stamps > MOST_STAMPS) return [];
  const found: string[] = [];
  for (let n = 0; n < stamps && found.length < 5; n++) {
    let rest = n;
    const reads: Record<string, string | number> = {};
    choices.forEach((values, i) => {
      const read = code.reads[i];
      const value = values[rest % Math.max(1, values.length)];
      rest = Math.floor(rest / Math.max(1, values.length));
      if (read && value !== undefined) reads[read.id] = value;
    });
    const result = readDateCode(code, reads);
    if (result.ok && result.value.length > 1) {
      const stamp = Object.entries(reads)
        .map(([id, value]) => `${id} ${value}`)
        .join(', ');
      found.push(`${stamp} is read as ${result.value.map((r) => r.window).join(' and as ')}`);
    }
  }
  return found;
}
