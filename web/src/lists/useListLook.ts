/** A list somebody keeps, while it is understood: looked at by the server, its reading corrected, looked at again. */
import {
  takeGuesses,
  type ListMapping,
  type NameSaid,
  type Notation,
  type WordSaid,
} from '@jutbank/core/lists';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';

interface Look<M extends ListMapping> {
  readonly mapping: M;
  readonly names: readonly NameSaid[];
  readonly words: readonly WordSaid[];
  readonly notation: Notation;
}

/**
 * @param ask sends the file, with the reading as `mapping` where it was corrected
 * @param where our columns of dates and of prices: one that stands in another column now is written as that one writes it
 * @param rereadBy what of a reading decides which names and words the file says
 * @param onFirstRead once a file was read for the first time
 */
export function useListLook<M extends ListMapping, L extends Look<M>>({
  ask,
  where,
  rereadBy,
  onFirstRead,
  onChange,
}: {
  ask: (form: FormData) => Promise<L>;
  where: { readonly dates: readonly string[]; readonly prices: readonly string[] };
  rereadBy: (mapping: M | undefined) => unknown;
  onFirstRead?: (file: File, mapping: M) => void;
  /** whatever was tried with the reading before is no longer so */
  onChange: () => void;
}) {
  const [file, setFile] = useState<File>();
  const [mapping, setMapping] = useState<M>();
  const asking = useMutation({
    mutationFn: ({ chosen, by }: { chosen: File; by?: M; before?: M }) => {
      const form = new FormData();
      form.set('file', chosen);
      if (by) form.set('mapping', JSON.stringify(by));
      return ask(form);
    },
    onSuccess: (found, { chosen, by, before }) => {
      const read: M = takeGuesses(
        by ? withNotation(by, before, found.notation, where) : found.mapping,
        found,
      );
      setMapping(read);
      if (!by) onFirstRead?.(chosen, read);
    },
  });
  return {
    file,
    mapping,
    look: asking.data,
    error: asking.error,
    pending: asking.isPending,
    choose: (chosen: File) => {
      setFile(chosen);
      setMapping(undefined);
      onChange();
      asking.mutate({ chosen });
    },
    change: (next: M) => {
      setMapping(next);
      onChange();
      if (file && JSON.stringify(rereadBy(next)) !== JSON.stringify(rereadBy(mapping)))
        asking.mutate({ chosen: file, by: next, ...(mapping && { before: mapping }) });
    },
    clear: () => {
      setFile(undefined);
      setMapping(undefined);
      asking.reset();
    },
  };
}

const columnOf = (mapping: ListMapping, ours: string) =>
  Object.keys(mapping.columns).find((name) => mapping.columns[name] === ours);

function withNotation<M extends ListMapping>(
  mapping: M,
  before: M | undefined,
  notation: Notation,
  where: { readonly dates: readonly string[]; readonly prices: readonly string[] },
): M {
  const moved = (columns: readonly string[]) =>
    before !== undefined && columns.some((ours) => columnOf(before, ours) !== columnOf(mapping, ours));
  return {
    ...mapping,
    ...(moved(where.dates) ? { dateOrder: notation.dateOrder } : {}),
    ...(moved([...where.prices, 'currency'])
      ? { decimalComma: notation.decimalComma, currencyInPrice: notation.currencyInPrice }
      : {}),
  };
}
