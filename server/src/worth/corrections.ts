/** What a piece would bring, and where a person knows better than a line of the grid. Corrections end; none is deleted. */
import { ulid } from 'ulid';
import { money, type Money } from '@jutbank/core/money';
import { correctedEstimate } from '@jutbank/core/worth';
import { worthRoutes, type OverrideRecord, type WorthOfPiece } from '@jutbank/contract/worth';
import type { EstimateAnswer } from '@jutbank/contract/market';
import { instant, type Queries } from '../db/index.ts';
import { answer, conflict, invalid, notFound, type Mount } from '../http/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { lockPiece, pieceRecord, type Readers, whyNoEstimate } from '../pieces/index.ts';

export function mountCorrections(mount: Mount, readers: Readers): void {
  const { database } = mount;

  const worthOf = async (id: string): Promise<WorthOfPiece> => {
    const record = await pieceRecord(database, id);
    const worth = await readers.worth(record);
    const overrides = await overridesOf(database, id);
    if (!worth)
      return {
        worth: null,
        pattern: null,
        why: whyNoEstimate(record),
        overrides,
        corrected: null,
      };
    const { answer: estimate, pattern } = worth;
    return {
      worth: estimate,
      pattern,
      why: null,
      overrides,
      corrected: correctedFigure(estimate, inForce(overrides)),
    };
  };

  mount.handle(worthRoutes.pieceWorth, async ({ params }) => answer(await worthOf(params.id)));

  const tellWorth = async ({ id }: { id: string }) => answer(await worthOf(id));

  mount.handlePrepared(
    worthRoutes.addOverride,
    ({ params }) => worthOf(params.id),
    async (tx, { params, body, person }, { worth }) => {
      // a correction and a sale of the same piece stand in line
      await lockPiece(tx, params.id);
      const record = await pieceRecord(tx, params.id);
      if (record.sale) throw conflict('This piece is sold; its record stands as it was.');
      if (!worth?.comparables.some((row) => row.id === body.comparable))
        throw invalid([{ pointer: '/comparable', message: 'this sale does not stand in the grid' }]);
      // one correction of a line: a new one takes the place of the one before
      await tx.run(
        'UPDATE estimate_override SET ended_at = UTC_TIMESTAMP(3) WHERE piece_id = ? AND comparable_id = ? AND line = ? AND ended_at IS NULL',
        [params.id, body.comparable, body.line],
      );
      await tx.run(
        'INSERT INTO estimate_override (id, piece_id, comparable_id, line, percent, reason, person) VALUES (?, ?, ?, ?, ?, ?, ?)',
        [ulid(), params.id, body.comparable, body.line, body.percent, body.reason, person.name],
      );
      await appendLedger(tx, { pieceId: params.id, kind: 'estimate-corrected', person, body });
      return { id: params.id };
    },
    tellWorth,
  );

  mount.handleInTransaction(
    worthRoutes.endOverride,
    async (tx, { params, person }) => {
      const ended = await tx.run(
        'UPDATE estimate_override SET ended_at = UTC_TIMESTAMP(3) WHERE id = ? AND piece_id = ? AND ended_at IS NULL',
        [params.override, params.id],
      );
      if (ended === 0) throw notFound('correction');
      await appendLedger(tx, {
        pieceId: params.id,
        kind: 'estimate-correction-ended',
        person,
        body: { override: params.override },
      });
      return { id: params.id };
    },
    tellWorth,
  );
}

export const inForce = (overrides: readonly OverrideRecord[]): OverrideRecord[] =>
  overrides.filter((o) => o.endedAt === null);

/** The grid's figure with the corrections in force; null where there is none, or nothing is left of the grid. */
export function correctedFigure(
  estimate: EstimateAnswer,
  corrections: readonly OverrideRecord[],
): Money | null {
  if (corrections.length === 0) return null;
  const corrected = correctedEstimate(
    estimate.comparables.map((row) => ({
      id: row.id,
      converted: row.converted === null ? undefined : Number(row.converted.amount),
      weight: row.weight,
      adjustments: row.adjustments,
    })),
    { weight: estimate.rest.weight, adjusted: Number(estimate.rest.adjusted.amount) },
    corrections,
  );
  return corrected === undefined ? null : money(corrected, estimate.estimate.currency);
}

export async function overridesOf(db: Queries, pieceId: string): Promise<OverrideRecord[]> {
  const rows = await db.rows<{
    id: string;
    comparable_id: string;
    line: string;
    percent: string | null;
    reason: string;
    person: string;
    at: string;
    ended_at: string | null;
  }>(
    'SELECT id, comparable_id, line, percent, reason, person, at, ended_at FROM estimate_override WHERE piece_id = ? ORDER BY id DESC LIMIT 200',
    [pieceId],
  );
  return rows.map((row) => ({
    id: row.id,
    comparable: row.comparable_id,
    line: row.line,
    percent: row.percent === null ? null : Number(row.percent),
    reason: row.reason,
    person: row.person,
    at: instant(row.at),
    endedAt: row.ended_at === null ? null : instant(row.ended_at),
  }));
}
