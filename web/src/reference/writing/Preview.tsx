/** Beside the fields: what is being written as the bench and the year rule will show it. */
import { parsePeriod } from '@jutbank/core/dates';
import { bladesThatDoNotFold, anyPattern, recipeOfRecords, type Drawing } from '@jutbank/core/drawing';
import type { Feature, Mark, PackSection, Pattern, Variant } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { MarkDrawing } from '../../parts/Drawn.tsx';
import { stampCaption } from '../../parts/stampCaption.ts';
import { useMemo } from 'react';
import { ChoiceDrawing, useChoiceDrawings } from '../ChoiceDrawing.tsx';
import { FormDrawing } from '../FormDrawing.tsx';
import { usePattern } from '../vocabulary.ts';
import { YearRule } from '../../parts/YearRule.tsx';
import { Differences } from '../Differences.tsx';
import { CodePreview } from './CodePreview.tsx';
import { asItem, SECTION_WORDS, type Draft } from './draft.ts';

export function Preview({
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
      {section === 'patterns' && <PatternDrawn draft={draft} words={words} />}
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
          <p className="stamp-caption">{stampCaption({ ...mark, lines: mark.lines ?? [] })}</p>
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
      {section === 'features' && <AskPreview draft={draft} id={id} />}
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

/** The pattern as its fields draw it, closed and open, in sight while they are changed. */
function PatternDrawn({ draft, words }: { draft: Draft; words: Vocabulary }) {
  const pattern = draft as Partial<Pattern>;
  const recipe = recipeOfRecords({
    pattern: {
      ...pattern,
      name: pattern.name ?? 'The pattern',
      construction: pattern.construction ?? 'slipjoint',
    },
    features: words.features,
  });
  const unfolding = bladesThatDoNotFold(recipe);
  return (
    <div className="live-drawing">
      <h2 className="sec">
        As it is drawn <small>what is dashed is not told</small>
      </h2>
      <FormDrawing recipe={recipe} view="mark-side" width={440} />
      <FormDrawing recipe={recipe} view="open" width={440} />
      {unfolding.map((blade) => (
        <p key={blade.role} className="problem" role="alert">
          A {blade.role} of that height would strike the spring: misread, or the handle is another.
        </p>
      ))}
    </div>
  );
}

/** How the bench will ask. */
function AskPreview({ draft, id }: { draft: Draft; id: string }) {
  const feature = useMemo(
    () => ({ part: '', ...asItem(draft, id), label: String(draft['label'] ?? '') }) as Feature,
    [draft, id],
  );
  const construction = feature.constructions?.[0] ?? 'slipjoint';
  const recipe = useMemo(
    () => recipeOfRecords({ pattern: anyPattern(construction), features: [] }),
    [construction],
  );
  const drawings = useChoiceDrawings(feature, recipe);
  const values = (draft['values'] as { id: string; label: string }[] | undefined) ?? [];
  return (
    <>
      <h2 className="sec">On the bench</h2>
      <p className="big">{String(draft['ask'] ?? `${String(draft['label'] ?? '')}?`)}</p>
      <div className="chips">
        {values.map((v, i) => (
          <span key={i} className={drawings.has(v.id) ? 'chip drawn' : 'chip'}>
            <DrawnValue drawing={drawings.get(v.id)} />
            <span>
              <i>{i + 1}</i>
              {v.label}
            </span>
          </span>
        ))}
      </div>
    </>
  );
}

const DrawnValue = ({ drawing }: { drawing: Drawing | undefined }) =>
  drawing ? <ChoiceDrawing drawing={drawing} /> : null;

/** The maker’s other stamps along the years, so that a gap or an overlap is seen while writing. */
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
