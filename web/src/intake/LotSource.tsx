/** What a lot is called, where it came from and when: every piece that is taken into it begins with that. */
import type { LotBody } from '@jutbank/contract/intake';
import { SOURCE_OF_PIECE } from '@jutbank/core/pieces';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { DateInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import type { Bound } from '../parts/fields/useContractForm.ts';

export type Source = Pick<LotBody, 'sourceKind' | 'sourceName' | 'acquired'>;
export const NO_SOURCE: Source = { sourceKind: null, sourceName: '', acquired: null };

type Fields = Source & Pick<LotBody, 'name'>;
export function LotSource(bound: { readonly [Name in keyof Fields]: Bound<Fields[Name]> }) {
  return (
    <>
      <TextInput label="Name of the lot" {...bound.name} />
      <Select
        label="Where from"
        none="Not recorded"
        options={optionsOf(SOURCE_OF_PIECE)}
        {...bound.sourceKind}
      />
      <TextInput label="From whom" {...bound.sourceName} />
      <DateInput label="When" why="as you would say it: April 2026" {...bound.acquired} />
    </>
  );
}
