/** An appraisal reckoned again: from what was known then, and from what is known now, cause by cause. */
import { subtractMoney, type Money } from '@jutbank/core/money';
import { CAUSES, type Cause } from '@jutbank/core/worth';
import { VALUE_ENGINE_VERSION } from '@jutbank/core/market';
import type { AppraisalRecord, Recomputed } from '@jutbank/contract/worth';
import { revisions, type Database, type Queries } from '../db/index.ts';
import { pieceRecord, subjectOf, type Readers } from '../pieces/index.ts';
import { canonical } from '../ledger/index.ts';
import { middlesOf, settingsInUse, type Markets } from '../market/index.ts';
import { figureIn } from './evidence.ts';
import { ratesBetween, salesBetween } from './queries.ts';

/**
 * The recorded question from what was known then; then each of what is known now in place of what was, one after the
 * other. What the figure moves by at a step is that cause's, so the steps add up to the whole difference.
 */
export async function recomputed(
  rooms: { database: Database; readers: Readers; markets: Markets },
  record: AppraisalRecord,
  pieceId: string,
): Promise<Recomputed> {
  const { database, readers } = rooms;
  const was = record.revisions;
  const now = await revisions(database);
  const piece = await pieceRecord(database, pieceId);
  const subjectNow =
    subjectOf(piece, await readers.assess(piece), record.figure.currency)?.subject ?? record.question.subject;
  const { middles } = record.engine;
  const settingsNow = await settingsInUse(database);
  const { houseStretch = 1, houseHold = settingsNow.houseHold, ...rest } = record.engine.settings;
  const settings = { ...rest, houseStretch, houseHold };
  const middlesNow = middlesOf(await readers.rules.inUse());
  const { question } = record;
  const figure = (
    comparables: number,
    rates: number,
    reference: string | undefined,
    engine: typeof settings | undefined,
    asked = question,
  ) =>
    figureIn(
      rooms,
      asked,
      record.point,
      { comparables, rates, reference, middles: engine ? middles : middlesNow },
      engine,
    );
  const then = await figure(was.comparables, was.rates, was.referencePrint, settings);
  const steps: Money[] = [];
  // what is the same then and now moves nothing and need not be reckoned
  const step = async (same: boolean, figure: () => Promise<Money>) =>
    steps.push(same ? (steps.at(-1) ?? then) : await figure());
  await step(was.comparables === now.comparables, () =>
    figure(now.comparables, was.rates, was.referencePrint, settings),
  );
  await step(was.rates === now.rates, () => figure(now.comparables, now.rates, was.referencePrint, settings));
  await step(was.reference === now.reference, () => figure(now.comparables, now.rates, undefined, settings));
  await step(
    record.engine.version === VALUE_ENGINE_VERSION &&
      canonical([settings, middles]) === canonical([settingsNow, middlesNow]),
    () => figure(now.comparables, now.rates, undefined, undefined),
  );
  await step(canonical(subjectNow) === canonical(question.subject), () =>
    figure(now.comparables, now.rates, undefined, undefined, { ...question, subject: subjectNow }),
  );
  const told = await causesTold(database, record, now, subjectNow, {
    grades: canonical(middles) === canonical(middlesNow),
    ranges: settings.houseStretch === settingsNow.houseStretch,
  });
  return {
    recorded: record.figure,
    then,
    agrees: then.amount === record.figure.amount,
    now: steps.at(-1) ?? then,
    changes: CAUSES.map((cause, i) => ({
      cause,
      by: subtractMoney(steps[i] ?? then, (i === 0 ? then : steps[i - 1]) ?? then),
      told: told[cause],
    })),
  };
}

async function causesTold(
  db: Queries,
  record: AppraisalRecord,
  now: Awaited<ReturnType<typeof revisions>>,
  subject: AppraisalRecord['question']['subject'],
  same: { readonly grades: boolean; readonly ranges: boolean },
): Promise<Record<Cause, string>> {
  const was = record.revisions;
  const sales = await salesBetween(db, was.comparables, now.comparables, record.effectiveDate);
  const rates = await ratesBetween(db, was.rates, now.rates);
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
  return {
    sales:
      sales.came + sales.went === 0
        ? 'the same sales'
        : `${count(sales.came, 'sale', 'sales')} came in, ${count(sales.went, 'was', 'were')} set aside`,
    rates: rates === 0 ? 'the same rates' : `${count(rates, 'rate was', 'rates were')} entered or replaced`,
    reference:
      was.reference === now.reference
        ? 'the same reference'
        : `${count(now.reference - was.reference, 'change', 'changes')} of the reference`,
    engine:
      record.engine.version === VALUE_ENGINE_VERSION
        ? `the same engine, ${VALUE_ENGINE_VERSION}${same.grades ? '' : '; the scales of grading were changed'}${same.ranges ? '' : '; ranges go by more of the house’s own sales'}`
        : `${record.engine.version} then, ${VALUE_ENGINE_VERSION} now`,
    piece:
      canonical(subject) === canonical(record.question.subject)
        ? 'the piece as it was described'
        : 'the piece is described otherwise now: what it is, its condition or what comes with it',
  };
}
