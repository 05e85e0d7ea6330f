/** What somebody's list calls patterns and forms, and what each means in the reference. */
import type { NameSaid } from '@jutbank/core/lists';
import { useVariantNames, useVocabulary } from '../reference/vocabulary.ts';
import type { Mapping } from './ImportColumns.tsx';
import { MeaningTable } from './MeaningTable.tsx';

/** Names that are none of the reference's ids, and what each means. */
export function ImportNames({
  names,
  mapping,
  onChange,
}: {
  names: readonly NameSaid[];
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
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
        const meaning = mapping.names[n.column][n.key] ?? '';
        return {
          id: `${n.column} ${n.key}`,
          said: n.said,
          of: n.pattern === null ? null : `of ${patternName(n.pattern)}`,
          rows: n.rows,
          meaning,
          open: meaning === '',
          none: n.column === 'pattern' ? 'leave the rows out' : 'form not told',
          choices:
            n.column === 'pattern'
              ? (vocabulary.data?.patterns ?? [])
              : variants.filter((v) => v.pattern === n.pattern),
          onMean: (id) =>
            onChange({
              ...mapping,
              names: { ...mapping.names, [n.column]: { ...mapping.names[n.column], [n.key]: id } },
            }),
        };
      })}
    />
  );
}
