/** Writing one thing of the reference: the form, what it will look like, and where it stands. */
import { FieldErrors } from '../../parts/fields/Field.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { referenceRoutes, type ItemRecord, type Vocabulary } from '@jutbank/contract/reference';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { PACK_SECTIONS, type PackSection, type Variant } from '@jutbank/core/reference';
import { useAnswer, useKeptAnswers } from '../../base/answers.ts';
import { ApiProblem, send } from '../../base/api.ts';
import { useMay } from '../../base/session.ts';
import { Failed, Loading } from '../../base/states.tsx';
import { useShortcuts } from '../../base/shortcuts.ts';
import { PageTitle } from '../../parts/PageTitle.tsx';
import { CodeForm } from './CodeForm.tsx';
import { asItem, blank, nextFormOf, SECTION_WORDS, suggestedId, type Draft } from './draft.ts';
import type { FormProps } from './formParts.tsx';
import { FeatureForm } from './FeatureForm.tsx';
import { MakerForm, SourceForm, StoryForm } from './SourceForm.tsx';
import { MarkForm, WindowForm } from './MarkForm.tsx';
import { PatternForm } from './PatternForm.tsx';
import { VariantForm } from './VariantForm.tsx';
import './writing.css';
import { useVocabulary, usePattern } from '../vocabulary.ts';
import { Preview } from './Preview.tsx';

export default function WritePage() {
  const { section = '', id } = useParams();
  const [query] = useSearchParams();
  const known = PACK_SECTIONS.find((s) => s === section);
  const from = query.get('from') ?? undefined;
  const loaded = id ?? from;
  const vocabulary = useVocabulary();
  const record = useAnswer(
    referenceRoutes.item,
    { params: { section: known, id: loaded } },
    { enabled: known !== undefined && loaded !== undefined, staleTime: 0, gcTime: 0 },
  );
  const may = useMay('appraise');
  if (!known) return <Failed error={new ApiProblem(404, 'There is no such page', undefined, [])} />;
  if (!may)
    return (
      <Failed
        error={new ApiProblem(403, 'Only an appraiser or the owner writes the reference', undefined, [])}
      />
    );
  if (vocabulary.isError) return <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />;
  if (record.isError) return <Failed error={record.error} retry={() => void record.refetch()} />;
  if (!vocabulary.data || (loaded !== undefined && !record.data)) return <Loading />;
  return (
    <Writing
      key={`${known} ${id ?? ''} ${from ?? ''} ${query.get('at') ?? ''}`}
      section={known}
      id={id}
      record={record.data}
      words={vocabulary.data}
      query={query}
    />
  );
}

interface WritingProps {
  readonly section: PackSection;
  readonly id: string | undefined;
  readonly record: ItemRecord | undefined;
  readonly words: Vocabulary;
  readonly query: URLSearchParams;
}

/** What is typed outlives leaving the page by mistake, until it is saved. */
const kept = (key: string): Draft | undefined => {
  const text = sessionStorage.getItem(key);
  return text === null ? undefined : (JSON.parse(text) as Draft);
};

function Writing({ section, id, record, words, query }: WritingProps) {
  const navigate = useNavigate();
  const answers = useKeptAnswers();
  const key = `draft ${section} ${id ?? `new ${query.toString()}`}`;
  const before = id === undefined ? (record?.item as Variant | undefined) : undefined;
  const [draft, setDraft] = useState<Draft>(
    () =>
      kept(key) ??
      (id !== undefined
        ? { ...(record?.item as unknown as Draft) }
        : before
          ? nextFormOf(before)
          : blank(section, query)),
  );
  const [version, setVersion] = useState(record?.version);
  const [changed, setChanged] = useState(() => kept(key) !== undefined);
  const [saved, setSaved] = useState<readonly string[]>();
  const [asked, setAsked] = useState(false);
  const set = (patch: Draft) => {
    const next = { ...draft, ...patch };
    setDraft(next);
    setChanged(true);
    setSaved(undefined);
    sessionStorage.setItem(key, JSON.stringify(next));
  };
  const itemId = id ?? draft.id ?? suggestedId(section, draft);
  const save = useMutation({
    mutationFn: () =>
      send(referenceRoutes.putItem, {
        params: { section, id: itemId || 'unnamed' },
        body: asItem(draft, itemId),
        ...(id !== undefined && version !== undefined ? { version } : {}),
      }),
    onSuccess: async (answer) => {
      sessionStorage.removeItem(key);
      setChanged(false);
      setVersion(answer.version);
      setSaved(answer.warnings);
      await answers.invalidateBelow('/reference');
      if (id === undefined) void navigate(`/reference/write/${section}/${itemId}?saved=1`, { replace: true });
    },
  });
  const remove = useMutation({
    mutationFn: () => send(referenceRoutes.removeItem, { params: { section, id: id ?? '' } }),
    onSuccess: async () => {
      sessionStorage.removeItem(key);
      await answers.invalidateAll();
      void navigate('/reference');
    },
  });
  const { mutate: saveNow } = save;
  useShortcuts(
    'Writing',
    useMemo(() => [{ key: 'mod+Enter', does: 'save', run: () => saveNow() }], [saveNow]),
  );
  const problem = save.error instanceof ApiProblem ? save.error : undefined;
  const wrong = (pointer: string) => problem?.at(pointer);
  const word = SECTION_WORDS[section];
  const title = String(
    draft['name'] ??
      draft['title'] ??
      draft['label'] ??
      (draft['lines'] as string[] | undefined)?.join(' / ') ??
      draft['told'] ??
      '',
  );
  const isSaved = saved !== undefined || (query.get('saved') === '1' && !changed);
  const more = new URLSearchParams();
  for (const field of ['maker', 'pattern', 'feature'])
    if (typeof draft[field] === 'string') more.set(field, draft[field]);
  more.set('at', String(version ?? 0) + itemId);
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{id === undefined ? `New ${word}` : title || word}</PageTitle>
        <span className="soft">
          <Link to={backFrom(section, draft)}>Reference</Link>
          {id !== undefined &&
            record &&
            record.packs.length > 0 &&
            ` · in ${record.packs.map((p) => p.title).join(', ')}`}
        </span>
        <span className="grow" />
        {id !== undefined && (
          <>
            {section === 'variants' && (
              <Link className="quiet" to={`/reference/write/variants?from=${id}`}>
                Copy as next form
              </Link>
            )}
            <Link className="quiet" to={`/reference/write/${section}?${more.toString()}`}>
              Another {word}
            </Link>
            {asked ? (
              <>
                <Button variant="text" className="quiet warn" onClick={() => remove.mutate()}>
                  Yes, take it out
                </Button>
                <Button variant="text" className="quiet" onClick={() => setAsked(false)}>
                  Keep it
                </Button>
              </>
            ) : (
              <Button variant="text" className="quiet" onClick={() => setAsked(true)}>
                Take out
              </Button>
            )}
          </>
        )}
        <Button variant="contained" onClick={() => save.mutate()} disabled={save.isPending}>
          Save
        </Button>
      </div>
      <p role="status" className="soft" style={{ minHeight: 18 }}>
        {save.isPending
          ? 'Saving…'
          : isSaved
            ? `Saved${saved && saved.length > 0 ? `. Look at: ${saved.join('; ')}` : '.'}`
            : changed
              ? 'Not saved yet; kept here while you look elsewhere.'
              : ''}
      </p>
      {(problem ?? remove.error) && (
        <div role="alert" className="note bad">
          <b>{problem ? 'Not saved' : 'It stays'}</b>
          {problem
            ? problem.errors.length > 0
              ? problem.errors
                  .map((e) => `${e.pointer.slice(1).replaceAll('/', ' › ')} ${e.message}`)
                  .join('; ')
              : problem.message
            : String(remove.error?.message)}
        </div>
      )}
      <FieldErrors value={wrong}>
        <div className="writing">
          <section className="fields beside" aria-label={`Fields of the ${word}`}>
            <SectionForm section={section} draft={draft} set={set} words={words} before={before} />
            <TextInput
              label="Id"
              at="/id"
              mono
              why={
                id === undefined
                  ? 'How other things refer to it. It cannot be changed later.'
                  : 'Others refer to it by this.'
              }
              value={itemId}
              readOnly={id !== undefined}
              onChange={(next) => set({ id: next })}
            />
          </section>
          <aside aria-label="Preview">
            <Preview section={section} draft={draft} id={itemId} words={words} before={before} />
          </aside>
        </div>
      </FieldErrors>
    </div>
  );
}

function backFrom(section: PackSection, draft: Draft): string {
  if (section === 'variants' && typeof draft['pattern'] === 'string')
    return `/reference/patterns/${draft['pattern']}`;
  const maker = section === 'makers' ? draft.id : draft['maker'];
  return typeof maker === 'string' ? `/reference?maker=${maker}` : '/reference';
}

function SectionForm({
  section,
  draft,
  set,
  words,
  before,
}: {
  section: PackSection;
  draft: Draft;
  set: (patch: Draft) => void;
  words: Vocabulary;
  before: Variant | undefined;
}) {
  const detail = usePattern(section === 'variants' ? draft['pattern'] : undefined);
  const props = <T,>(): FormProps<T> => ({
    value: draft as Partial<T>,
    set: set as (patch: Partial<T>) => void,
    words,
  });
  switch (section) {
    case 'sources':
      return <SourceForm {...props()} />;
    case 'makers':
      return <MakerForm {...props()} />;
    case 'features':
      return <FeatureForm {...props()} />;
    case 'patterns':
      return <PatternForm {...props()} />;
    case 'codes':
      return <CodeForm {...props()} />;
    case 'marks':
      return <MarkForm {...props()} />;
    case 'windows':
      return <WindowForm {...props()} />;
    case 'variants':
      return <VariantForm {...props()} detail={detail.data} before={before} />;
    case 'stories':
      return <StoryForm {...props()} />;
  }
}
