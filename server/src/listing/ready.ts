/** What must be there before a piece may go up. */
import type { ListingBlock } from '@jutbank/contract/listing';
import { todayIso } from '../clock/index.ts';
import type { PieceRecord } from '../pieces/index.ts';

/** On the marketplace, and not run out. */
export const isUp = ({ listing }: PieceRecord): boolean =>
  listing?.state === 'published' && (listing.expiresOn === null || listing.expiresOn >= todayIso());

export function blocksOf(record: PieceRecord): ListingBlock[] {
  const blocks: ListingBlock[] = [];
  if (!record.attribution)
    blocks.push({ stage: 'bench', text: 'Decide what it is: the wording follows from it.' });
  if (!record.inspected)
    blocks.push({ stage: 'condition', text: 'Finish the inspection: every finding must be told.' });
  if (!record.pricing.ask) blocks.push({ stage: 'worth', text: 'Set a price.' });
  if (record.pictures.length === 0) blocks.push({ stage: 'intake', text: 'Add a picture.' });
  return blocks;
}

/** Letters and figures that a piece of evidence must have to name anything. */
const LEAST_EVIDENCE = 15;

/** Who decides against what was seen names what they rest on: “looks right” puts nothing up. */
export function thinReason(record: PieceRecord, overruled: boolean): string[] {
  const named = (record.attribution?.evidence ?? '').replace(/[^\p{L}\p{N}]/gu, '');
  return overruled && named.length < LEAST_EVIDENCE
    ? ['It was decided against what was seen: name the evidence it rests on, with where it can be looked up.']
    : [];
}
