/** At the fair: the ceiling for what lies on the table, and what was decided there. */
import { Decimal } from 'decimal.js';
import { minorDigits, money } from '@jutbank/core/money';
import { costOf, leftOf } from '@jutbank/core/worth';
import type { EstimateSubject } from '@jutbank/core/market';
import {
  fairNote,
  fairRoutes,
  type FairAnswer,
  type FairNoteRecord,
  type FairQuestion,
} from '@jutbank/contract/fair';
import type { PricingSettings } from '@jutbank/contract/shop';
import { emptyIntake } from '@jutbank/contract/pieces';
import { DUPLICATE_KEY, errorNumber, type Queries } from '../db/index.ts';
import { answer, conflict, invalid, notFound, type Mount } from '../http/index.ts';
import { addPicture, createPiece, uploadedPicture, type PictureStore } from '../pieces/index.ts';
import { usualChannel, pricingSettingsOf } from '../shop/index.ts';
import { todayIso } from '../clock/index.ts';
import {
  VENUE_OF_SHOP,
  type MarketOnDay,
  type Markets,
  ceiling,
  estimateIn,
  inBase,
} from '../market/index.ts';

export function mountFair(mount: Mount, markets: Markets, pictures: PictureStore): void {
  const { database } = mount;

  mount.handle(fairRoutes.judgeFair, async ({ body }) => {
    const on = await markets.on(todayIso());
    return answer(await judgeFair(on, (await pricingSettingsOf(database)).settings, body));
  });

  mount.handleInTransaction(fairRoutes.addFairNote, async (tx, { body, person }) => {
    const id = noteId(body.key, body.notedAt);
    const known = await fairNoteById(tx, id);
    if (known) return answer(known);
    let pieceId: string | null = null;
    if (body.decision === 'bought')
      pieceId = await createPiece(
        tx,
        {
          ...emptyIntake,
          title: body.title,
          construction: body.construction,
          sourceKind: 'fair',
          acquired: body.notedAt.slice(0, 10),
          price: body.paid ?? null,
          sellerStatement: body.note,
        },
        person,
      );
    try {
      await tx.run('INSERT INTO fair_note (id, noted_at, body, person, piece_id) VALUES (?, ?, ?, ?, ?)', [
        id,
        body.notedAt.replace('T', ' ').replace('Z', '').slice(0, 23),
        JSON.stringify(body),
        person.name,
        pieceId,
      ]);
    } catch (error) {
      if (errorNumber(error) === DUPLICATE_KEY) throw conflict('This note is just being kept.');
      throw error;
    }
    return answer({ id, note: body, person: person.name, pieceId, picture: null });
  });

  mount.handlePrepared(
    fairRoutes.addFairPicture,
    async ({ params, request, response }) => {
      const uploaded = await uploadedPicture(request, response);
      if (!(await fairNoteById(database, params.id))) throw notFound('note');
      return { stored: await pictures.keep(uploaded), print: uploaded.print };
    },
    async (tx, { params, person }, { stored }) => {
      const first = await tx.run('UPDATE fair_note SET picture = ? WHERE id = ? AND picture IS NULL', [
        stored.hash,
        params.id,
      ]);
      const note = await fairNoteById(tx, params.id);
      if (!note) throw notFound('note');
      // sent again after a lost answer: it is there already
      if (first > 0 && note.pieceId !== null)
        await addPicture(tx, note.pieceId, stored, 'At the fair', person);
      return answer(note);
    },
  );

  mount.handle(fairRoutes.fairNotes, async () =>
    answer({
      items: (
        await database.rows<FairNoteRow>(
          'SELECT id, body, person, piece_id, picture FROM fair_note ORDER BY noted_at DESC, id DESC LIMIT 100',
        )
      ).map(noteOf),
    }),
  );
}

async function judgeFair(on: MarketOnDay, settings: PricingSettings, q: FairQuestion): Promise<FairAnswer> {
  const { reference } = on.market;
  if (!reference.patterns.has(q.pattern))
    throw invalid([{ pointer: '/pattern', message: `there is no pattern “${q.pattern}”` }]);
  if (q.variant != null && reference.variants.get(q.variant)?.pattern !== q.pattern)
    throw invalid([{ pointer: '/variant', message: `“${q.variant}” is no variant of this pattern` }]);
  const possible = [...reference.variants.values()].filter(
    (v) => v.pattern === q.pattern && v.kind !== 'counterfeit' && v.kind !== 'reproduction',
  );
  const subject: EstimateSubject = {
    pattern: q.pattern,
    // without a variant it might be any of the pattern's honest ones
    variants:
      q.variant == null
        ? possible.map((v) => ({ variant: v.id, probability: 1 / possible.length }))
        : [{ variant: q.variant, probability: 1 }],
    conditionIndex: q.conditionIndex ?? undefined,
    box: q.box ?? undefined,
    papers: q.papers ?? undefined,
    sheath: q.sheath ?? undefined,
    alterations: q.alterations,
  };
  const estimate = await estimateIn(on, subject, VENUE_OF_SHOP);
  const care = q.care ?? settings.care;
  const { base } = on;
  const { price, most } = ceiling(base, settings, estimate, care);
  const asked = inBase(on, q.asked);
  if (q.asked && asked === undefined)
    throw invalid([
      { pointer: '/asked/currency', message: `no exchange rate for ${q.asked.currency} is known` },
    ]);
  const amount = (x: number) => money(x, base);
  return {
    estimate: amount(estimate.estimate),
    low: amount(estimate.low),
    high: amount(estimate.high),
    thin: estimate.thin,
    supported: estimate.supported,
    notes: [...estimate.notes],
    care,
    price: money(price, base),
    most,
    atAsked: asked === undefined ? null : boughtAt(base, settings, price, new Decimal(asked)),
    verdict: asked === undefined ? 'no-price' : verdictOn(new Decimal(asked), most.bid),
  };
}

/** What is left where it is bought at a price and sold at the one that is counted on. */
function boughtAt(
  base: string,
  settings: PricingSettings,
  price: string,
  bid: Decimal,
): FairAnswer['atAsked'] {
  const { premium, cost } = costOf(base, settings.buying, bid);
  const { channel } = usualChannel(settings);
  const paid = bid.plus(premium).toFixed(minorDigits(base));
  const net = new Decimal(leftOf(base, channel, price, settings.tax, paid).left);
  const left = net.minus(cost);
  return {
    cost: money(cost, base),
    left: money(left, base),
    marginPct: net.gt(0) ? left.div(net).times(100).toNumber() : null,
  };
}

/** A price so far above the ceiling may still be talked down. */
const HAGGLE_UP_TO = 1.35;
function verdictOn(asked: Decimal, ceiling: string | null): FairAnswer['verdict'] {
  if (ceiling === null) return 'leave';
  if (asked.lte(ceiling)) return 'pay';
  return asked.lte(new Decimal(ceiling).times(HAGGLE_UP_TO)) ? 'haggle' : 'leave';
}

interface FairNoteRow {
  id: string;
  body: unknown;
  person: string;
  piece_id: string | null;
  picture: string | null;
}
const noteOf = (row: FairNoteRow): FairNoteRecord => ({
  id: row.id,
  note: fairNote.parse(row.body),
  person: row.person,
  pieceId: row.piece_id,
  picture: row.picture,
});
async function fairNoteById(db: Queries, id: string): Promise<FairNoteRecord | undefined> {
  const row = await db.row<FairNoteRow>(
    'SELECT id, body, person, piece_id, picture FROM fair_note WHERE id = ?',
    [id],
  );
  return row && noteOf(row);
}

const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** The same note has the same id, however often the phone sends it. */
function noteId(key: string, notedAt: string): string {
  const bits = BigInt(`0x${key.replaceAll('-', '')}`);
  let tail = '';
  for (let i = 0n; i < 16n; i++) tail += SIGNS[Number((bits >> (i * 5n)) & 31n)] ?? '0';
  let time = BigInt(Date.parse(notedAt));
  let head = '';
  for (let i = 0; i < 10; i++) {
    head = (SIGNS[Number(time & 31n)] ?? '0') + head;
    time >>= 5n;
  }
  return head + tail;
}
