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
  periodOf,
  type Span,
} from '../dates/index.ts';
import { readDateCode, type DatedWindow } from '../reference/index.ts';
import { scopedWindows, statementSpans } from './datedSigns.ts';
import type { DayHulls, ReferenceIndex } from './compile.ts';
import { changedBy, tellsHistory, type PieceHistory } from './history.ts';
import type {
  Bound,
  Conflict,
  ConflictExplanation,
  DatedClaim,
  Dating,
  Dispute,
  Observation,
  Subject,
} from './observation.ts';
import { DEFAULT_SWAP, STAMP_SWAP, type BenchSettings } from './settings.ts';
import { TANG } from './sign.ts';

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
}

export interface DatingContext {
  /** the maker and pattern whose windows speak, where they are settled */
  readonly maker: string | undefined;
  readonly pattern: string | undefined;
  /** the variants that bound the date */
  readonly left: Int32Array;
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
    const claim = claimOf(index, o, context, settings);
    return claim ? [claim] : [];
  });
  const bounds = boundsOf(index, context);
  const conflicts = meet([...claims, ...bounds], 'lenient').length > 0 ? [] : conflictsOf(claims, bounds);
  const aside = new Set(conflicts[0]?.members ?? []);
  const kept = [...claims.filter((c) => !aside.has(c)), ...bounds];
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
    conflicts: conflicts.map(({ setAside, leaves, explanation }) => ({ setAside, leaves, explanation })),
    disputed: claims.flatMap((c) => (c.dispute ? [c.dispute] : [])),
    claims: claims.map((claim) => barOf(claim, aside.has(claim))),
  };
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
    const periods = read.value.map((r) => periodOf(r.window));
    const statement = {
      source: code.source ?? null,
      page: code.page ?? null,
      strict: joined(periods.flatMap((p) => p.strict)),
      lenient: joined(periods.flatMap((p) => p.lenient)),
    };
    return claimFrom(
      index,
      { code: o.code },
      TANG,
      [statement],
      settings.exchange[STAMP_SWAP],
      settings.misreading[o.certainty ?? 'sure'],
      settings,
    );
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

/** The maker's years and the hull of the variants left: they bound, and cannot be set aside. */
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
  const found: FoundConflict[] = [];
  for (const [, { members }] of sorted) {
    if (members.length === 0 || found.length >= MOST_CONFLICTS) continue;
    if (found.some((f) => f.members.every((m) => members.includes(m)))) continue;
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
