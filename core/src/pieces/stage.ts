/** Where a piece stands in the work: the first stage that still wants something. */

export const STAGES = [
  'intake',
  'bench',
  'condition',
  'worth',
  'trail',
  'listing',
  'listed',
  'sold',
  'given-back',
] as const;
export type Stage = (typeof STAGES)[number];

/** Of these the shop has the piece no longer. */
export const LEFT_STAGES = ['sold', 'given-back'] as const satisfies readonly Stage[];
export const hasLeft = (stage: Stage): boolean => LEFT_STAGES.some((left) => left === stage);

export interface PieceProgress {
  readonly hasSource: boolean;
  readonly hasPrice: boolean;
  readonly hasPicture: boolean;
  readonly attributed: boolean;
  readonly inspected: boolean;
  readonly priced: boolean;
  readonly custodyEvents: number;
  readonly published: boolean;
  readonly sold: boolean;
  readonly givenBack: boolean;
}

export function stageOf(p: PieceProgress): Stage {
  if (p.sold) return 'sold';
  if (p.givenBack) return 'given-back';
  if (p.published) return 'listed';
  if (!p.hasSource || !p.hasPrice || !p.hasPicture) return 'intake';
  if (!p.attributed) return 'bench';
  if (!p.inspected) return 'condition';
  if (!p.priced) return 'worth';
  return p.custodyEvents === 0 ? 'trail' : 'listing';
}

/** What of a piece is known when it was just taken in. */
export type TakenIn = Pick<PieceProgress, 'hasSource' | 'hasPrice' | 'hasPicture'>;

/** What a piece at this stage wants next, in words for its slip. */
export function missingNext(stage: Stage, p: TakenIn): string {
  switch (stage) {
    case 'intake': {
      const missing = [
        !p.hasSource && 'where it came from',
        !p.hasPrice && 'its price',
        !p.hasPicture && 'a picture',
      ];
      return `Record ${missing.filter(Boolean).join(', ')}`;
    }
    case 'bench':
      return 'Decide what it is';
    case 'condition':
      return 'Inspect its condition';
    case 'worth':
      return 'Set a price';
    case 'trail':
      return 'Record who had it';
    case 'listing':
      return 'Write the listing';
    case 'listed':
      return 'Waits for a buyer';
    case 'sold':
      return 'Sold';
    case 'given-back':
      return 'Given back';
  }
}

/**
 * The shop's stock numbers, such as `HQ-{0000}`: the zeros give the width.
 * @returns undefined when the scheme has no place for a number
 */
export function stockNumber(scheme: string, n: number): string | undefined {
  const place = /\{(0+)\}/.exec(scheme);
  return place ? scheme.replace(place[0], String(n).padStart(place[1]?.length ?? 1, '0')) : undefined;
}
