/** The fields of intake, used for a new piece and on the sheet. */
import { SOURCE_OF_PIECE } from '@jutbank/core/pieces';
import { AS_FOUND, type IntakeBody } from '@jutbank/contract/pieces';
import { CONSTRUCTIONS, MADE_AFTER } from '@jutbank/core/reference';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { DateInput, MoneyInput } from '../parts/fields/figures.tsx';
import { FieldErrors } from '../parts/fields/Field.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';

interface Props {
  readonly value: IntakeBody;
  readonly currency: string;
  readonly disabled?: boolean;
  /** the name takes the focus: nothing else is to be done here */
  readonly autoFocus?: boolean;
  /** the server's word on a field */
  readonly problemAt: (pointer: string) => string | undefined;
  readonly onChange: (next: IntakeBody) => void;
}

export function IntakeForm({
  value,
  currency,
  disabled = false,
  autoFocus = false,
  problemAt,
  onChange,
}: Props) {
  const set = <K extends keyof IntakeBody>(key: K, next: IntakeBody[K]) =>
    onChange({ ...value, [key]: next });
  const text = (
    key: 'title' | 'sourceName' | 'sourcePlace' | 'sellerStatement' | 'cameWith' | 'shopNote',
    label: string,
    more: { rows?: number; required?: boolean; autoFocus?: boolean } = {},
  ) => (
    <TextInput
      label={label}
      at={`/${key}`}
      value={value[key]}
      disabled={disabled}
      onChange={(words) => set(key, words)}
      {...more}
    />
  );
  return (
    <FieldErrors value={problemAt}>
      <div className="fields">
        {text('title', 'Working name', { required: true, autoFocus })}
        <div className="across">
          <Select
            label="Construction"
            at="/construction"
            value={value.construction}
            disabled={disabled}
            options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c] ?? c)}
            onChange={(c) => c !== null && set('construction', c)}
          />
          <Select
            label="State it came in"
            at="/asFound"
            value={value.asFound}
            disabled={disabled}
            none="Not recorded"
            options={optionsOf(AS_FOUND, sentence)}
            onChange={(asFound) => set('asFound', asFound)}
          />
          <Select
            label="Bought as"
            at="/takenInAs"
            why="a replica or copy stays one through listing and sale"
            value={value.takenInAs}
            disabled={disabled}
            none="The original, as far as anybody said"
            options={optionsOf(MADE_AFTER)}
            onChange={(takenInAs) => set('takenInAs', takenInAs)}
          />
        </div>
        <div className="across">
          <Select
            label="Where from"
            at="/sourceKind"
            value={value.sourceKind}
            disabled={disabled}
            none="Not recorded"
            options={optionsOf(SOURCE_OF_PIECE, sentence)}
            onChange={(sourceKind) => set('sourceKind', sourceKind)}
          />
          {text('sourceName', 'From whom')}
          {text('sourcePlace', 'Place')}
        </div>
        <div className="across">
          <DateInput
            label="When"
            at="/acquired"
            why="As you would say it: about 1935, April 2026"
            value={value.acquired}
            disabled={disabled}
            // what was not understood is told beneath it and kept on the screen only
            onChange={(acquired, understood) => understood && set('acquired', acquired)}
          />
          <MoneyInput
            label="Price paid"
            at="/price"
            value={value.price ?? null}
            currency={currency}
            disabled={disabled}
            onChange={(price, understood) => understood && set('price', price)}
          />
        </div>
        {text('sellerStatement', 'What the seller said (kept as hearsay)', { rows: 2 })}
        {text('cameWith', 'What came with it', { rows: 1 })}
        {text('shopNote', 'Notes of the shop (on no paper, for nobody outside)', { rows: 2 })}
      </div>
    </FieldErrors>
  );
}
