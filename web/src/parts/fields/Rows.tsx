/** A list of small things, each in its own row, with adding and taking away. */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';

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
    <fieldset className="rows">
      <legend>{title}</legend>
      {why !== undefined && <p className="why">{why}</p>}
      {items.map((item, i) => (
        <div key={i} className="row" role="group" aria-label={`${title} ${i + 1}`}>
          <div>
            {children(item, (patch) => onChange(items.map((x, k) => (k === i ? { ...x, ...patch } : x))), i)}
          </div>
          <Button
            variant="text"
            aria-label={`Take away ${title.toLowerCase()} ${i + 1}`}
            onClick={() => onChange(items.filter((_, k) => k !== i))}
          >
            ×
          </Button>
        </div>
      ))}
      <Button variant="text" onClick={() => onChange([...items, fresh()])}>
        + {add}
      </Button>
    </fieldset>
  );
}
