/** Dating by overlap: core and outer bracket, what binds them, disputes and conflicts (formats.md, "Dating, settled"). */
import {
  asDay,
  covers,
  edtfOf,
  hullOf,
  intersectAll,
  joined,
  OPEN_END,
  OPEN_START,
  isoOf,
  periodOf,
  type Span,
} from '../dates/index.ts';
import { otherArrangements, readDateCode, type DatedWindow } from '../reference/index.ts';
import { scopedWindows, statementSpans } from './datedEvidence.ts';
import type { ReferenceIndex } from './compile.ts';
import type { DayHulls, Row } from './compiled.ts';
import { changedBy, tellsHistory, type PieceHistory } from './history.ts';
import type {
  Bound,
  Conflict,
  ConflictExplanation,
  DatedClaim,
  DateOfMaking,
  Dating,
  Dispute,
  MakingClash,
  Observation,
  Subject,
} from './observation.ts';
import { DEFAULT_SWAP, STAMP_SWAP, type BenchSettings } from './settings.ts';
import { TANG } from './observationEvidence.ts';

const ALWAYS: readonly Span[] = [{ from: OPEN_START, to: OPEN_END }];

interface Statement {
  readonly source: string | null;
  readonly page: string | null;
  readonly strict: readonly Span[];
  readonly lenient: readonly Span[];
}

interface ClaimOfDate {
  readonly because: Subject;
  readonly part: string;
  readonly strict: readonly Span[];
  readonly lenient: readonly Span[];
  readonly statements: readonly Statement[];
  readonly dispute: Dispute | undefined;
  /** chances that the part was exchanged, the reading wrong, the source wrong */
  readonly chances: { readonly exchanged: number; readonly misread: number; readonly sourceWrong: number };
  /** price of setting it aside; Infinity for bounds that are not observations */
  readonly price: number;
  /** what a code would say had its signs stood in another arrangement */
  readonly arrangements?: readonly Arrangement[];
}
interface Arrangement {
  readonly reads: Readonly<Record<string, string | number>>;
  readonly strict: readonly Span[];
  readonly lenient: readonly Span[];
}

export interface DatingContext {
  /** the maker and pattern whose windows speak, where they are settled */
  readonly maker: string | undefined;
  readonly pattern: string | undefined;
  /** the variants that bound the date */
  readonly left: Int32Array;
  /** the form that leads or was decided; its own making is the other claim about the piece's date */
  readonly form: Form | undefined;
}
export interface Form {
  readonly row: Row;
  readonly decided: boolean;
}

export type DatedAnswer = Omit<Dating, 'years'>;

export function dateByOverlap(
  index: ReferenceIndex,
  observations: readonly Observation[],
  history: PieceHistory,
  context: DatingContext,
  settings: BenchSettings,
): DatedAnswer {
  const claims = observations.flatMap((o) => {
    // what a re-work changed dates the re-work, not the making
    if ('feature' in o && changedBy(history, o.feature)) return [];
    // the stamps of an imitation are those of what it imitates
    if (context.form?.row.imitation && isStamp(o) && !bears(context.form.row, o)) return [];
    const claim = claimOf(index, o, context, settings);
    return claim ? [claim] : [];
  });
  const bounds = boundsOf(index, context);
  const conflicts = meet([...claims, ...bounds], 'lenient').length > 0 ? [] : conflictsOf(claims, bounds);
  const first = conflicts[0];
  const aside = new Set(first?.members ?? []);
  const kept = [...claims.filter((c) => !aside.has(c)), ...(first?.instead ?? []), ...bounds];
  const strict = meet(kept, 'strict');
  const lenient = meet(kept, 'lenient');
  const coreSpans = strict.length > 0 ? strict : lenient;
  const core = hullOf(coreSpans);
  const outer = strict.length > 0 ? hullOf(lenient) : core;
  const reading = strict.length > 0 ? 'strict' : 'lenient';
  return {
    core: core ? edtfOf(core) : '../..',
    outer: outer ? edtfOf(outer) : '../..',
    floor: core ? bindings(kept, core.from, 'from', reading) : [],
    ceiling: core ? bindings(kept, core.to, 'to', reading) : [],
    conflicts: conflicts.map(({ setAside, leaves, explanation, insteadRead }) => ({
      setAside,
      leaves,
      explanation,
      ...(insteadRead ? { insteadRead } : {}),
    })),
    disputed: claims.flatMap((c) => (c.dispute ? [c.dispute] : [])),
    claims: claims.map((claim) => barOf(claim, aside.has(claim))),
    made: dateOfMaking(index, kept, context.form, observations.length > 0),
  };
}

const isStamp = (o: Observation) => 'mark' in o || 'code' in o;
const bears = (row: Row, o: Observation) => 'mark' in o && (row.variant.marks ?? []).includes(o.mark);

/**
 * One answer for a piece: the bracket of what was seen and the making of its form are two claims about one fact. Where
 * they meet, the piece was made there; where they do not, that is told, and the form's own window stands where the form
 * was decided, else the bracket. What a form records itself is not held against it by its maker's customs.
 */
function dateOfMaking(
  index: ReferenceIndex,
  kept: readonly ClaimOfDate[],
  form: Form | undefined,
  anythingSeen: boolean,
): DateOfMaking | null {
  const own = form && windowOfForm(index, form.row);
  if (!form || !own) {
    const core = hullOf(meet(kept, 'strict')) ?? hullOf(meet(kept, 'lenient'));
    const outer = hullOf(meet(kept, 'lenient')) ?? core;
    return anythingSeen && core && outer && (Number.isFinite(core.from) || Number.isFinite(core.to))
      ? { core: edtfOf(core), outer: edtfOf(outer), basis: 'bracket', clash: null }
      : null;
  }
  const told = { variant: form.row.variant.id, window: edtfOf(hullOf(own.strict) ?? NO_TIME) };
  // where all of it does not meet, what the form records itself is not held against it by its maker's customs
  const outweighed = kept.filter((c) => !recordsItself(form.row, c));
  for (const speaking of [kept, outweighed]) {
    const lenient = meet(speaking, 'lenient').flatMap((s) => intersectAll([s], own.lenient));
    if (lenient.length === 0) continue;
    const strict = meet(speaking, 'strict').flatMap((s) => intersectAll([s], own.strict));
    const core = hullOf(strict.length > 0 ? strict : lenient);
    const outer = hullOf(lenient);
    const alone = speaking.every((c) => !Number.isFinite(c.price));
    return core && outer
      ? { core: edtfOf(core), outer: edtfOf(outer), basis: alone ? 'form' : 'both', clash: null }
      : null;
  }
  const against = outweighed.filter(
    (c) => Number.isFinite(c.price) && own.lenient.every((s) => intersectAll([s], c.lenient).length === 0),
  );
  const bracket = hullOf(meet(kept, 'strict')) ?? hullOf(meet(kept, 'lenient'));
  const clash = {
    ...told,
    bracket: bracket ? edtfOf(bracket) : '../..',
    because: against.map((c) => c.because),
    explanations: explanationsOf(against),
  };
  const leading = form.decided ? hullOf(own.strict) : bracket;
  return leading
    ? { core: edtfOf(leading), outer: edtfOf(leading), basis: form.decided ? 'form' : 'bracket', clash }
    : null;
}

const NO_TIME: Span = { from: OPEN_START, to: OPEN_END };

/** When a form was made, to today at most; undefined where neither it nor its maker is dated. */
function windowOfForm(
  index: ReferenceIndex,
  row: Row,
): { strict: readonly Span[]; lenient: readonly Span[] } | undefined {
  const window = row.variant.window ?? row.maker.active;
  if (window == null) return undefined;
  const period = periodOf(window);
  const now = [{ from: OPEN_START, to: index.lastDay }];
  return { strict: intersectAll(period.strict, now), lenient: intersectAll(period.lenient, now) };
}

/** Whether a dated custom speaks of something the form records for itself just so. */
const recordsItself = (row: Row, claim: ClaimOfDate): boolean =>
  'feature' in claim.because &&
  claim.because.value !== undefined &&
  (row.variant.features?.[claim.because.feature] ?? []).includes(claim.because.value);

/** What would explain that a form's making and the bracket do not meet, the likeliest first. */
function explanationsOf(against: readonly ClaimOfDate[]): MakingClash['explanations'] {
  const most = (of: (c: ClaimOfDate['chances']) => number) =>
    against.reduce((p, c) => Math.max(p, of(c.chances)), 0);
  const found: { explanation: MakingClash['explanations'][number]; chance: number }[] = [
    { explanation: 'replaced-part', chance: most((c) => c.exchanged) },
    { explanation: 'misread', chance: most((c) => c.misread) },
    { explanation: 'source-wrong', chance: most((c) => c.sourceWrong) },
    { explanation: 'wrong-variant', chance: 0.05 },
  ];
  return found
    .filter((f) => f.chance > 0)
    .sort((a, b) => b.chance - a.chance)
    .map((f) => f.explanation);
}

const meet = (claims: readonly ClaimOfDate[], reading: 'strict' | 'lenient'): Span[] =>
  claims.reduce<Span[]>((spans, claim) => intersectAll(spans, claim[reading]), [...ALWAYS]);

function barOf(claim: ClaimOfDate, setAside: boolean): DatedClaim {
  return {
    because: claim.because,
    strict: claim.strict.map(edtfOf),
    lenient: claim.lenient.map(edtfOf),
    sources: claim.statements.flatMap((s) => (s.source === null ? [] : [{ source: s.source, page: s.page }])),
    setAside,
  };
}

/** A stamp struck afterwards says only that the piece was there by then. */
const untilTheEnd = (spans: Pick<Statement, 'strict' | 'lenient'>) => {
  const until = (all: readonly Span[]) => joined(all.map((s) => ({ from: OPEN_START, to: s.to })));
  return { strict: until(spans.strict), lenient: until(spans.lenient) };
};

function claimOf(
  index: ReferenceIndex,
  o: Observation,
  context: DatingContext,
  settings: BenchSettings,
): ClaimOfDate | undefined {
  if ('mark' in o) {
    const mark = index.marks.get(o.mark);
    if (mark?.window == null) return undefined;
    const statement = {
      source: mark.source ?? null,
      page: mark.page ?? null,
      ...(tellsHistory(mark)
        ? untilTheEnd(statementSpans(mark.window, mark.carryOver))
        : statementSpans(mark.window, mark.carryOver)),
    };
    return claimFrom(
      index,
      { mark: o.mark },
      TANG,
      [statement],
      settings.exchange[STAMP_SWAP],
      settings.misreading[o.certainty ?? 'sure'],
      settings,
    );
  }
  if ('code' in o) {
    const code = index.codes.get(o.code);
    if (code?.kind !== 'date' || !('reads' in o)) return undefined;
    const read = readDateCode(code, o.reads);
    if (!read.ok || read.value.length === 0) return undefined;
    const spansOf = (windows: readonly { window: string }[]) => {
      const periods = windows.map((r) => periodOf(r.window));
      return {
        strict: joined(periods.flatMap((p) => p.strict)),
        lenient: joined(periods.flatMap((p) => p.lenient)),
      };
    };
    const statement = { source: code.source ?? null, page: code.page ?? null, ...spansOf(read.value) };
    const claim = claimFrom(
      index,
      { code: o.code },
      TANG,
      [statement],
      settings.exchange[STAMP_SWAP],
      settings.misreading[o.certainty ?? 'sure'],
      settings,
    );
    const arrangements = otherArrangements(code, o.reads).flatMap((reads): Arrangement[] => {
      const other = readDateCode(code, reads);
      return other.ok && other.value.length > 0 ? [{ reads, ...spansOf(other.value) }] : [];
    });
    return { ...claim, arrangements };
  }
  if (!('value' in o)) return undefined;
  const feature = index.features.get(o.feature);
  const windows = (index.windowsByFeature.get(o.feature) ?? []).filter((w) => w.value === o.value);
  const speaking = scopedWindows(windows, context.pattern, context.maker);
  if (!feature || speaking.length === 0) return undefined;
  return claimFrom(
    index,
    { feature: o.feature, value: o.value },
    feature.part,
    statementsBySource(speaking),
    settings.exchange[feature.swap ?? DEFAULT_SWAP],
    settings.misreading[o.certainty ?? 'sure'],
    settings,
  );
}

/** Windows of one source are spells of one statement. */
function statementsBySource(windows: readonly DatedWindow[]): Statement[] {
  const bySource = new Map<string | null, DatedWindow[]>();
  for (const w of windows) {
    const key = w.source ?? null;
    bySource.set(key, [...(bySource.get(key) ?? []), w]);
  }
  return [...bySource].map(([source, spells]) => {
    const spans = spells.map((w) => statementSpans(w.window, w.carryOver));
    return {
      source,
      page: spells.map((w) => w.page).find((p) => p != null) ?? null,
      strict: joined(spans.flatMap((s) => s.strict)),
      lenient: joined(spans.flatMap((s) => s.lenient)),
    };
  });
}

function claimFrom(
  index: ReferenceIndex,
  because: Subject,
  part: string,
  statements: readonly Statement[],
  exchanged: number,
  misread: number,
  settings: BenchSettings,
): ClaimOfDate {
  const reliability = (s: Statement) =>
    index.sources.get(s.source ?? '')?.reliability ?? settings.sourceReliability;
  const best = statements.reduce((a, b) => (reliability(b) > reliability(a) ? b : a));
  const agreed = statements.reduce<Span[]>((spans, s) => intersectAll(spans, s.strict), [...ALWAYS]);
  const strict = agreed.length > 0 ? agreed : [...best.strict];
  const lenient = joined(statements.flatMap((s) => s.lenient));
  const disagree = statements.length > 1 && new Set(statements.map((s) => JSON.stringify(s.strict))).size > 1;
  const anyAllows = hullOf(joined(statements.flatMap((s) => s.strict)));
  const allAllow = hullOf(strict);
  const sourceWrong = statements.reduce((product, s) => product * (1 - reliability(s)), 1);
  return {
    because,
    part,
    strict,
    lenient,
    statements,
    dispute:
      disagree && anyAllows && allAllow
        ? {
            because,
            between: statements.map((s) => s.source ?? 'no source'),
            strict: edtfOf(allAllow),
            lenient: edtfOf(anyAllows),
          }
        : undefined,
    chances: { exchanged, misread, sourceWrong },
    price: -Math.log(1 - (1 - exchanged) * (1 - misread) * (1 - sourceWrong)),
  };
}

const untilToday = (index: ReferenceIndex): Span => ({ from: OPEN_START, to: index.lastDay });

/** Today, the maker's years and the hull of the variants left: they bound, and cannot be set aside. */
function boundsOf(index: ReferenceIndex, context: DatingContext): ClaimOfDate[] {
  const fixed = (because: Subject, strict: readonly Span[], lenient: readonly Span[]): ClaimOfDate => ({
    because,
    part: '',
    strict,
    lenient,
    statements: [],
    dispute: undefined,
    chances: { exchanged: 0, misread: 0, sourceWrong: 0 },
    price: Infinity,
  });
  const out: ClaimOfDate[] = [];
  out.push(fixed({ today: isoOf(index.lastDay) }, [untilToday(index)], [untilToday(index)]));
  const active = index.makers.get(context.maker ?? '')?.active;
  if (active != null && context.maker !== undefined) {
    const period = periodOf(active);
    out.push(fixed({ maker: context.maker }, period.strict, period.lenient));
  }
  const strict = hullOfRows(context.left, index.windowHull.strict);
  const lenient = hullOfRows(context.left, index.windowHull.lenient);
  if (strict && lenient) out.push(fixed({ variants: context.left.length }, [strict], [lenient]));
  return out;
}

/** Undefined where a row is undated, or none is left. */
function hullOfRows(rows: Int32Array, hulls: DayHulls): Span | undefined {
  let from = Infinity;
  let to = -Infinity;
  for (let i = 0; i < rows.length; i++) {
    const r = rows[i] ?? 0;
    const a = hulls.from[r] ?? NaN;
    if (Number.isNaN(a)) return undefined;
    from = Math.min(from, a);
    to = Math.max(to, hulls.to[r] ?? NaN);
  }
  return from <= to ? { from: asDay(from), to: asDay(to) } : undefined;
}

/** Every claim that binds on the day, the hardest to set aside first; bounds after observations. */
function bindings(
  claims: readonly ClaimOfDate[],
  day: number,
  side: 'from' | 'to',
  reading: 'strict' | 'lenient',
): Bound[] {
  if (!Number.isFinite(day)) return [];
  const binding = claims.filter((claim) => claim[reading].some((span) => span[side] === day));
  const strength = (claim: ClaimOfDate) => (Number.isFinite(claim.price) ? claim.price : -1);
  return binding
    .sort(
      (a, b) =>
        strength(b) - strength(a) || JSON.stringify(a.because).localeCompare(JSON.stringify(b.because)),
    )
    .map((claim) => {
      const statement =
        claim.statements.find((s) => s[reading].some((span) => span[side] === day)) ?? claim.statements[0];
      return {
        because: claim.because,
        date: edtfOfEnd(day, side),
        source: statement?.source ?? null,
        page: statement?.page ?? null,
      };
    });
}

const edtfOfEnd = (day: number, side: 'from' | 'to') => {
  const open = side === 'from' ? { from: asDay(day), to: OPEN_END } : { from: OPEN_START, to: asDay(day) };
  const [from = '', to = ''] = edtfOf(open).split('/');
  return side === 'from' ? from : to;
};

interface FoundConflict extends Conflict {
  readonly members: readonly ClaimOfDate[];
  /** the claims as they would be had the signs been read under the other arrangement */
  readonly instead?: readonly ClaimOfDate[];
}
const MOST_CONFLICTS = 5;

/**
 * The cheapest sets of claims to set aside so that the rest agrees: tried at every start of a lenient span.
 * Answers that contain a cheaper one are left out.
 */
function conflictsOf(claims: readonly ClaimOfDate[], bounds: readonly ClaimOfDate[]): FoundConflict[] {
  const room = meet(bounds, 'lenient');
  const days = [
    ...claims.flatMap((c) => c.lenient.map((s) => s.from)),
    ...room.map((s) => s.from),
    ...claims.flatMap((c) => c.lenient.map((s) => s.to)),
  ];
  const tried = new Map<string, { members: ClaimOfDate[]; price: number }>();
  for (const day of days) {
    if (room.length > 0 && !covers(room, day)) continue;
    const members = claims.filter((c) => !covers(c.lenient, day));
    const key = members.map((c) => JSON.stringify(c.because)).join('|');
    if (!tried.has(key)) tried.set(key, { members, price: members.reduce((sum, c) => sum + c.price, 0) });
  }
  const sorted = [...tried].sort(
    ([ka, a], [kb, b]) => a.price - b.price || a.members.length - b.members.length || ka.localeCompare(kb),
  );
  const found: FoundConflict[] = misreadArrangements(claims, bounds);
  for (const [, { members }] of sorted) {
    if (members.length === 0 || found.length >= MOST_CONFLICTS) continue;
    if (found.some((f) => !f.insteadRead && f.members.every((m) => members.includes(m)))) continue;
    const rest = [...claims.filter((c) => !members.includes(c)), ...bounds];
    const strict = meet(rest, 'strict');
    const leaves = hullOf(strict.length > 0 ? strict : meet(rest, 'lenient'));
    found.push({
      members,
      setAside: members.map((m) => m.because),
      leaves: leaves ? edtfOf(leaves) : '../..',
      explanation: explanationOf(members),
    });
  }
  return found;
}

/** Signs read under another arrangement: the commonest misreading, told first where it makes everything agree. */
function misreadArrangements(
  claims: readonly ClaimOfDate[],
  bounds: readonly ClaimOfDate[],
): FoundConflict[] {
  return claims.flatMap((claim) => {
    const rest = [...claims.filter((c) => c !== claim), ...bounds];
    return (claim.arrangements ?? []).flatMap((arrangement): FoundConflict[] => {
      const instead: ClaimOfDate = {
        ...claim,
        strict: arrangement.strict,
        lenient: arrangement.lenient,
        statements: claim.statements.map((s) => ({ ...s, ...arrangement })),
      };
      const all = [...rest, instead];
      const strict = meet(all, 'strict');
      const leaves = hullOf(strict.length > 0 ? strict : meet(all, 'lenient'));
      if (!leaves || !('code' in claim.because)) return [];
      return [
        {
          members: [claim],
          instead: [instead],
          setAside: [claim.because],
          leaves: edtfOf(leaves),
          explanation: 'misread',
          insteadRead: { code: claim.because.code, reads: arrangement.reads },
        },
      ];
    });
  });
}

function explanationOf(members: readonly ClaimOfDate[]): ConflictExplanation {
  const parts = new Set(members.map((m) => m.part));
  if (parts.size >= 3 && meet(members, 'lenient').length > 0) return 'put-together';
  const logs = (of: (c: ClaimOfDate['chances']) => number) =>
    members.reduce((sum, m) => sum + Math.log(Math.max(of(m.chances), 1e-12)), 0);
  const ranked: [ConflictExplanation, number][] = [
    ['replaced-part', logs((c) => c.exchanged)],
    ['misread', logs((c) => c.misread)],
    ['source-wrong', logs((c) => c.sourceWrong)],
  ];
  return ranked.reduce((a, b) => (b[1] > a[1] ? b : a))[0];
}
