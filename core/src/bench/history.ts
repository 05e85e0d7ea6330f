/**
 * What happened to a piece after it was made: stamps of re-issue, re-work and conversion, and the numbers that once
 * joined blade, scabbard and frog. It is told beside the attribution and never counted as damage.
 */
import type { Mark, MarkHistory } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import type { HistoryEvent, NumbersAnswer, Observation } from './observation.ts';
import type { BenchSettings } from './settings.ts';

/** A mark that tells what was done to a finished piece. */
export type HistoryMark = Mark & { history: MarkHistory };
export const tellsHistory = (mark: Mark | undefined): mark is HistoryMark => mark?.history != null;

export interface PieceHistory {
  readonly marks: readonly HistoryMark[];
  readonly numbers: NumbersAnswer | undefined;
}

export function pieceHistory(index: ReferenceIndex, observations: readonly Observation[]): PieceHistory {
  const marks = observations.flatMap((o) => {
    const mark = 'mark' in o ? index.marks.get(o.mark) : undefined;
    return tellsHistory(mark) ? [mark] : [];
  });
  return { marks, numbers: numbersOf(observations) };
}

/** The stamp on the piece that tells a feature was changed afterwards. */
export const changedBy = (history: PieceHistory, feature: string): HistoryMark | undefined =>
  history.marks.find((mark) => mark.history.changes?.includes(feature));

/** The part whose number the others are held against: what bears the maker's stamp, as far as it was read. */
const LEADING_PARTS = ['blade', 'ricasso', 'tang', 'guard', 'pommel'];
const plain = (number: string) => number.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Numbers on the parts, each held against the blade's; where that has none, against the first part's. */
export function numbersOf(observations: readonly Observation[]): NumbersAnswer | undefined {
  const read = observations.flatMap((o) => ('number' in o ? [o] : []));
  if (read.length === 0) return undefined;
  const rank = (part: string) => {
    const at = LEADING_PARTS.indexOf(part);
    return at < 0 ? LEADING_PARTS.length : at;
  };
  const sorted = [...read].sort((a, b) => rank(a.part) - rank(b.part) || a.part.localeCompare(b.part));
  const leading = sorted[0];
  const parts = sorted.map(({ part, number }) => ({
    part,
    number,
    agrees: plain(number) === plain(leading?.number ?? ''),
  }));
  return {
    verdict: parts.length < 2 ? 'one-only' : parts.every((p) => p.agrees) ? 'matching' : 'differing',
    parts,
  };
}

/**
 * Chance that a part is not the piece's own, once its number was read: a number that matches all but rules it out,
 * one that differs all but proves it.
 * @param base by how easily such a part is exchanged
 */
export function exchangeChance(
  history: PieceHistory,
  part: string,
  base: number,
  settings: BenchSettings,
): number {
  const { numbers } = history;
  if (!numbers || numbers.verdict === 'one-only') return base;
  const at = numbers.parts.findIndex((p) => p.part === part);
  if (at <= 0) return base;
  return numbers.parts[at]?.agrees ? settings.exchange.never : settings.exchangedWhenNumbersDiffer;
}

/** What is known to have happened, in the order of time; undated things last. */
export function historyEvents(
  index: ReferenceIndex,
  history: PieceHistory,
  leading: Row | undefined,
): HistoryEvent[] {
  const events: HistoryEvent[] = history.marks.map((mark) => ({
    what: mark.history.what,
    because: { mark: mark.id },
    window: mark.window ?? null,
    changed: [...(mark.history.changes ?? [])],
    from: [],
    source: mark.source ?? null,
    page: mark.page ?? null,
  }));
  const from = (leading?.variant.convertedFrom ?? []).flatMap((id) => {
    const row = index.variants.get(id);
    return row ? [{ variant: id, pattern: row.pattern.id }] : [];
  });
  // the stamp of the conversion itself tells when; what it was made from follows from the variant
  const struck = events.find(
    (e) => 'mark' in e.because && e.what === 'conversion' && leading?.variant.marks?.includes(e.because.mark),
  );
  if (struck) struck.from = from;
  else if (leading && from.length > 0) {
    const claim = leading.variant.claims?.find((c) => c.about === 'window');
    events.push({
      what: 'conversion',
      because: { variant: leading.variant.id },
      window: leading.variant.window ?? null,
      changed: [],
      from,
      source: claim?.source ?? null,
      page: claim?.page ?? null,
    });
  }
  const when = (e: HistoryEvent) => e.window ?? '9999';
  return events.sort((a, b) => (when(a) < when(b) ? -1 : when(a) > when(b) ? 1 : 0));
}
