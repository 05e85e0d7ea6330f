/** What every field of ours has around its control: its label, why it matters, and what is wrong with it. */
import { createContext, use, useId, type ReactNode } from 'react';
import './fields.css';

/** The server's word on a field, by its pointer into what is written. */
export const FieldErrors = createContext<(pointer: string) => string | undefined>(() => undefined);

export interface FieldProps {
  readonly label: string;
  /** why it matters, or how to say it, in a few words */
  readonly why?: string | undefined;
  /** what is wrong with it; it takes the place of `why` */
  readonly problem?: string | undefined;
  /** its pointer in the thing that is written, by which the server's word finds it */
  readonly at?: string | undefined;
  readonly disabled?: boolean | undefined;
}

/** Ids that tie a control to its label and to the words beneath it. */
export interface Tied {
  readonly id: string;
  readonly labelId: string;
  readonly describedBy: string | undefined;
  readonly invalid: boolean;
}

/** Only what every field has: the rest is its control's. */
export const framing = ({ label, why, problem, at, disabled }: FieldProps): FieldProps => ({
  label,
  why,
  problem,
  at,
  disabled,
});

export function Field({
  label,
  why,
  problem,
  at,
  children,
}: FieldProps & { children: (tied: Tied) => ReactNode }) {
  const id = useId();
  const told = use(FieldErrors)(at ?? '');
  const wrong = problem ?? (at === undefined ? undefined : told);
  const beneath = wrong ?? why;
  return (
    <div className="field">
      <label htmlFor={id} id={`${id}-label`}>
        {label}
      </label>
      <div>
        {children({
          id,
          labelId: `${id}-label`,
          describedBy: beneath === undefined ? undefined : `${id}-beneath`,
          invalid: wrong !== undefined,
        })}
        {beneath !== undefined && (
          <p id={`${id}-beneath`} className={wrong === undefined ? 'why' : 'problem'}>
            {beneath}
          </p>
        )}
      </div>
    </div>
  );
}
