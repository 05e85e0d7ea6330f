/** Decisions about money: what to pay, what to ask, offers, the fair. */
import { ulid } from 'ulid';
import { money, type Money } from '@jutbank/core/money';
import { breakEven, costOf, mostToPay, netOf, type Channel, type Target } from '@jutbank/core/sale';
import { Decimal } from 'decimal.js';
import {
  askCurve,
  basesOfValue,
  estimateWorth,
  judgeOffer,
  learnHazard,
  mixtureQuantile,
  worthOfKnowing,
  type Estimate,
  type EstimateSubject,
  type OfferJudgement,
  type Standing,
  type VenueKind,
} from '@jutbank/core/value';
import {
  CARE,
  decisionRoutes,
  fairNote,
  USUAL_SETTINGS,
  type Care,
  type FairAnswer,
  type FairNoteRecord,
  type FairQuestion,
  type MoneyOfPiece,
  type OfferRecord,
  type WorthSettings,
} from '@jutbank/contract/sale';
import { emptyIntake } from '@jutbank/contract/intake';
import { DUPLICATE_KEY, errorNumber, type Queries } from '../db/index.ts';
import { answer, conflict, HttpProblem, invalid, type Mount } from '../http/index.ts';
import { ownPrice, pieceRecord, takeIn, type PieceRecord, type Readers } from '../intake/index.ts';
import { appendLedger } from '../provenance/index.ts';
import { shopOf } from '../shop/index.ts';
import { subjectAsked, todayIso, VENUE_OF_SHOP, type MarketOnDay, type Markets } from '../value/index.ts';

/** Where pieces change hands between those who deal in them. */
const TRADE: VenueKind = 'private';
const WEEKS_PER_MONTH = 52 / 12;

export async function worthSettingsOf(db: Queries): Promise<{ settings: WorthSettings; version: number }> {
  const row = await db.row<{ version: number; body: WorthSettings }>(
    'SELECT version, body FROM worth_settings WHERE id = 1',
  );
  return row
    ? { settings: row.body, version: Number(row.version) }
    : { settings: USUAL_SETTINGS, version: 0 };
}
const channelOf = (settings: WorthSettings): { id: string; name: string; channel: Channel } => {
  const found = settings.channels.find((c) => c.id === settings.usualChannel) ?? settings.channels[0];
  return found ?? { id: 'none', name: 'No fees', channel: {} };
};

export function mountDecisions(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;

  mount.reads(decisionRoutes.settings, async () => {
    const found = await worthSettingsOf(database);
    return answer(found, { etag: `"v${found.version}"` });
  });
  mount.writes(decisionRoutes.putSettings, async (tx, { body, ifMatch }) => {
    if (!body.channels.some((c) => c.id === body.usualChannel))
      throw invalid([{ pointer: '/usualChannel', message: 'this is none of the channels' }]);
    const { version } = await worthSettingsOf(tx);
    if (ifMatch === undefined) throw new HttpProblem(428, 'Send If-Match with the version you have seen.');
    if (ifMatch !== version) throw new HttpProblem(412, 'Somebody changed these settings meanwhile.');
    await tx.run(
      'INSERT INTO worth_settings (id, version, body) VALUES (1, ?, ?) ON DUPLICATE KEY UPDATE version = VALUES(version), body = VALUES(body)',
      [version + 1, JSON.stringify(body)],
    );
    return answer({ settings: body, version: version + 1 }, { etag: `"v${version + 1}"` });
  });

  mount.reads(decisionRoutes.judgeFair, async ({ body }) => {
    const on = await markets.on(todayIso());
    return answer(await judgeFair(on, (await worthSettingsOf(database)).settings, body));
  });

  mount.writes(decisionRoutes.addFairNote, async (tx, { body, person }) => {
    const id = noteId(body.key, body.notedAt);
    const known = await fairNoteById(tx, id);
    if (known) return answer(known);
    let pieceId: string | null = null;
    if (body.decision === 'bought')
      pieceId = await takeIn(
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
    return answer({ id, note: body, person: person.name, pieceId });
  });

  mount.reads(decisionRoutes.fairNotes, async () =>
    answer({
      items: (
        await database.rows<FairNoteRow>(
          'SELECT id, body, person, piece_id FROM fair_note ORDER BY noted_at DESC, id DESC LIMIT 100',
        )
      ).map(noteOf),
    }),
  );

  /** Everything that prices a stored piece, in the base currency. */
  const pricesOf = async (record: PieceRecord) => {
    const question = await readers.question(record);
    if (!question) return undefined;
    const on = await markets.on(todayIso());
    const subject = subjectAsked(question.subject);
    const evidence = await on.evidence(subject);
    const at = (venue: VenueKind) => estimateWorth(on.market, evidence, subject, venue, on.day);
    const { settings } = await worthSettingsOf(database);
    return { on, settings, market: at('online'), retail: at(VENUE_OF_SHOP), trade: at(TRADE) };
  };
  type Prices = NonNullable<Awaited<ReturnType<typeof pricesOf>>>;
  const netIn =
    (base: string, channel: Channel) =>
    (price: number): number =>
      Number(netOf(base, channel, money(price, base).amount).net);
  const patienceOf = async (prices: Prices) => {
    const hazard = learnHazard(await standingsOf(database, prices.on));
    const holding = Number(prices.settings.holdingPerMonth) / WEEKS_PER_MONTH;
    const net = netIn(prices.on.base, channelOf(prices.settings).channel);
    return { hazard, net, ...askCurve(prices.retail.estimate, hazard, net, holding) };
  };

  mount.reads(decisionRoutes.money, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    const prices = await pricesOf(record);
    if (!prices) return answer({ money: null, why: 'Nothing says yet which pattern it is.' });
    const { on, settings, market, retail, trade } = prices;
    const { base } = on;
    const amount = (x: number) => money(x, base);
    const channel = channelOf(settings);
    const patience = await patienceOf(prices);
    const inBase = (m: Money | null): string | undefined => {
      const rate = m && on.rates(m.currency, on.day);
      return m && rate !== undefined && rate !== null
        ? money(new Decimal(m.amount).div(rate), base).amount
        : undefined;
    };
    const [ask, cost] = [inBase(record.pricing.ask), inBase(record.intake.price)];
    const enough = cost === undefined ? undefined : breakEven(base, channel.channel, cost);
    const ends: MoneyOfPiece = {
      channel: channel.name,
      bases: basesOfValue(market, retail, trade, patience.best.ratio).map((b) => ({
        ...b,
        amount: amount(b.amount),
        assumptions: [...b.assumptions],
      })),
      most: ceiling(base, settings, retail, settings.care),
      care: settings.care,
      asOf: on.asOf,
      net: ask === undefined ? null : { currency: base, ...netOf(base, channel.channel, ask) },
      breakEven: enough
        ? { ask: { amount: enough.ask, currency: base }, net: { amount: enough.net, currency: base } }
        : null,
      patience: {
        hazard: patience.hazard,
        points: [...patience.points],
        best: patience.best,
        currency: base,
      },
      knowing:
        retail.byVariant.length < 2 || cost === undefined
          ? null
          : amount(
              worthOfKnowing(
                retail.byVariant.map((v) => ({
                  probability: v.probability,
                  gain: patience.net(v.estimate) - Number(cost),
                })),
              ),
            ),
      offers: await offersOf(database, record.id),
    };
    return answer({ money: ends, why: null });
  });

  const judged = async (
    record: PieceRecord,
    offer: Money,
  ): Promise<{ base: string; judgement: OfferJudgement }> => {
    const prices = await pricesOf(record);
    if (!prices)
      throw conflict('Nothing says yet which pattern it is: there is no estimate to hold the offer to.');
    const { on } = prices;
    const inBase = (m: Money, pointer: string) => {
      const rate = on.rates(m.currency, on.day);
      if (rate === undefined)
        throw invalid([{ pointer, message: `no exchange rate for ${m.currency} is known` }]);
      return Number(m.amount) / rate;
    };
    const patience = await patienceOf(prices);
    const { ask, floor } = record.pricing;
    return {
      base: on.base,
      judgement: judgeOffer(
        inBase(offer, '/amount/currency'),
        ask ? inBase(ask, '/ask') : patience.best.price,
        patience.best,
        patience.net,
        floor ? inBase(floor, '/floor') : undefined,
      ),
    };
  };

  mount.reads(decisionRoutes.judgeOffer, async ({ params, body }) => {
    const record = await pieceRecord(database, params.id);
    const { base, judgement } = await judged(record, body.amount);
    return answer({
      advice: judgement.advice,
      net: money(judgement.net, base),
      waiting: money(judgement.waiting, base),
      counter: money(Math.round(judgement.counter), base),
      why: WHY[judgement.advice],
    });
  });

  mount.writes(decisionRoutes.logOffer, async (tx, { params, body, person }) => {
    const record = await pieceRecord(tx, params.id);
    if (record.sale) throw conflict('This piece is sold; its record stands as it was.');
    if (body.decision === 'countered' && body.counter == null)
      throw invalid([{ pointer: '/counter', message: 'what is the counter-offer?' }]);
    const { judgement } = await judged(record, body.amount);
    const id = ulid();
    await tx.run(
      'INSERT INTO offer (id, piece_id, person, bidder, amount, currency, judgement, decision, counter, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        params.id,
        person.name,
        body.bidder,
        body.amount.amount,
        body.amount.currency,
        JSON.stringify(judgement),
        body.decision,
        body.counter?.amount ?? null,
        body.note,
      ],
    );
    await appendLedger(tx, { pieceId: params.id, kind: `offer-${body.decision}`, person, body });
    if (body.decision === 'refused')
      await ownPrice(tx, readers, await readers.library.index(tx), record, body.amount, {
        kind: 'offer',
        shop: (await shopOf(tx)).name,
        online: false,
      });
    const kept = (await offersOf(tx, params.id)).find((o) => o.id === id);
    if (!kept) throw new Error('the offer was not stored');
    return answer(kept);
  });
}

const WHY = {
  take: 'What is left of it is at least what waiting for the best ask is worth, holding and money counted.',
  counter: 'It is less than waiting is worth, but near enough to talk about.',
  wait: 'It is far below what waiting is worth.',
} as const;

function ceiling(base: string, settings: WorthSettings, estimate: Estimate, care: Care) {
  const price = money(Math.exp(mixtureQuantile(estimate.byVariant, CARE[care])), base).amount;
  return mostToPay(base, settings.buying, channelOf(settings).channel, price, settings.target as Target);
}

async function judgeFair(on: MarketOnDay, settings: WorthSettings, q: FairQuestion): Promise<FairAnswer> {
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
  const estimate = estimateWorth(on.market, await on.evidence(subject), subject, VENUE_OF_SHOP, on.day);
  const care = q.care ?? settings.care;
  const { base } = on;
  const most = ceiling(base, settings, estimate, care);
  const rate = q.asked ? on.rates(q.asked.currency, on.day) : undefined;
  if (q.asked && rate === undefined)
    throw invalid([
      { pointer: '/asked/currency', message: `no exchange rate for ${q.asked.currency} is known` },
    ]);
  const asked = q.asked && rate !== undefined ? new Decimal(q.asked.amount).div(rate) : undefined;
  const cost = asked && costOf(base, settings.buying, asked.toDecimalPlaces(2)).cost;
  const left = cost && new Decimal(most.net).minus(cost);
  const amount = (x: number) => money(x, base);
  return {
    estimate: amount(estimate.estimate),
    low: amount(estimate.low),
    high: amount(estimate.high),
    thin: estimate.thin,
    notes: [...estimate.notes],
    care,
    price: amount(Math.exp(mixtureQuantile(estimate.byVariant, CARE[care]))),
    most,
    atAsked:
      cost && left
        ? {
            cost: money(cost, base),
            left: money(left, base),
            marginPct: new Decimal(most.net).gt(0) ? left.div(most.net).times(100).toNumber() : null,
          }
        : null,
    verdict:
      asked === undefined || !asked
        ? 'no-price'
        : most.bid === null
          ? 'leave'
          : asked.lte(most.bid)
            ? 'pay'
            : asked.lte(new Decimal(most.bid).times(HAGGLE_UP_TO))
              ? 'haggle'
              : 'leave',
  };
}

/** A price so far above the ceiling may still be talked down. */
const HAGGLE_UP_TO = 1.35;

interface FairNoteRow {
  id: string;
  body: unknown;
  person: string;
  piece_id: string | null;
}
const noteOf = (row: FairNoteRow): FairNoteRecord => ({
  id: row.id,
  note: fairNote.parse(row.body),
  person: row.person,
  pieceId: row.piece_id,
});
async function fairNoteById(db: Queries, id: string): Promise<FairNoteRecord | undefined> {
  const row = await db.row<FairNoteRow>('SELECT id, body, person, piece_id FROM fair_note WHERE id = ?', [
    id,
  ]);
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

interface OfferRow {
  id: string;
  bidder: string;
  amount: string;
  currency: string;
  judgement: OfferJudgement;
  decision: OfferRecord['decision'];
  counter: string | null;
  note: string;
  person: string;
  at: string;
}
async function offersOf(db: Queries, pieceId: string): Promise<OfferRecord[]> {
  const rows = await db.rows<OfferRow>(
    'SELECT id, bidder, amount, currency, judgement, decision, counter, note, person, at FROM offer WHERE piece_id = ? ORDER BY id DESC LIMIT 50',
    [pieceId],
  );
  return rows.map((row) => ({
    id: row.id,
    bidder: row.bidder,
    amount: money(row.amount, row.currency),
    decision: row.decision,
    counter: row.counter === null ? null : money(row.counter, row.currency),
    advice: row.judgement.advice,
    note: row.note,
    person: row.person,
    at: `${row.at.replace(' ', 'T')}Z`,
  }));
}

/** The shop's own days on the market: what was asked against what it brought, or stands at. */
async function standingsOf(db: Queries, on: MarketOnDay): Promise<Standing[]> {
  const rows = await db.rows<{
    ask: string | null;
    ask_currency: string | null;
    price: string | null;
    currency: string | null;
    weeks: number;
    body: { worth: { estimate: Money } | null } | null;
  }>(
    `SELECT p.ask, p.ask_currency, s.price, s.currency,
       TIMESTAMPDIFF(HOUR, l.published_at, COALESCE(s.sold_at, UTC_TIMESTAMP(3))) / 168 AS weeks, r.body
     FROM listing l JOIN piece p ON p.id = l.piece_id LEFT JOIN sale s ON s.piece_id = p.id
     LEFT JOIN piece_reading r ON r.piece_id = p.id
     WHERE l.published_at IS NOT NULL LIMIT 2000`,
  );
  return rows.flatMap((row): Standing[] => {
    const rate = row.ask_currency === null ? undefined : on.rates(row.ask_currency, on.day);
    const estimate = Number(row.body?.worth?.estimate.amount ?? 0);
    if (row.ask === null || rate === undefined || !(estimate > 0)) return [];
    const ratio = Math.max(0.3, Math.min(3, Number(row.ask) / rate / estimate));
    return [{ ratio, weeks: Math.max(0.1, Number(row.weeks)), sold: row.price !== null }];
  });
}
