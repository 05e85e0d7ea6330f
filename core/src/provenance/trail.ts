/** Who had it when, on what evidence, and how much of the piece's life that covers (engines.md, Provenance). */
import { ENGLISH, type Words } from '../words/index.ts';
import {
  EVIDENCE_STRENGTH,
  type Body,
  type CustodyEvent,
  type EvidenceKind,
  type Trail,
  type TrailProblem,
  type TrailYear,
} from './custody.ts';
import { asDay, calendarOf, dayOf, edtfInWords, periodOf, type Span } from '../dates/index.ts';

export const evidenceInWords = (kind: EvidenceKind, words = ENGLISH): string => words.say(`evidence.${kind}`);

/** What else a trail is held against. */
export interface TrailContext {
  /** a gap longer than this is told */
  readonly gapYears?: number;
  /** when it came to the shop, EDTF */
  readonly acquired?: string | null;
  readonly bodies?: readonly Body[];
  /** what documents say that does not hold, in words */
  readonly contradicted?: readonly string[];
  /** what is told is told in these; in English where nothing is said */
  readonly words?: Words;
}

const LONGEST_GAP_YEARS = 15;
/**
 * @param made when the piece was made (the core bracket), if known
 * @param today day since 1970, given by the caller: core has no clock
 */
export function trailOf(
  events: readonly CustodyEvent[],
  made: Span | undefined,
  today: number,
  context: TrailContext = {},
): Trail {
  const spans = events.map((e) => spanOf(e, today));
  const thisYear = calendarOf(asDay(today)).year;
  const known = [made?.from, ...spans.map((s) => s.from)].filter(
    (d): d is Span['from'] => d !== undefined && Number.isFinite(d),
  );
  const firstDay =
    made && Number.isFinite(made.from)
      ? made.from
      : known.length > 0
        ? asDay(Math.min(...known))
        : dayOf(thisYear);
  const firstYear = Math.min(thisYear, calendarOf(firstDay).year);
  const strip: TrailYear[] = [];
  for (let year = firstYear; year <= thisYear; year++) {
    const [from, to] = [dayOf(year), dayOf(year, 12, 31)];
    const strengths = events.map((e, i) => {
      const span = spans[i];
      return span && span.from <= to && span.to >= from ? EVIDENCE_STRENGTH[e.evidence] : 0;
    });
    strip.push({ year, strength: Math.max(0, ...strengths) });
  }
  const share = events.length === 0 ? 0 : strip.reduce((sum, y) => sum + y.strength, 0) / strip.length;
  return {
    share,
    word: wordFor(share, events.length),
    strip,
    problems: problemsIn(events, spans, made, context),
  };
}

function wordFor(share: number, events: number): Trail['word'] {
  if (events === 0) return 'none';
  if (share >= 0.85) return 'complete';
  if (share >= 0.55) return 'good';
  return share >= 0.25 ? 'partial' : 'thin';
}

function spanOf(event: CustodyEvent, today: number): Span {
  const period = periodOf(event.period);
  return { from: period.start.earliest, to: asDay(Math.min(period.end.latest, today)) };
}

function problemsIn(
  events: readonly CustodyEvent[],
  spans: readonly Span[],
  made: Span | undefined,
  context: TrailContext,
): TrailProblem[] {
  const { gapYears = LONGEST_GAP_YEARS, words = ENGLISH } = context;
  const problems: TrailProblem[] = [
    ...afterTheShop(events, context.acquired, words),
    ...places(events, words),
    ...namesOfTheDay(events, context.bodies ?? [], words),
    ...(context.contradicted ?? []).map((detail) => ({ kind: 'document' as const, detail, events: [] })),
  ];
  events.forEach((event, i) => {
    const period = periodOf(event.period);
    if (made && Number.isFinite(made.from) && period.start.latest < made.from)
      problems.push({
        kind: 'before-it-was-made',
        detail: words.say('trail.early', {
          holder: event.holder,
          period: edtfInWords(event.period, words),
        }),
        events: [i],
      });
  });
  const order = events.map((_, i) => i).sort((a, b) => (spans[a]?.from ?? 0) - (spans[b]?.from ?? 0));
  const periods = events.map((e) => periodOf(e.period));
  /** of all before, whoever had it longest */
  let last: number | undefined;
  for (const [k, j] of order.entries()) {
    const [after, b] = [events[j], periods[j]];
    if (!after || !b) continue;
    // not only with the one just before: a long possession may hold several others
    for (const i of order.slice(0, k)) {
      const [before, a] = [events[i], periods[i]];
      if (before && a && b.start.latest < a.end.earliest)
        problems.push({
          kind: 'overlap',
          detail: words.say('trail.both', { one: before.holder, other: after.holder }),
          events: [i, j],
        });
    }
    const [before, a] = last === undefined ? [] : [events[last], periods[last]];
    const years = a ? (b.start.earliest - a.end.latest) / 365.25 : 0;
    if (before && last !== undefined && years > gapYears)
      problems.push({
        kind: 'gap',
        detail: words.say('trail.gap', {
          years: Math.round(years),
          one: before.holder,
          other: after.holder,
        }),
        events: [last, j],
      });
    if (!a || b.end.latest > a.end.latest) last = j;
  }
  return problems;
}

/** The shop has it since a day: nobody else can have begun to have it after that. */
function afterTheShop(
  events: readonly CustodyEvent[],
  acquired: string | null | undefined,
  words: Words,
): TrailProblem[] {
  if (acquired == null) return [];
  const since = periodOf(acquired).end.latest;
  return events.flatMap((event, i): TrailProblem[] =>
    periodOf(event.period).start.earliest > since
      ? [
          {
            kind: 'sold-before-bought',
            detail: words.say('trail.afterShop', {
              holder: event.holder,
              period: edtfInWords(event.period, words),
            }),
            events: [i],
          },
        ]
      : [],
  );
}

/** One holder at one time is told to have been in two places. */
function places(events: readonly CustodyEvent[], words: Words): TrailProblem[] {
  return events.flatMap((one, i) =>
    events.slice(i + 1).flatMap((other, k): TrailProblem[] => {
      if (sameWords(one.holder) !== sameWords(other.holder) || !one.place || !other.place) return [];
      const [a, b] = [periodOf(one.period), periodOf(other.period)];
      const together = a.start.latest < b.end.earliest && b.start.latest < a.end.earliest;
      return together && sameWords(one.place) !== sameWords(other.place)
        ? [
            {
              kind: 'place',
              detail: words.say('trail.places', { holder: one.holder, one: one.place, other: other.place }),
              events: [i, i + 1 + k],
            },
          ]
        : [];
    }),
  );
}

const sameWords = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');
const covers = (period: string, other: string): boolean => {
  const [a, b] = [periodOf(period), periodOf(other)];
  return a.start.earliest <= b.end.latest && b.start.earliest <= a.end.latest;
};

/** Bodies are called by the name of the day, and hold nothing before they were. */
function namesOfTheDay(
  events: readonly CustodyEvent[],
  bodies: readonly Body[],
  words: Words,
): TrailProblem[] {
  return events.flatMap((event, i): TrailProblem[] => {
    const body = bodies.find((b) => b.names.some((n) => sameWords(n.name) === sameWords(event.holder)));
    if (!body) return [];
    const then = body.names.filter((n) => covers(n.period, event.period));
    if (then.some((n) => sameWords(n.name) === sameWords(event.holder))) return [];
    const known = body.names.map((n) => `${n.name}, ${edtfInWords(n.period, words)}`).join('; ');
    return then[0]
      ? [
          {
            kind: 'name-of-the-day',
            detail: words.say('trail.called', {
              period: edtfInWords(event.period, words),
              holder: event.holder,
              name: then[0].name,
            }),
            events: [i],
          },
        ]
      : [
          {
            kind: 'body-not-yet',
            detail: words.say('trail.notYet', {
              holder: event.holder,
              period: edtfInWords(event.period, words),
              known,
            }),
            events: [i],
          },
        ];
  });
}

/**
 * Owners in order; a semicolon where one passed it directly to the next, a full stop where the link is not known;
 * private persons as "private collection, town".
 */
export function trailText(events: readonly CustodyEvent[], words = ENGLISH): string {
  const order = [...events].sort(
    (a, b) => periodOf(a.period).start.earliest - periodOf(b.period).start.earliest,
  );
  return order
    .map((e, i) => {
      const who = e.private
        ? [words.say('trail.private'), e.place].filter(Boolean).join(', ')
        : [e.holder, e.place].filter(Boolean).join(', ');
      const text = `${i === 0 || !linked(order[i - 1], e) ? who.charAt(0).toUpperCase() + who.slice(1) : who}, ${edtfInWords(e.period, words)} (${evidenceInWords(e.evidence, words)})`;
      const next = order[i + 1];
      return text + (next && linked(e, next) ? '; ' : '. ');
    })
    .join('')
    .trim();
}

function linked(before: CustodyEvent | undefined, after: CustodyEvent): boolean {
  if (!before) return false;
  const [a, b] = [periodOf(before.period), periodOf(after.period)];
  return a.end.latest + 366 >= b.start.earliest && a.end.latest <= b.start.latest + 366;
}
