/** At the fair: which pattern it is, and which form of it. */
import { InputBase } from '@mui/material';
import { useState } from 'react';
import { CONSTRUCTIONS, type Construction } from '@jutbank/core/reference';
import { Failed, Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { usePattern, useVocabulary } from '../reference/vocabulary.ts';
import { CONSTRUCTION_WORDS } from '../parts/words.ts';

/** A pattern that was picked; what was photographed instead has none yet. */
export interface Chosen {
  readonly id: string | null;
  readonly name: string;
  readonly construction: Construction;
}

const MOST_SHOWN = 7;
/** By a name, a maker, a number; or photographed, to be found out at home. */
export function PickPattern({
  onPick,
  onPhotograph,
}: {
  onPick: (chosen: Chosen) => void;
  /** undefined: a photograph is there already */
  onPhotograph: ((file: File) => void) | undefined;
}) {
  const [words, setWords] = useState('');
  const vocabulary = useVocabulary();
  if (vocabulary.isPending) return <Loading />;
  if (vocabulary.isError) return <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />;
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const makers = new Map(vocabulary.data.makers.map((m) => [m.id, m.name]));
  const found = vocabulary.data.patterns
    .map((p) => ({ ...p, text: `${p.name} ${makers.get(p.maker) ?? ''} ${p.number ?? ''}` }))
    .filter((p) => wanted.every((w) => p.text.toLowerCase().includes(w)));
  return (
    <section>
      <InputBase
        className="pickbox"
        fullWidth
        placeholder="Which is it? Name, maker, number"
        autoFocus
        value={words}
        inputProps={{ 'aria-label': 'Which pattern or model is it?' }}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          const first = found[0];
          if (e.key === 'Enter' && first)
            onPick({ id: first.id, name: first.name, construction: first.construction });
        }}
      />
      <div className="found">
        {(onPhotograph || wanted.length > 0 ? found.slice(0, MOST_SHOWN) : []).map((p) => (
          <button
            key={p.id}
            type="button"
            onClick={() => onPick({ id: p.id, name: p.name, construction: p.construction })}
          >
            <b>{p.name}</b> <span className="soft">{makers.get(p.maker)}</span>
          </button>
        ))}
      </div>
      {onPhotograph && (
        <FileChooser label="Photograph it" accept="image/*" camera onChoose={onPhotograph}>
          Photograph it; which it is can wait
        </FileChooser>
      )}
      {found.length === 0 && (
        <p className="soft" style={{ padding: '10px 0' }}>
          {vocabulary.data.patterns.length === 0
            ? 'The reference is empty: without it nothing can be priced. Import a pack first.'
            : 'Nothing in the reference is called so. Without knowing what it is there is no ceiling.'}
        </p>
      )}
    </section>
  );
}

export function PickVariant({
  pattern,
  value,
  onChange,
}: {
  pattern: string;
  value: string;
  onChange: (id: string) => void;
}) {
  const detail = usePattern(pattern);
  const variants = detail.data?.variants ?? [];
  return (
    <Select
      label="Which form"
      value={variants.length === 0 ? '' : value}
      none="Cannot tell: any of them"
      options={variants.map((v) => ({ value: v.id, label: v.name }))}
      onChange={(id) => onChange(id ?? '')}
    />
  );
}

/** A piece nobody has named yet: what to call it until then, and what kind of thing it is. */
export function Unnamed({ value, onChange }: { value: Chosen; onChange: (chosen: Chosen) => void }) {
  return (
    <section className="unnamed">
      <TextInput
        label="Working name"
        value={value.name}
        placeholder="Bone jack, second table"
        onChange={(name) => onChange({ ...value, name })}
      />
      <Select
        label="What it is"
        value={value.construction}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c] ?? c)}
        onChange={(construction) => construction !== null && onChange({ ...value, construction })}
      />
      <p className="soft">
        There is no ceiling for what nobody knows. Pick a pattern above as soon as it has a name.
      </p>
    </section>
  );
}
