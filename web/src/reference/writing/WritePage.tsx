/** Writing one thing of the reference: the form, what it will look like, and where it stands. */
import { Button } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { parsePeriod } from '@jutbank/core/dates';
import { PACK_SECTIONS, type Mark, type PackSection, type Variant } from '@jutbank/core/reference';
import type { ItemRecord, PatternDetail, Vocabulary } from '@jutbank/contract/reference';
import { ApiProblem, call, get } from '../../app/api.ts';
import { useMay } from '../../app/session.ts';
import { Failed, Loading } from '../../app/states.tsx';
import { useShortcuts } from '../../app/shortcuts.ts';
import { MarkDrawing } from '../../parts/Drawn.tsx';
import { YearRule } from '../../parts/YearRule.tsx';
import { Differences } from '../Differences.tsx';
import { CodeForm } from './CodeForm.tsx';
import { CodePreview } from './CodePreview.tsx';
import { asItem, blank, nextFormOf, SECTION_WORDS, suggestedId, type Draft } from './draft.ts';
import { Line, Wrong } from './fields.tsx';
import {
  FeatureForm,
  MakerForm,
  MarkForm,
  PatternForm,
  SourceForm,
  StoryForm,
  WindowForm,
  type FormProps,
} from './forms.tsx';
import { VariantForm } from './VariantForm.tsx';
import './writing.css';

export default function WritePage() {
  const { section = '', id } = useParams();
  const [query] = useSearchParams();
  const known = PACK_SECTIONS.find((s) => s === section);
  const from = query.get('from') ?? undefined;
  const loaded = id ?? from;
  const vocabulary = useQuery({
    queryKey: ['vocabulary'],
    queryFn: () => get<Vocabulary>('/reference/vocabulary'),
  });
  const record = useQuery({
    queryKey: ['item', known, loaded],
    queryFn: () => get<ItemRecord>(`/reference/items/${known}/${loaded}`),
    enabled: known !== undefined && loaded !== undefined,
    staleTime: 0,
    gcTime: 0,
  });
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
  const queries = useQueryClient();
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
      call<ItemRecord>('PUT', `/reference/items/${section}/${itemId || 'unnamed'}`, {
        body: asItem(draft, itemId),
        ...(id !== undefined && version !== undefined ? { version } : {}),
      }),
    onSuccess: async (answer) => {
      sessionStorage.removeItem(key);
      setChanged(false);
      setVersion(answer.version);
      setSaved(answer.warnings);
      for (const name of ['vocabulary', 'maker', 'pattern', 'patterns', 'variant', 'packs', 'questions'])
        await queries.invalidateQueries({ queryKey: [name] });
      if (id === undefined) void navigate(`/reference/write/${section}/${itemId}?saved=1`, { replace: true });
    },
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/reference/items/${section}/${id ?? ''}`),
    onSuccess: async () => {
      sessionStorage.removeItem(key);
      await queries.invalidateQueries();
      void navigate('/reference');
    },
  });
  useShortcuts(
    'Writing',
    useMemo(() => [{ key: 'Ctrl Enter', does: 'save' }], []),
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
    <div
      className="page"
      onKeyDown={(e) => {
        if ((e.ctrlKey || e.metaKey) && e.key === 'Enter') save.mutate();
      }}
    >
      <div className="pagehead">
        <h1>{id === undefined ? `New ${word}` : title || word}</h1>
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
            <button
              type="button"
              className="quiet"
              onClick={() => remove.mutate()}
              disabled={remove.isPending}
            >
              Take out
            </button>
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
      <Wrong.Provider value={wrong}>
        <div className="writing">
          <section aria-label={`Fields of the ${word}`}>
            <SectionForm section={section} draft={draft} set={set} words={words} before={before} />
            <Line
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
      </Wrong.Provider>
    </div>
  );
}

function backFrom(section: PackSection, draft: Draft): string {
  if (section === 'variants' && typeof draft['pattern'] === 'string')
    return `/reference/patterns/${draft['pattern']}`;
  const maker = section === 'makers' ? draft.id : draft['maker'];
  return typeof maker === 'string' ? `/reference?maker=${maker}` : '/reference';
}

function usePattern(pattern: unknown) {
  const id = typeof pattern === 'string' ? pattern : undefined;
  return useQuery({
    queryKey: ['pattern', id],
    queryFn: () => get<PatternDetail>(`/reference/patterns/${id}`),
    enabled: id !== undefined,
  });
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
  const pattern =
    section === 'variants' && typeof draft['pattern'] === 'string' ? draft['pattern'] : undefined;
  const detail = useQuery({
    queryKey: ['pattern', pattern],
    queryFn: () => get<PatternDetail>(`/reference/patterns/${pattern}`),
    enabled: pattern !== undefined,
  });
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

function Preview({
  section,
  draft,
  id,
  words,
  before,
}: {
  section: PackSection;
  draft: Draft;
  id: string;
  words: Vocabulary;
  before: Variant | undefined;
}) {
  if (section === 'codes') return <CodePreview code={{ ...draft, id } as never} words={words} />;
  const window = draft['window'] ?? draft['active'];
  const dated = typeof window === 'string' && parsePeriod(window).ok ? window : undefined;
  const mark = draft as Partial<Mark>;
  return (
    <>
      {section === 'marks' && (
        <>
          <h2 className="sec">As it is drawn</h2>
          <MarkDrawing
            mark={{
              lines: mark.lines && mark.lines.length > 0 ? mark.lines : [' '],
              ...(mark.lettering == null ? {} : { lettering: mark.lettering }),
            }}
            width={260}
          />
        </>
      )}
      {dated !== undefined && section !== 'variants' && (
        <>
          <h2 className="sec" style={{ marginTop: 14 }}>
            On the year rule
          </h2>
          <YearRule
            core={dated}
            bars={[{ label: SECTION_WORDS[section], strict: [dated], lenient: [], binds: 'both' }]}
            label="The period on the year rule"
          />
        </>
      )}
      {section === 'variants' && <Succession draft={draft} id={id} before={before} words={words} />}
      {section === 'features' && <AskPreview draft={draft} />}
      {section === 'marks' && <Eras maker={mark.maker ?? undefined} words={words} own={id} />}
    </>
  );
}

/** The pattern's forms along the years with this one among them, and what sets it apart from its neighbour. */
function Succession({
  draft,
  id,
  before,
  words,
}: {
  draft: Draft;
  id: string;
  before: Variant | undefined;
  words: Vocabulary;
}) {
  const detail = usePattern(draft['pattern']);
  if (!detail.data) return <p className="soft">Choose the pattern: its other forms appear here.</p>;
  const own = asItem(draft, id) as Variant;
  const others = detail.data.variants.filter((v) => v.id !== id);
  const dated = [...others, own].filter((v) => v.window != null && parsePeriod(v.window).ok);
  const from = before ?? others.at(-1);
  return (
    <>
      <h2 className="sec">Among the forms of {detail.data.pattern.name}</h2>
      {dated.length === 0 ? (
        <p className="soft">No form is dated yet.</p>
      ) : (
        <YearRule
          core={undefined}
          bars={dated.map((v) => ({
            label: v.name || 'this one',
            strict: [v.window ?? ''],
            lenient: [],
            ...(v === own ? { binds: 'both' as const } : {}),
          }))}
          label="Forms along the years"
        />
      )}
      {from && (
        <>
          <h2 className="sec" style={{ marginTop: 14 }}>
            Against {from.name} <small>only what differs</small>
          </h2>
          <Differences variants={[from, own]} pattern={detail.data.pattern} words={words} />
        </>
      )}
    </>
  );
}

/** How the bench will ask. */
function AskPreview({ draft }: { draft: Draft }) {
  const values = (draft['values'] as { id: string; label: string }[] | undefined) ?? [];
  return (
    <>
      <h2 className="sec">On the bench</h2>
      <p className="big">{String(draft['ask'] ?? `${String(draft['label'] ?? '')}?`)}</p>
      <div className="chips">
        {values.map((v, i) => (
          <span key={i} className="chip">
            <i>{i + 1}</i>
            {v.label}
          </span>
        ))}
      </div>
    </>
  );
}

/** The maker's other stamps along the years, so that a gap or an overlap is seen while writing. */
function Eras({ maker, words, own }: { maker: string | undefined; words: Vocabulary; own: string }) {
  const others = words.marks.filter((m) => m.maker === maker && m.id !== own && m.window != null);
  if (maker === undefined || others.length === 0) return null;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 14 }}>
        The maker’s other stamps
      </h2>
      <YearRule
        core={undefined}
        bars={others.map((m) => ({ label: m.lines.join(' / '), strict: [m.window ?? ''], lenient: [] }))}
        label="Other stamps along the years"
      />
    </>
  );
}
