/** A listing in each of the languages the shop writes: its facts, its style, the text by the rules and the one that holds. */
import { writeListing, type ListingFacts, type ListingStyle, type ListingText } from '@jutbank/core/listing';
import { wordsIn, type Language } from '@jutbank/core/words';
import { listingStyleIn, type PaperSettings } from '@jutbank/contract/shop';
import type { Queries, Transaction } from '../db/index.ts';
import { contextOf, factsOf, type Assessment, type PieceRecord } from '../pieces/index.ts';

interface Telling {
  readonly facts: ListingFacts;
  readonly style: ListingStyle;
  /** as the rules write it now */
  readonly written: ListingText;
  /** as it was edited, else as it is written */
  readonly text: ListingText;
}

export async function tellingOf(
  db: Queries,
  record: PieceRecord,
  assessment: Assessment,
  settings: PaperSettings,
): Promise<(language: Language, kept: ListingText | null) => Telling> {
  const beside = await contextOf(db, record.id);
  return (language, kept) => {
    const facts = factsOf(record, assessment, beside, wordsIn(language));
    const style = listingStyleIn(settings, language);
    const written = writeListing(facts, style);
    return { facts, style, written, text: kept ?? written };
  };
}

export const secondText = async (
  db: Queries,
  pieceId: string,
  language: Language,
): Promise<ListingText | null> =>
  (await db.row<{ title: string; body: string }>(
    'SELECT title, body FROM listing_text WHERE piece_id = ? AND language = ?',
    [pieceId, language],
  )) ?? null;

export const keepSecond = (
  tx: Transaction,
  pieceId: string,
  language: Language,
  { title, body }: ListingText,
): Promise<number> =>
  tx.run(
    'INSERT INTO listing_text (piece_id, language, title, body) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE title = VALUES(title), body = VALUES(body)',
    [pieceId, language, title, body],
  );
