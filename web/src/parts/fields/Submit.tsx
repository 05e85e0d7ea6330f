/** The foot of a form: what is wrong with the whole of it, the act, and that it was done. */
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { ContractForm } from './useContractForm.ts';

export function Submit<T extends FieldValues, A>({
  form,
  words,
  said,
  disabled = false,
  children,
}: {
  form: ContractForm<T, A>;
  /** what the button does */
  words: ReactNode;
  /** what is told once it went through */
  said?: (answer: A) => ReactNode;
  disabled?: boolean;
  /** other acts beside it */
  children?: ReactNode;
}) {
  return (
    <div className="submit">
      <FormProblem form={form} />
      <Button type="submit" variant="contained" disabled={disabled || form.sending}>
        {words}
      </Button>
      {children}
      {form.answer !== undefined && said && (
        <span className="soft" role="status">
          {said(form.answer)}
        </span>
      )}
    </div>
  );
}

/** What is wrong with the whole of a form. It stands after the fields: what they tell themselves it does not repeat. */
export function FormProblem<T extends FieldValues, A>({ form }: { form: ContractForm<T, A> }) {
  const { problem } = form;
  return problem === undefined ? null : (
    <p className="problem" role="alert">
      {problem}
    </p>
  );
}
