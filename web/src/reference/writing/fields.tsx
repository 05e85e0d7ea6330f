/** The fields of authoring: a label, the control, why it matters, and what is wrong with it, all in one row. */
import { createContext, useContext, useId, useState, type ReactNode } from 'react';
import { sentence } from '../../parts/words.ts';
import { parseSpokenDate, periodInWords, periodOf } from '@jutbank/core/dates';
import { parseQuantity, type Dimension } from '@jutbank/core/units';

/** The server's word on a field, by its pointer. */
export const FieldErrors = createContext<(pointer: string) => string | undefined>(() => undefined);

interface Row {
  readonly label: string;
  /** why it matters, in a few words */
  readonly why?: string;
  /** pointer of the field in the thing that is written */
  readonly at: string;
}

export function Field({
  label,
  why,
  at,
  wrong,
  children,
}: Row & { wrong?: string | undefined; children: (id: string, described: string) => ReactNode }) {
  const id = useId();
  const told = useContext(FieldErrors)(at);
  const problem = wrong ?? told;
  return (
    <div className="wfield">
      <label htmlFor={id}>{label}</label>
      <div>
        {children(id, `${id}-why`)}
        <p id={`${id}-why`} className={problem === undefined ? 'why' : 'problem'}>
          {problem ?? why}
        </p>
      </div>
    </div>
  );
}

export function Line({
  value,
  onChange,
  mono = false,
  rows,
  placeholder,
  readOnly = false,
  ...row
}: Row & {
  value: string | null | undefined;
  onChange: (text: string) => void;
  mono?: boolean;
  rows?: number;
  placeholder?: string;
  readOnly?: boolean;
}) {
  return (
    <Field {...row}>
      {(id, described) =>
        rows === undefined ? (
          <input
            id={id}
            aria-describedby={described}
            className={mono ? 'line mono' : 'line'}
            value={value ?? ''}
            placeholder={placeholder}
            readOnly={readOnly}
            onChange={(e) => onChange(e.target.value)}
          />
        ) : (
          <textarea
            id={id}
            aria-describedby={described}
            className={mono ? 'line mono' : 'line'}
            rows={rows}
            value={value ?? ''}
            placeholder={placeholder}
            onChange={(e) => onChange(e.target.value)}
          />
        )
      }
    </Field>
  );
}

/** A whole or decimal number; what is no number stays in the field and is told. */
export function NumberLine({
  value,
  onChange,
  ...row
}: Row & { value: number | null | undefined; onChange: (n: number | undefined) => void }) {
  const [typed, setTyped] = useState(value == null ? '' : String(value));
  const number = Number(typed.replace(',', '.'));
  const wrong = typed.trim() !== '' && Number.isNaN(number) ? `“${typed}” is not a number` : undefined;
  return (
    <Field {...row} wrong={wrong}>
      {(id, described) => (
        <input
          id={id}
          aria-describedby={described}
          className="line num"
          inputMode="decimal"
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value);
            const n = Number(e.target.value.replace(',', '.'));
            onChange(e.target.value.trim() === '' || Number.isNaN(n) ? undefined : n);
          }}
        />
      )}
    </Field>
  );
}

/** A date or period as people say it, echoed as understood. */
export function DateLine({
  value,
  onChange,
  ...row
}: Row & { value: string | null | undefined; onChange: (edtf: string | undefined) => void }) {
  const [typed, setTyped] = useState(value ?? '');
  const parsed = typed.trim() === '' ? undefined : parseSpokenDate(typed);
  const wrong = parsed && !parsed.ok ? parsed.error.message : undefined;
  const why = parsed?.ok ? `Understood as ${periodInWords(periodOf(parsed.value.edtf))}` : row.why;
  return (
    <Field {...row} {...(why === undefined ? {} : { why })} wrong={wrong}>
      {(id, described) => (
        <input
          id={id}
          aria-describedby={described}
          className="line"
          value={typed}
          placeholder="1934 to April 1936, about 1950, from 1951"
          onChange={(e) => {
            setTyped(e.target.value);
            const next = e.target.value.trim() === '' ? undefined : parseSpokenDate(e.target.value);
            // what cannot be understood goes as typed, so that saving is refused instead of dropping it
            onChange(next === undefined ? undefined : next.ok ? next.value.edtf : e.target.value);
          }}
        />
      )}
    </Field>
  );
}

/** A size in any notation, kept in mm, g or degrees. */
export function SizeLine({
  value,
  dimension,
  onChange,
  ...row
}: Row & {
  value: number | null | undefined;
  dimension: Dimension;
  onChange: (n: number | undefined) => void;
}) {
  const [typed, setTyped] = useState(value == null ? '' : String(value));
  const parsed = typed.trim() === '' ? undefined : parseQuantity(typed, dimension);
  const wrong = parsed && !parsed.ok ? parsed.error.message : undefined;
  return (
    <Field {...row} wrong={wrong}>
      {(id, described) => (
        <input
          id={id}
          aria-describedby={described}
          className="line num"
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value);
            const next = e.target.value.trim() === '' ? undefined : parseQuantity(e.target.value, dimension);
            onChange(next?.ok ? next.value.value : undefined);
          }}
        />
      )}
    </Field>
  );
}

export interface Option {
  readonly value: string;
  readonly label: string;
}
export function Select({
  value,
  options,
  none,
  onChange,
  ...row
}: Row & {
  value: string | null | undefined;
  options: readonly Option[];
  /** the words for choosing nothing; absent where something must be chosen */
  none?: string;
  onChange: (value: string | undefined) => void;
}) {
  // what another shop's pack says stays as it is, even if nobody here would have chosen it
  const foreign = value != null && value !== '' && !options.some((o) => o.value === value);
  const offered = foreign ? [...options, { value, label: sentence(value) }] : options;
  return (
    <Field {...row}>
      {(id, described) => (
        <select
          id={id}
          aria-describedby={described}
          className="line"
          value={value ?? ''}
          onChange={(e) => onChange(e.target.value === '' ? undefined : e.target.value)}
        >
          <option value="">{none ?? 'Choose…'}</option>
          {offered.map((o) => (
            <option key={o.value} value={o.value}>
              {o.label}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** Several of a list, as chips that are in or out. */
export function MultiSelect({
  value,
  options,
  onChange,
  ...row
}: Row & {
  value: readonly string[] | null | undefined;
  options: readonly Option[];
  onChange: (value: string[] | undefined) => void;
}) {
  const chosen = new Set(value ?? []);
  return (
    <Field {...row}>
      {(id) => (
        <div id={id} className="chips" role="group" aria-label={row.label} tabIndex={-1}>
          {options.map((o) => (
            <button
              key={o.value}
              type="button"
              className="chip"
              aria-pressed={chosen.has(o.value)}
              onClick={() => {
                const next = options.map((x) => x.value).filter((v) => (v === o.value) !== chosen.has(v));
                onChange(next.length === 0 ? undefined : next);
              }}
            >
              {o.label}
            </button>
          ))}
        </div>
      )}
    </Field>
  );
}

/** Lines of text, one thing to a line. */
export function Lines({
  value,
  onChange,
  ...row
}: Row & {
  value: readonly string[] | null | undefined;
  onChange: (lines: string[] | undefined) => void;
  mono?: boolean;
  rows?: number;
}) {
  const [typed, setTyped] = useState((value ?? []).join('\n'));
  return (
    <Line
      {...row}
      rows={row.rows ?? 3}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        const lines = text.split('\n').map((l) => l.trim());
        while (lines.at(-1) === '') lines.pop();
        onChange(lines.length === 0 ? undefined : lines);
      }}
    />
  );
}

/** A list of small things, each in its own row, with adding and taking away. */
export function Rows<T>({
  title,
  why,
  items,
  fresh,
  add,
  onChange,
  children,
}: {
  title: string;
  why?: string;
  items: readonly T[];
  fresh: () => T;
  add: string;
  onChange: (items: T[]) => void;
  children: (item: T, set: (patch: Partial<T>) => void, index: number) => ReactNode;
}) {
  return (
    <fieldset className="wrows">
      <legend>{title}</legend>
      {why !== undefined && <p className="why">{why}</p>}
      {items.map((item, i) => (
        <div key={i} className="wrow" role="group" aria-label={`${title} ${i + 1}`}>
          <div className="wrowbody">
            {children(item, (patch) => onChange(items.map((x, k) => (k === i ? { ...x, ...patch } : x))), i)}
          </div>
          <button
            type="button"
            className="quiet"
            aria-label={`Take away ${title.toLowerCase()} ${i + 1}`}
            onClick={() => onChange(items.filter((_, k) => k !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <button type="button" className="quiet" onClick={() => onChange([...items, fresh()])}>
        + {add}
      </button>
    </fieldset>
  );
}
