/** What of a piece wants a look, in the words of its slip and its row. */
import { hasLeft, type Stage } from '@jutbank/core/pieces';
import type { Readings } from '@jutbank/contract/pieces';
import { instant } from '../db/index.ts';

/** Days after which a listed piece has stood long. */
export const LONG_UNSOLD_DAYS = 120;
const DAY_MS = 86_400_000;

export interface AttentionFacts {
  /** sold or given back: all that is left to do is to take it down elsewhere */
  readonly left: boolean;
  /** channels in which it is offered beside the marketplace */
  readonly stillAt: readonly string[];
  /** while it is up */
  readonly publishedAt: string | null;
  readonly expiresOn: string | null;
  /** kinds of messages that wait for an answer */
  readonly open: readonly ('offer' | 'question')[];
  readonly quarantinedUntil: string | null;
}

/**
 * The facts as columns, of `piece p` and its published listing `l`: the list, the tray and a slip read the same ones.
 * @see attentionFacts
 */
export const ATTENTION_COLUMNS = `l.published_at, l.expires_on,
  (SELECT MIN(q.review_on) FROM quarantine q WHERE q.piece_id = p.id AND q.ended_on IS NULL) AS quarantined,
  (SELECT GROUP_CONCAT(o.name ORDER BY o.since, o.name SEPARATOR '\n') FROM offered_at o WHERE o.piece_id = p.id) AS still_at,
  (SELECT SUM(m.kind = 'offer') FROM market_message m WHERE m.piece_id = p.id AND m.state = 'open') AS offers,
  (SELECT SUM(m.kind = 'question') FROM market_message m WHERE m.piece_id = p.id AND m.state = 'open') AS questions`;
export const PUBLISHED_LISTING = "LEFT JOIN listing l ON l.piece_id = p.id AND l.state = 'published'";

export interface AttentionRow {
  stage: Stage;
  published_at: string | null;
  expires_on: string | null;
  quarantined: string | null;
  offers: number | null;
  questions: number | null;
  still_at: string | null;
}

export const attentionFacts = (row: AttentionRow): AttentionFacts => ({
  left: hasLeft(row.stage),
  stillAt: row.still_at === null ? [] : row.still_at.split('\n'),
  publishedAt: row.published_at === null ? null : instant(row.published_at),
  expiresOn: row.expires_on,
  open: [
    ...(Number(row.offers ?? 0) > 0 ? ['offer' as const] : []),
    ...(Number(row.questions ?? 0) > 0 ? ['question' as const] : []),
  ],
  quarantinedUntil: row.quarantined,
});

/** @param readings as they are known; null where nobody has reckoned them yet */
export function attentionOf(facts: AttentionFacts, readings: Readings | null, today: string): string[] {
  if (facts.left)
    return facts.stillAt.length > 0 ? [`It has left, and is still offered: ${facts.stillAt.join(', ')}`] : [];
  const { publishedAt, expiresOn, open, quarantinedUntil } = facts;
  const said: string[] = [];
  if (publishedAt !== null && expiresOn !== null && expiresOn < today) said.push('Its listing has run out');
  if (publishedAt !== null && Date.parse(today) - Date.parse(publishedAt) > LONG_UNSOLD_DAYS * DAY_MS)
    said.push('Listed for more than four months');
  if (open.length > 0)
    said.push(open.includes('offer') ? 'An offer waits for an answer' : 'A question waits for an answer');
  if (quarantinedUntil !== null)
    said.push(
      quarantinedUntil <= today ? 'Its quarantine is to be reviewed' : 'Kept apart: it gives off vapour',
    );
  if (!readings) return said;
  if (readings.trail.problems > 0) said.push('The paper trail contradicts itself');
  if (readings.when?.conflict) said.push('What was seen cannot all be from one time');
  if (readings.which.tier === 'rejected') said.push('An imitation, by the evidence');
  if (readings.which.tier === 'doubtful') said.push('Its identity is in doubt');
  return said;
}
