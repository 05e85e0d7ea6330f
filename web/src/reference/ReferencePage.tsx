/** Makers, their patterns, sources, and the packs all of it came from. */
import { referenceRoutes, type Vocabulary } from '@jutbank/contract/reference';
import { Link, useSearchParams } from 'react-router';
import { edtfInWords, periodOf } from '@jutbank/core/dates';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { MarkDrawing } from '../parts/Drawn.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { stampCaption } from '../parts/stampCaption.ts';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { ImportPack } from './ImportPack.tsx';
import { MakerSays, WriteLinks } from './MakerSays.tsx';
import { FormDrawing } from './FormDrawing.tsx';
import type { DrawnAs } from '@jutbank/core/drawing';
import { useForms } from './useForms.ts';
import { useVocabulary } from './vocabulary.ts';
import './reference.css';

const drawnAs = (p: Vocabulary['patterns'][number]): DrawnAs => ({
  construction: p.construction,
  pattern: p.id,
  variant: p.form,
});
const byForms = (makers: Vocabulary['makers']) => [...makers].sort((a, b) => b.variants - a.variants);

export default function ReferencePage() {
  const [query, setQuery] = useSearchParams();
  const vocabulary = useVocabulary();
  const mayImport = useMay('appraise');
  const marking = vocabulary.data?.marks.find((m) => m.id === query.get('mark'));
  const chosen = query.get('maker') ?? marking?.maker ?? byForms(vocabulary.data?.makers ?? [])[0]?.id;
  const recipeOf = useForms((vocabulary.data?.patterns ?? []).filter((p) => p.maker === chosen).map(drawnAs));
  if (vocabulary.isPending) return <Loading />;
  if (vocabulary.isError) return <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />;
  const { patterns, marks, sources } = vocabulary.data;
  const makers = byForms(vocabulary.data.makers);
  const marked = marking;
  const maker = makers.find((m) => m.id === chosen);
  const own = marks.filter((m) => m.maker === chosen).sort((a, b) => begins(a.window) - begins(b.window));
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Reference</PageTitle>
        <span className="soft">
          <span className="num">{makers.length}</span> makers, <span className="num">{patterns.length}</span>{' '}
          patterns, <span className="num">{makers.reduce((n, m) => n + m.variants, 0)}</span> variants,{' '}
          <span className="num">{sources.length}</span> sources
        </span>
        <span className="grow" />
        <Link className="quiet" to="/frequency">
          How often things turn up
        </Link>
        <Link className="quiet" to="/questions">
          Open questions
        </Link>
        {mayImport && <ImportPack />}
      </div>
      {makers.length === 0 ? (
        <div className="state">
          <h2>The reference is empty</h2>
          <p>Import a pack, or write the first maker yourself: the bench and the prices lean on it.</p>
          {mayImport && (
            <Link className="quiet" to="/reference/write/makers">
              Write the first maker
            </Link>
          )}
        </div>
      ) : (
        <div className="refgrid">
          <nav aria-label="Makers">
            {makers.map((m) => (
              <button
                key={m.id}
                type="button"
                className="cand"
                aria-pressed={m.id === chosen}
                onClick={() => setQuery({ maker: m.id })}
              >
                <b>{m.name}</b>
                <div className="soft" style={{ fontSize: 12 }}>
                  {[
                    m.place,
                    m.active == null ? undefined : edtfInWords(m.active),
                    m.variants === 1 ? '1 variant' : `${m.variants} variants`,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </div>
              </button>
            ))}
            {mayImport && (
              <Link
                className="quiet"
                style={{ display: 'inline-block', marginTop: 10 }}
                to="/reference/write/makers"
              >
                + maker
              </Link>
            )}
          </nav>
          <section>
            {chosen !== undefined && <WriteLinks maker={chosen} />}
            <h2 className="sec">
              Patterns of {maker?.name} <small>open one for its forms along the years</small>
            </h2>
            <div className="slips patterns">
              {patterns
                .filter((p) => p.maker === chosen)
                .map((p) => (
                  <Link key={p.id} className="slip" to={`/reference/patterns/${p.id}`}>
                    <div className="pic">
                      <FormDrawing recipe={recipeOf(drawnAs(p))} width={262} height={74} label="" />
                    </div>
                    <div>
                      <div className="t">{p.name}</div>
                      <div className="soft">{CONSTRUCTION_WORDS[p.construction]}</div>
                      <div className="soft">
                        <span className="num">{p.variants}</span> variants
                        {p.number != null && <span className="mono"> · no. {p.number}</span>}
                      </div>
                    </div>
                  </Link>
                ))}
            </div>
            {own.length > 0 && (
              <>
                <h2 className="sec" style={{ marginTop: 20 }}>
                  Stamps
                </h2>
                <div className="marks">
                  {own.map((m) => (
                    <figure
                      key={m.id}
                      style={m.id === marked?.id ? { outline: '2px solid var(--ink)' } : undefined}
                    >
                      <Link to={`/reference/write/marks/${m.id}`}>
                        <MarkDrawing mark={m} codes={vocabulary.data.codes} width={132} />
                      </Link>
                      <figcaption className="soft" style={{ fontSize: 11.5 }}>
                        {stampCaption(m)}
                        {m.window == null && ' · not dated'}
                      </figcaption>
                    </figure>
                  ))}
                </div>
              </>
            )}
            {chosen !== undefined && <MakerSays maker={chosen} words={vocabulary.data} />}
          </section>
          <section>
            <h2 className="sec">
              Sources{' '}
              {mayImport && (
                <small>
                  <Link to="/reference/write/sources">+ source</Link>
                </small>
              )}
            </h2>
            {sources.map((s) => (
              <div key={s.id} style={{ borderTop: '1px solid var(--hair)', padding: '6px 0' }}>
                <b style={{ fontWeight: 640 }}>
                  <Link to={`/reference/write/sources/${s.id}`}>{s.title}</Link>
                </b>
                <div className="soft" style={{ fontSize: 12 }}>
                  {sentence(s.kind)}
                  {s.published != null && `, ${edtfInWords(s.published)}`}
                  {s.reliability != null && `, right ${Math.round(s.reliability * 100)} times in 100`}
                </div>
                {s.note != null && (
                  <div className="soft" style={{ fontSize: 12 }}>
                    {s.note}
                  </div>
                )}
              </div>
            ))}
            <h2 className="sec" style={{ marginTop: 18 }}>
              Features{' '}
              {mayImport && (
                <small>
                  <Link to="/reference/write/features">+ feature</Link>
                </small>
              )}
            </h2>
            <p className="soft" style={{ lineHeight: 1.9 }}>
              {vocabulary.data.features.map((f, i) => (
                <span key={f.id}>
                  {i > 0 && ' · '}
                  <Link to={`/reference/write/features/${f.id}`}>{f.label}</Link>
                </span>
              ))}
            </p>
            <Packs />
          </section>
        </div>
      )}
    </div>
  );
}

const begins = (window: string | null | undefined): number =>
  window == null ? Infinity : Number(periodOf(window).start.earliest);

function Packs() {
  const packs = useAnswer(referenceRoutes.listPacks);
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        Packs
      </h2>
      {packs.data?.items.map((p) => (
        <div key={p.id} className="f" style={{ gridTemplateColumns: '1fr auto' }}>
          <span>
            {p.title} <span className="soft">revision {p.revision}</span>
          </span>
          <a href={`/api/v1/reference-packs/${p.id}`} download={`${p.id}.json`}>
            Export
          </a>
        </div>
      ))}
    </>
  );
}
