import { Field } from './Field.tsx';

/** A labelled choice; the empty value stands for `any`. */
export function Choice<T extends string>({
  label,
  value,
  options,
  words,
  any,
  onChange,
}: {
  label: string;
  value: T | '';
  options: readonly T[];
  words: (value: T) => string;
  any?: string;
  onChange: (value: T | '') => void;
}) {
  return (
    <Field label={label}>
      {(id) => (
        <select id={id} className="line" value={value} onChange={(e) => onChange(e.target.value as T | '')}>
          {any !== undefined && <option value="">{any}</option>}
          {options.map((o) => (
            <option key={o} value={o}>
              {words(o)}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
