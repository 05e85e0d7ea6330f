/** Forms of what is told of makers: sources, makers, stories. */
import { DateInput, NumberInput } from '../../parts/fields/figures.tsx';
import { LinesInput, TextInput } from '../../parts/fields/TextInput.tsx';
import { Select, optionsOf } from '../../parts/fields/choices.tsx';
import { Varieties } from './FeatureValues.tsx';
import { SOURCE_KINDS, STORY_VERDICTS, type Maker, type Source, type Story } from '@jutbank/core/reference';
import { Citation, given, named, type FormProps } from './formParts.tsx';

export function SourceForm({ value, set }: FormProps<Source>) {
  return (
    <>
      <TextInput
        label="Title"
        at="/title"
        why="As it stands on the cover."
        value={value.title}
        onChange={(title) => set({ title })}
      />
      <Select
        label="Kind"
        why="A works record outweighs what somebody once heard."
        at="/kind"
        value={value.kind}
        options={optionsOf(SOURCE_KINDS)}
        onChange={(kind) => set(given('kind', kind) as Partial<Source>)}
      />
      <DateInput
        label="Published"
        why="A source cannot know what came after it."
        at="/published"
        value={value.published}
        onChange={(published) => set(given('published', published))}
      />
      <NumberInput
        label="Reliability"
        why="0 to 1: how often a statement of it holds. Decides whom to believe where two disagree."
        at="/reliability"
        value={value.reliability}
        onChange={(reliability) => set(given('reliability', reliability))}
      />
      <TextInput
        label="Note"
        at="/note"
        rows={2}
        value={value.note}
        onChange={(note) => set(given('note', note))}
      />
    </>
  );
}

export function MakerForm({ value, set, words }: FormProps<Maker>) {
  return (
    <>
      <TextInput label="Name" at="/name" value={value.name} onChange={(name) => set({ name })} />
      <TextInput
        label="Place"
        at="/place"
        value={value.place}
        onChange={(place) => set(given('place', place))}
      />
      <DateInput
        label="Active"
        why="Bounds every date of this maker; leave the end open if it still works."
        at="/active"
        value={value.active}
        onChange={(active) => set(given('active', active))}
      />
      <LinesInput
        label="Also known as"
        why="One name to a line: the search finds it under each."
        at="/aliases"
        rows={2}
        value={value.aliases}
        onChange={(aliases) => set(given('aliases', aliases))}
      />
      <Varieties
        value={value}
        set={set}
        words={words}
        of={(f) =>
          !f.constructions ||
          words.patterns.some((p) => p.maker === value.id && f.constructions?.includes(p.construction))
        }
      />
    </>
  );
}

export function StoryForm({ value, set, words }: FormProps<Story>) {
  return (
    <>
      <TextInput
        label="What is told"
        at="/told"
        rows={3}
        value={value.told}
        onChange={(told) => set({ told })}
      />
      <Select
        label="Verdict"
        why="A refuted story is kept, so that it is not told again in a listing."
        at="/verdict"
        value={value.verdict}
        options={[
          { value: 'open', label: 'Open question' },
          { value: 'supported', label: 'Supported' },
          { value: 'refuted', label: 'Refuted' },
        ].filter((o) => STORY_VERDICTS.some((v) => v === o.value))}
        onChange={(verdict) => set(given('verdict', verdict) as Partial<Story>)}
      />
      <Select
        label="Maker"
        at="/maker"
        none="–"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => set(given('maker', maker))}
      />
      <Select
        label="Pattern"
        at="/pattern"
        none="–"
        value={value.pattern}
        options={named(words.patterns)}
        onChange={(pattern) => set(given('pattern', pattern))}
      />
      <TextInput
        label="Because"
        why="What speaks for or against it."
        at="/because"
        rows={2}
        value={value.because}
        onChange={(because) => set(given('because', because))}
      />
      <Citation value={value} set={set} words={words} />
    </>
  );
}
