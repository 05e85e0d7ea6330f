/** A control under its label, with what is wrong beneath it; a row of these makes a short form. */
import { useId, type ReactNode } from 'react';

export function Field({
  label,
  problem,
  grow = false,
  children,
}: {
  label: string;
  problem?: string | undefined;
  /** takes what is left of the row */
  grow?: boolean;
  children: (id: string) => ReactNode;
}) {
  const id = useId();
  return (
    <span className={grow ? 'field grow' : 'field'}>
      <label htmlFor={id}>{label}</label>
      {children(id)}
      {problem !== undefined && <span className="problem">{problem}</span>}
    </span>
  );
}
