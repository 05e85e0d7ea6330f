/** A piece as stored, gathered from its tables for many pieces at once. */
import type { Observation } from '@jutbank/core/bench';
import type { Finding, Inspection, Pin } from '@jutbank/core/condition';
import { moneyOrNull } from '@jutbank/core/money';
import type { Body, CustodyEvent, DocumentClaim, DocumentKind } from '@jutbank/core/provenance';
import type { Construction } from '@jutbank/core/reference';
import type { Stage } from '@jutbank/core/pieces';
import type {
  NarrowingBody,
  StoredAttribution,
  QuotedScale,
  IntakeBody,
  PictureRecord,
  PricingBody,
  ListingRecord,
  MarketMessage,
  WaitingErrand,
  TakenPostage,
  PieceSheet,
} from '@jutbank/contract/pieces';
import type { TreatmentRecord } from '@jutbank/contract/condition';
import { instant, type Queries } from '../db/index.ts';
import { paperSettingsOf } from '../shop/index.ts';

/** Readings as they were kept, with the basis they were computed on. */
export interface KeptReadings {
  readonly id: string;
  readonly version: number;
  readonly reading: { readonly basis: string; readonly body: unknown } | null;
}

export interface PieceRecord extends KeptReadings {
  readonly stockNumber: string;
  readonly stage: Stage;
  readonly createdAt: string;
  readonly place: string;
  readonly intake: IntakeBody;
  readonly pictures: readonly PictureRecord[];
  readonly observations: readonly Observation[];
  readonly attribution: StoredAttribution | null;
  /** makers and patterns that a person at the bench knows */
  readonly narrowing: NarrowingBody | null;
  readonly findings: readonly Finding[];
  readonly completeness: Record<string, string | null | undefined>;
  readonly inspected: boolean;
  /** the school it is quoted in, where somebody chose another than usual */
  readonly quoted: QuotedScale | null;
  readonly inspection: Inspection | null;
  readonly treatments: readonly TreatmentRecord[];
  /** the day on which a piece that is kept apart is to be looked at again */
  readonly quarantinedUntil: string | null;
  readonly custody: readonly CustodyEvent[];
  readonly pricing: PricingBody;
  readonly listing: ListingRecord | null;
  /** where it is offered beside the marketplace */
  readonly offeredAt: PieceSheet['offeredAt'];
  /** what a carrier asked for it, where that was taken */
  readonly postage: TakenPostage | null;
  readonly sale: {
    readonly id: string;
    readonly invoiceNumber: string;
    readonly certificateCode: string;
    /** a day */
    readonly soldOn: string;
  } | null;
  /** what documents say of it */
  readonly claims: readonly {
    readonly title: string;
    readonly kind: DocumentKind;
    readonly dated: string | null;
    readonly claim: DocumentClaim;
  }[];
  readonly trailSettings: { readonly gapYears: number; readonly bodies: readonly Body[] };
  /** sales of it that came back, newest first */
  readonly returnedSales: PieceSheet['returnedSales'];
  /** whom it is kept for */
  readonly reservation: PieceSheet['reservation'];
  /** pieces that came with it, in the order they were taken in */
  readonly companions: PieceSheet['companions'];
  /** it went back to whoever it came from */
  readonly givenBack: PieceSheet['givenBack'];
  /** whose it is, where it is not the shop's own */
  readonly consignment: PieceSheet['consignment'];
}

interface PieceRow {
  id: string;
  stock_number: string;
  version: number;
  stage: Stage;
  title: string;
  construction: Construction;
  source_kind: IntakeBody['sourceKind'];
  source_name: string;
  source_place: string;
  acquired: string | null;
  price: string | null;
  price_currency: string | null;
  seller_statement: string;
  came_with: string;
  as_found: IntakeBody['asFound'];
  taken_in_as: IntakeBody['takenInAs'];
  shop_note: string;
  completeness: Record<string, string | null>;
  inspected: number;
  quoted: QuotedScale | null;
  inspection: Inspection | null;
  attribution: StoredAttribution | null;
  narrowing: NarrowingBody | null;
  ask: string | null;
  ask_currency: string | null;
  floor_price: string | null;
  floor_currency: string | null;
  pricing_note: string;
  created_at: string;
  place: string;
}

interface GivenBackRow {
  given_on: string;
  to_whom: string;
  because: string;
  refund: string | null;
  currency: string | null;
}
const givenBackOf = (row: GivenBackRow | undefined): PieceSheet['givenBack'] =>
  row
    ? {
        on: row.given_on,
        ownerName: row.to_whom,
        because: row.because,
        refundedCost: moneyOrNull(row.refund, row.currency),
      }
    : null;

/** Pieces in the order asked for; unknown ids are left out. */
export async function loadPieces(db: Queries, ids: readonly string[]): Promise<PieceRecord[]> {
  if (ids.length === 0) return [];
  const marks = ids.map(() => '?').join(',');
  const all = <T extends object>(sql: string) =>
    db.rows<T & { piece_id: string }>(sql.replace('(?)', `(${marks})`), ids);
  const pieces = await db.rows<PieceRow>(`SELECT * FROM piece WHERE id IN (${marks})`, ids);
  const pictures = await all<PictureRecord>(
    'SELECT id, piece_id, hash, caption, width, height, frame, mm_per_pixel AS mmPerPixel, COALESCE(shown_hash, hash) AS shown FROM picture WHERE piece_id IN (?) AND removed = 0 ORDER BY position, id',
  );
  const observations = await all<{ body: Observation }>(
    'SELECT piece_id, body FROM observation WHERE piece_id IN (?) ORDER BY piece_id, position',
  );
  const findings = await all<
    Omit<Finding, 'measure' | 'count' | 'byMaker'> & {
      measure: string | null;
      times: number | null;
      by_maker: number;
      pin: Pin | null;
    }
  >(
    'SELECT piece_id, part, defect, severity, measure, times, side, by_maker, note, pin FROM finding WHERE piece_id IN (?) ORDER BY piece_id, position',
  );
  const custody = await all<Omit<CustodyEvent, 'private'> & { private: number }>(
    'SELECT piece_id, holder, private, place, period, how, evidence, note FROM custody_event WHERE piece_id IN (?) ORDER BY piece_id, position',
  );
  const listings = await all<{
    state: ListingRecord['state'] | null;
    title: string;
    body: string;
    published_at: string | null;
    marketplace_ref: string | null;
    expires_on: string | null;
    asked_on: string | null;
    quotes: TakenPostage['quotes'] | null;
  }>(
    'SELECT p.id AS piece_id, l.state, l.title, l.body, l.published_at, l.marketplace_ref, l.expires_on, o.asked_on, o.quotes FROM piece p LEFT JOIN listing l ON l.piece_id = p.id LEFT JOIN piece_postage o ON o.piece_id = p.id WHERE p.id IN (?)',
  );
  const messages = await all<{
    id: string;
    kind: MarketMessage['kind'];
    sender: string;
    words: string;
    amount: string | null;
    currency: string | null;
    state: MarketMessage['state'];
    answer: string | null;
    received_at: string;
  }>(
    'SELECT piece_id, id, kind, sender, words, amount, currency, state, answer, received_at FROM market_message WHERE piece_id IN (?) ORDER BY received_at, id',
  );
  const errands = await all<{
    kind: WaitingErrand['kind'];
    state: 'waiting' | 'refused';
    problem: string | null;
    created_at: string;
  }>(
    "SELECT piece_id, kind, state, problem, created_at FROM outbox WHERE state <> 'told' AND piece_id IN (?) ORDER BY id",
  );
  const sales = await all<{
    id: string;
    invoice_number: string;
    certificate_code: string;
    sold_on: string;
    returned_on: string | null;
  }>(
    'SELECT piece_id, id, invoice_number, certificate_code, DATE(sold_at) AS sold_on, returned_on FROM sale WHERE piece_id IN (?) ORDER BY id DESC',
  );
  const claims = await all<{ title: string; kind: DocumentKind; dated: string | null; body: DocumentClaim }>(
    'SELECT c.piece_id, d.title, d.kind, d.dated, c.body FROM document_claim c JOIN document d ON d.id = c.document_id WHERE c.piece_id IN (?) ORDER BY c.document_id, c.position',
  );
  const trailSettings = {
    gapYears: (await paperSettingsOf(db)).settings.gapYears,
    bodies: await db.rows<Body>('SELECT names FROM body_names ORDER BY id'),
  };
  const reservations = await all<ReservationRow>('SELECT * FROM reservation WHERE piece_id IN (?)');
  const offered = await all<{ channel_id: string; name: string; since: string }>(
    'SELECT piece_id, channel_id, name, since FROM offered_at WHERE piece_id IN (?) ORDER BY since, name',
  );
  const companions = await db.rows<{
    piece_id: string;
    id: string;
    stock_number: string;
    title: string;
    stage: Stage;
  }>(
    `SELECT c.of AS piece_id, p.id, p.stock_number, p.title, p.stage FROM (
       SELECT piece_id AS of, with_id AS other FROM companion WHERE piece_id IN (${marks})
       UNION ALL SELECT with_id, piece_id FROM companion WHERE with_id IN (${marks})
     ) c JOIN piece p ON p.id = c.other ORDER BY p.id`,
    [...ids, ...ids],
  );
  const givenBack = await all<GivenBackRow>('SELECT * FROM given_back WHERE piece_id IN (?)');
  const consignments = await all<ConsignmentRow>(
    'SELECT g.*, c.name AS owner FROM consignment g JOIN contact c ON c.id = g.contact_id WHERE g.piece_id IN (?)',
  );
  const readings = await all<{ basis: string; body: unknown }>(
    'SELECT piece_id, basis, body FROM piece_reading WHERE piece_id IN (?)',
  );
  const treatments = await all<TreatmentRow>(
    'SELECT * FROM treatment WHERE piece_id IN (?) ORDER BY done_on, id',
  );
  const quarantines = await all<{ review_on: string }>(
    'SELECT piece_id, review_on FROM quarantine WHERE ended_on IS NULL AND piece_id IN (?) ORDER BY review_on',
  );
  const byPiece = new Map(pieces.map((p) => [p.id, p]));
  const of = <T extends { piece_id: string }>(rows: readonly T[], id: string) =>
    rows.filter((row) => row.piece_id === id);
  return ids.flatMap((id): PieceRecord[] => {
    const row = byPiece.get(id);
    if (!row) return [];
    const listing = of(listings, id)[0];
    const sale = of(sales, id).find((s) => s.returned_on === null);
    const reading = of(readings, id)[0];
    return [
      {
        id,
        stockNumber: row.stock_number,
        version: Number(row.version),
        stage: row.stage,
        createdAt: instant(row.created_at),
        place: row.place,
        intake: intakeOf(row),
        pictures: of(pictures, id).map(({ piece_id: _, ...picture }) => picture),
        observations: of(observations, id).map((o) => o.body),
        attribution: row.attribution,
        narrowing: row.narrowing,
        findings: of(findings, id).map(({ piece_id: _, times, measure, by_maker, ...f }) => ({
          ...f,
          ...(by_maker ? { byMaker: true } : {}),
          measure: measure === null ? null : Number(measure),
          count: times,
        })),
        completeness: row.completeness,
        inspected: Boolean(row.inspected),
        quoted: row.quoted,
        inspection: row.inspection,
        treatments: of(treatments, id).map(treatmentOf),
        quarantinedUntil: of(quarantines, id)[0]?.review_on ?? null,
        custody: of(custody, id).map(({ piece_id: _, ...event }) => ({
          ...event,
          private: Boolean(event.private),
        })),
        pricing: {
          ask: moneyOrNull(row.ask, row.ask_currency),
          floor: moneyOrNull(row.floor_price, row.floor_currency),
          note: row.pricing_note,
        },
        postage:
          listing?.asked_on != null && listing.quotes !== null
            ? { askedOn: listing.asked_on, quotes: listing.quotes }
            : null,
        listing:
          listing?.state != null
            ? {
                state: listing.state,
                title: listing.title,
                body: listing.body,
                publishedAt: listing.published_at === null ? null : instant(listing.published_at),
                expiresOn: listing.expires_on,
                marketplaceRef: listing.marketplace_ref,
                messages: of(messages, id).map((m) => ({
                  id: m.id,
                  kind: m.kind,
                  from: m.sender,
                  text: m.words,
                  amount: moneyOrNull(m.amount, m.currency),
                  state: m.state,
                  answer: m.answer,
                  at: instant(m.received_at),
                })),
                waiting: of(errands, id).map((e) => ({
                  kind: e.kind,
                  since: instant(e.created_at),
                  problem: e.problem,
                  refused: e.state === 'refused',
                })),
              }
            : null,
        sale: sale
          ? {
              id: sale.id,
              invoiceNumber: sale.invoice_number,
              certificateCode: sale.certificate_code,
              soldOn: sale.sold_on,
            }
          : null,
        claims: of(claims, id).map((c) => ({
          title: c.title,
          kind: c.kind,
          dated: c.dated,
          claim: c.body,
        })),
        trailSettings,
        returnedSales: of(sales, id).flatMap((s) =>
          s.returned_on === null
            ? []
            : [{ id: s.id, invoiceNumber: s.invoice_number, returnedOn: s.returned_on }],
        ),
        offeredAt: of(offered, id).map(({ channel_id, name, since }) => ({
          channel: channel_id,
          name,
          since,
        })),
        companions: of(companions, id).map((c) => ({
          id: c.id,
          stockNumber: c.stock_number,
          title: c.title,
          stage: c.stage,
        })),
        givenBack: givenBackOf(of(givenBack, id)[0]),
        reservation: of(reservations, id).map(reservationOf)[0] ?? null,
        consignment: of(consignments, id).map(consignmentOf)[0] ?? null,
        reading: reading ? { basis: reading.basis, body: reading.body } : null,
      },
    ];
  });
}

interface ReservationRow {
  name: string;
  contact_id: string | null;
  until_day: string;
  deposit: string | null;
  currency: string | null;
  way: string;
  paid_on: string | null;
  note: string;
}
const reservationOf = (row: ReservationRow): PieceSheet['reservation'] => ({
  reservedFor: row.name,
  contact: row.contact_id,
  until: row.until_day,
  deposit: moneyOrNull(row.deposit, row.currency),
  way: row.way,
  paidOn: row.paid_on,
  reservationNote: row.note,
});

interface ConsignmentRow {
  contact_id: string;
  owner: string;
  agreed_on: string;
  until_day: string | null;
  terms: NonNullable<PieceSheet['consignment']>['terms'];
  note: string;
}
const consignmentOf = (row: ConsignmentRow): PieceSheet['consignment'] => ({
  contact: row.contact_id,
  ownerName: row.owner,
  agreedOn: row.agreed_on,
  until: row.until_day,
  terms: row.terms,
  note: row.note,
});

interface TreatmentRow {
  id: string;
  piece_id: string;
  kind: TreatmentRecord['kind'];
  title: string;
  product: string;
  grit: string;
  done_on: string;
  done_by: string;
  reason: string;
  reversible: number;
  cost: string | null;
  currency: string | null;
  removed: Finding[];
  added: Finding[];
  pictures: TreatmentRecord['pictures'];
}
const treatmentOf = (row: TreatmentRow): TreatmentRecord => ({
  id: row.id,
  kind: row.kind,
  title: row.title,
  product: row.product,
  grit: row.grit,
  doneOn: row.done_on,
  doneBy: row.done_by,
  reason: row.reason,
  reversible: Boolean(row.reversible),
  cost: moneyOrNull(row.cost, row.currency),
  removed: row.removed,
  added: row.added,
  pictures: row.pictures,
});

function intakeOf(row: PieceRow): IntakeBody {
  return {
    title: row.title,
    construction: row.construction,
    sourceKind: row.source_kind,
    sourceName: row.source_name,
    sourcePlace: row.source_place,
    acquired: row.acquired,
    price: moneyOrNull(row.price, row.price_currency),
    sellerStatement: row.seller_statement,
    cameWith: row.came_with,
    asFound: row.as_found,
    takenInAs: row.taken_in_as,
    shopNote: row.shop_note,
  };
}
