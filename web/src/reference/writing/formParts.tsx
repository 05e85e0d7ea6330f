/** What all forms of the reference share. */
import { Select, type Option } from '../../parts/fields/choices.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import type { ReactNode } from 'react';
import type { Vocabulary } from '@jutbank/contract/reference';

export interface FormProps<T> {
  readonly value: Partial<T>;
  readonly set: (patch: Partial<T>) => void;
  readonly words: Vocabulary;
}

export const named = (
  items: readonly { id: string; name?: string; title?: string; label?: string }[],
): Option[] =>
  items.map((item) => ({ value: item.id, label: item.name ?? item.title ?? item.label ?? item.id }));

/** A patch that leaves a field out instead of writing it empty. */
export const given = <K extends string, V>(key: K, value: V | null | undefined): Record<K, V> =>
  ({ [key]: value === '' || value === null ? undefined : value }) as Record<K, V>;

export function Citation({
  value,
  set,
  words,
}: FormProps<{ source?: string | null | undefined; page?: string | null | undefined }>) {
  return (
    <>
      <Select
        label="Source"
        why="A statement without a source cannot be weighed against another."
        at="/source"
        none="Not told"
        value={value.source}
        options={named(words.sources)}
        onChange={(source) => set(given('source', source))}
      />
      <TextInput
        label="Page"
        why="So that the next person finds it."
        at="/page"
        value={value.page}
        onChange={(page) => set(given('page', page))}
      />
    </>
  );
}

/** A group of fields with a heading, for long forms. */
export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        {title}
      </h2>
      {children}
    </>
  );
}
