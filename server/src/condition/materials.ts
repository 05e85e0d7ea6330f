/** What a piece is made of, as far as it was seen. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import type { PieceRecord } from '../pieces/index.ts';

export interface SeenMaterial {
  readonly part: string;
  /** the feature it is a value of */
  readonly of: string;
  readonly label: string;
  readonly vapour: boolean;
}

export const materialsOf = (index: ReferenceIndex, record: PieceRecord): SeenMaterial[] =>
  record.observations.flatMap((o) => {
    if (!('value' in o)) return [];
    const feature = index.features.get(o.feature);
    const value = feature?.values?.find((v) => v.id === o.value);
    return feature && value
      ? [{ part: feature.part, of: feature.label, label: value.label, vapour: value.vapour === true }]
      : [];
  });
