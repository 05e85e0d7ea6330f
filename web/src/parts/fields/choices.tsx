/** One of several, several of several, yes or no. */
import {
  Autocomplete,
  ButtonBase,
  Checkbox,
  FormControlLabel,
  MenuItem,
  OutlinedInput,
  Select as MuiSelect,
} from '@mui/material';
import type { ReactNode, RefObject } from 'react';
import { Roving } from '../Roving.tsx';
import { sentence } from '../words.ts';
import { Field, framing, type FieldProps } from './Field.tsx';

export interface Option<T extends string = string> {
  readonly value: T;
  readonly label: string;
}
/** Options of a vocabulary, in its order. */
export const optionsOf = <const T extends string>(
  values: readonly T[],
  words: (value: T) => string = sentence,
): Option<T>[] => values.map((value) => ({ value, label: words(value) }));

/** A part of a form that must have a value: choosing nothing changes nothing. */
export const chosen = <T extends string, B extends { readonly onChange: (value: T) => void }>(
  bound: B & { readonly value: T },
) => ({
  ...bound,
  onChange: (value: T | null) => {
    if (value !== null) bound.onChange(value);
  },
});

interface SelectProps<T extends string> {
  readonly value: T | null | undefined;
  readonly options: readonly Option<T>[];
  /** the words for choosing nothing; absent where something must be chosen */
  readonly none?: string | undefined;
  readonly onChange: (value: T | null) => void;
}

/** What another shop's pack says stays as it is, even if nobody here would have chosen it. */
function offered<T extends string>({ value, options }: SelectProps<T>): readonly Option<T>[] {
  const foreign = value != null && value !== '' && !options.some((o) => o.value === value);
  return foreign ? [...options, { value, label: sentence(value) }] : options;
}

function Chooser<T extends string>({
  select,
  disabled,
  invalid = false,
  display,
  labelId,
  dense = false,
}: {
  select: SelectProps<T>;
  disabled: boolean;
  invalid?: boolean;
  display: { id?: string; 'aria-label'?: string; 'aria-describedby'?: string };
  labelId?: string;
  dense?: boolean;
}) {
  const { value, none, onChange } = select;
  return (
    <MuiSelect
      fullWidth
      displayEmpty
      {...(labelId === undefined ? {} : { labelId })}
      className={dense ? 'cell' : ''}
      value={value ?? ''}
      error={invalid}
      disabled={disabled}
      SelectDisplayProps={display}
      onChange={(e) => onChange(offered(select).find((o) => o.value === e.target.value)?.value ?? null)}
    >
      {(none !== undefined || value == null || value === '') && (
        <MenuItem value="">
          <span className="soft">{none ?? 'Choose…'}</span>
        </MenuItem>
      )}
      {offered(select).map((o) => (
        <MenuItem key={o.value} value={o.value}>
          {o.label}
        </MenuItem>
      ))}
    </MuiSelect>
  );
}

export function Select<T extends string>(props: FieldProps & SelectProps<T>) {
  return (
    <Field {...framing(props)}>
      {({ id, labelId, describedBy, invalid }) => (
        <Chooser
          select={props}
          disabled={props.disabled ?? false}
          invalid={invalid}
          labelId={labelId}
          display={{ id, ...(describedBy === undefined ? {} : { 'aria-describedby': describedBy }) }}
        />
      )}
    </Field>
  );
}

/** A choice in a cell of a table, named for those who do not see its row. */
export function CellSelect<T extends string>({
  label,
  disabled = false,
  ...select
}: SelectProps<T> & { label: string; disabled?: boolean }) {
  return <Chooser select={select} disabled={disabled} display={{ 'aria-label': label }} dense />;
}

/** Beyond so many one is found by typing. */
const MOST_CHIPS = 16;

/** Several of a list, as chips that are in or out, of a long one found by typing; none chosen is undefined. */
export function MultiSelect<T extends string>({
  value,
  options,
  onChange,
  ...more
}: FieldProps & {
  value: readonly T[] | null | undefined;
  options: readonly Option<T>[];
  onChange: (value: T[] | undefined) => void;
}) {
  const chosen = new Set(value ?? []);
  if (options.length > MOST_CHIPS)
    return (
      <ReferencePicker
        {...more}
        value={value ?? []}
        options={options}
        onChange={(next) => {
          const kept = options.map((o) => o.value).filter((v) => (next as readonly string[]).includes(v));
          onChange(kept.length === 0 ? undefined : kept);
        }}
      />
    );
  return (
    <Field {...framing(more)}>
      {({ id, labelId }) => (
        <Roving id={id} className="chips" role="group" aria-labelledby={labelId} tabIndex={-1}>
          {options.map((o) => (
            <ButtonBase
              key={o.value}
              className="chip"
              aria-pressed={chosen.has(o.value)}
              disabled={more.disabled}
              onClick={() => {
                const next = options.map((x) => x.value).filter((v) => (v === o.value) !== chosen.has(v));
                onChange(next.length === 0 ? undefined : next);
              }}
            >
              {o.label}
            </ButtonBase>
          ))}
        </Roving>
      )}
    </Field>
  );
}

/** Several of a long list, found by typing: makers, patterns, features. */
export function ReferencePicker({
  value,
  options,
  onChange,
  inputRef,
  ...more
}: FieldProps & {
  value: readonly string[];
  options: readonly Option[];
  onChange: (value: string[]) => void;
  inputRef?: RefObject<HTMLInputElement | null>;
}) {
  const words = new Map(options.map((o) => [o.value, o.label]));
  return (
    <Field {...framing(more)}>
      {({ id, describedBy, invalid }) => (
        <Autocomplete
          multiple
          id={id}
          size="small"
          disabled={more.disabled ?? false}
          options={options.map((o) => o.value)}
          value={[...value]}
          getOptionLabel={(option) => words.get(option) ?? option}
          onChange={(_, next) => onChange(next)}
          renderInput={({ slotProps }) => (
            <OutlinedInput
              {...slotProps.input}
              inputProps={{ ...slotProps.htmlInput, 'aria-describedby': describedBy }}
              {...(inputRef === undefined ? {} : { inputRef })}
              fullWidth
              error={invalid}
            />
          )}
        />
      )}
    </Field>
  );
}

/** Yes or no, its words beside the box. */
export function Tick({
  label,
  value,
  onChange,
  disabled = false,
  problem,
}: {
  label: ReactNode;
  value: boolean;
  onChange: (value: boolean) => void;
  disabled?: boolean;
  problem?: string | undefined;
}) {
  return (
    <div className="tick">
      <FormControlLabel
        disabled={disabled}
        control={<Checkbox checked={value} onChange={(e) => onChange(e.target.checked)} />}
        label={label}
      />
      {problem !== undefined && <p className="problem">{problem}</p>}
    </div>
  );
}

/** A box in a cell of a table, named for those who do not see its row. */
export function CellTick({
  label,
  value,
  onChange,
  disabled = false,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
  disabled?: boolean;
}) {
  return (
    <Checkbox
      checked={value}
      disabled={disabled}
      slotProps={{ input: { 'aria-label': label } }}
      onChange={(e) => onChange(e.target.checked)}
    />
  );
}

/** Words of one's own, with suggestions to take while one types. */
export function SuggestInput({
  value,
  suggestions,
  onChange,
  hint,
  ...more
}: FieldProps & {
  value: string;
  suggestions: readonly string[];
  onChange: (text: string) => void;
  hint?: string;
}) {
  return (
    <Field {...framing(more)}>
      {({ id, describedBy, invalid }) => (
        <Autocomplete
          freeSolo
          id={id}
          size="small"
          disabled={more.disabled ?? false}
          options={suggestions}
          inputValue={value}
          onInputChange={(_, text) => onChange(text)}
          renderInput={({ slotProps }) => (
            <OutlinedInput
              {...slotProps.input}
              inputProps={{ ...slotProps.htmlInput, 'aria-describedby': describedBy }}
              placeholder={hint ?? ''}
              fullWidth
              error={invalid}
            />
          )}
        />
      )}
    </Field>
  );
}
