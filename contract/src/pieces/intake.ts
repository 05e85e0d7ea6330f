/** What is written down when a piece is taken in. */
import { z } from 'zod';
import { CONSTRUCTIONS, MADE_AFTER } from '@jutbank/core/reference';
import { edtf, positiveMoney, required, text } from '../http/index.ts';
import { SOURCE_OF_PIECE } from '@jutbank/core/pieces';

export const AS_FOUND = [
  'untouched',
  'preserved-in-grease',
  'filthy',
  'cleaned',
  'polished',
  'sealed',
] as const;

export const intakeBody = z.object({
  title: required(160, 'Give it a working name'),
  construction: z.enum(CONSTRUCTIONS),
  sourceKind: z.enum(SOURCE_OF_PIECE).nullable(),
  sourceName: text(160).default(''),
  sourcePlace: text(160).default(''),
  acquired: edtf.nullable(),
  price: positiveMoney.nullable(),
  sellerStatement: text(4000).default(''),
  cameWith: text(2000).default(''),
  asFound: z.enum(AS_FOUND).nullable(),
  /** what it was bought as, where that is not the original: it is one from here on, whatever the reference lists */
  takenInAs: z.enum(MADE_AFTER).nullable().default(null),
  /** the shop's own words, for its own people only */
  shopNote: text(4000).default(''),
});
export type IntakeBody = z.infer<typeof intakeBody>;
export const emptyIntake: IntakeBody = {
  title: '',
  construction: 'slipjoint',
  sourceKind: null,
  sourceName: '',
  sourcePlace: '',
  acquired: null,
  price: null,
  sellerStatement: '',
  cameWith: '',
  asFound: null,
  takenInAs: null,
  shopNote: '',
};
