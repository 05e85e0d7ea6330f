/** What somebody's list calls makers, patterns and forms, and what each means in the reference. */
import type { NameSaid, NamesMeant } from '@jutbank/core/lists';
import { useVariantNames, useVocabulary } from '../reference/vocabulary.ts';
import { MeaningTable } from './MeaningTable.tsx';

/** Names that are none of the reference's ids, and what each means. */
export function ListNames({
  names,
  meant,
  unknown,
  onChange,
}: {
  names: readonly NameSaid[];
  meant: Required<NamesMeant>;
  /** what becomes of a name that means none of ours */
  unknown: Readonly<Record<NameSaid['column'], string>>;
  onChange: (meant: Required<NamesMeant>) => void;
}) {
  const vocabulary = useVocabulary();
  const patterns = [...new Set(names.flatMap((n) => n.pattern ?? []))];
  const variants = [...useVariantNames(patterns).values()].map((v) => v.variant);
  const patternName = (id: string) => vocabulary.data?.patterns.find((p) => p.id === id)?.name ?? id;
  return (
    <MeaningTable
      title="Their names"
      label="Names in the file"
      sayings={names.map((n) => {
        const meaning = meant[n.column][n.key] ?? '';
        return {
          id: `${n.column} ${n.key}`,
          said: n.said,
          of: n.pattern === null ? null : `of ${patternName(n.pattern)}`,
          rows: n.rows,
          meaning,
          open: meaning === '',
          none: unknown[n.column],
          choices:
            n.column === 'maker'
              ? (vocabulary.data?.makers ?? [])
              : n.column === 'pattern'
                ? (vocabulary.data?.patterns ?? [])
                : variants.filter((v) => v.pattern === n.pattern),
          onMean: (id) => onChange({ ...meant, [n.column]: { ...meant[n.column], [n.key]: id } }),
        };
      })}
    />
  );
}
