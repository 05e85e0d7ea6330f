/** A pattern's forms along the year rule, and what changed from one to the next. */
import { CellTick } from '../parts/fields/choices.tsx';
import { referenceRoutes, type Vocabulary } from '@jutbank/contract/reference';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { edtfInWords, periodOf } from '@jutbank/core/dates';
import { cardView, drawPiece } from '@jutbank/core/drawing';
import { differencesOf, patternByYear, type Variant } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { CONSTRUCTION_WORDS, sentence, counted } from '../parts/words.ts';
import { Differences } from './Differences.tsx';
import { Stories } from './MakerSays.tsx';
import { YearRule, type RuleBar } from '../parts/YearRule.tsx';
import { FormDrawing } from './FormDrawing.tsx';
import { recipeOfVariant } from './useForms.ts';
import { useVocabulary } from './vocabulary.ts';
import './reference.css';

export default function PatternPage() {
  const { id = '' } = useParams();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const mayWrite = useMay('appraise');
  const detail = useAnswer(referenceRoutes.pattern, { params: { id } });
  const vocabulary = useVocabulary();
  if (detail.isError) return <Failed error={detail.error} retry={() => void detail.refetch()} />;
  if (!detail.data || !vocabulary.data) return <Loading />;
  const { pattern, maker } = detail.data;
  const variants = [...detail.data.variants].sort((a, b) => beginning(a) - beginning(b));
  const compared = variants.filter((v) => chosen.includes(v.id));
  const recipes = variants.map((v) => recipeOfVariant(vocabulary.data, pattern, v));
  const longest = Math.max(1, ...recipes.map((r) => drawPiece(r, cardView(r)).widthMm));
  // one scale for all, so that a longer form is seen to be longer
  const perMm = (DRAWN - 4) / longest;
  const production = patternByYear(pattern, variants);
  const most = Math.max(0, ...production.map((y) => y.made));
  const changeOvers = detail.data.windows;
  const featureLabel = (fid: string) => vocabulary.data.features.find((f) => f.id === fid)?.label ?? fid;
  const valueLabel = (fid: string, value: string | number) =>
    vocabulary.data.features
      .find((f) => f.id === fid)
      ?.values?.find((v) => v.id === value)
      ?.label.toLowerCase() ?? String(value);
  const bars = variants.flatMap((v): RuleBar[] =>
    v.window == null
      ? []
      : [
          {
            label: v.name,
            source: v.made?.quantity == null ? 'number unknown' : `${counted(v.made.quantity)} made`,
            strict: [v.window],
            lenient: [],
            binds: 'both',
          },
        ],
  );
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{pattern.name}</PageTitle>
        <span className="soft">
          <Link to={`/reference?maker=${maker.id}`}>{maker.name}</Link> ·{' '}
          {CONSTRUCTION_WORDS[pattern.construction]}
          {pattern.number != null && <span className="mono"> · no. {pattern.number}</span>}
        </span>
        <span className="grow" />
        {mayWrite && (
          <>
            <Link className="quiet" to={`/reference/write/patterns/${pattern.id}`}>
              Edit
            </Link>
            <Link className="quiet" to={`/reference/write/windows?maker=${maker.id}&pattern=${pattern.id}`}>
              + dated window
            </Link>
            <Link className="quiet" to={`/reference/write/variants?pattern=${pattern.id}`}>
              + variant
            </Link>
          </>
        )}
      </div>
      <div className="twocol">
        <section>
          <h2 className="sec">Forms along the years</h2>
          {bars.length === 0 ? (
            <p className="soft">No form is dated yet.</p>
          ) : (
            <YearRule
              core={undefined}
              bars={bars}
              label={`Forms of ${pattern.name}`}
              {...(most > 0
                ? { strip: production.map((y) => ({ year: y.year, strength: y.made / most })) }
                : {})}
            />
          )}
          {most > 0 && (
            <p className="soft" style={{ fontSize: 12.5 }}>
              Above the ticks: made each year, at most <span className="num">{counted(most)}</span>
              {production.every((y) => y.told)
                ? ', as told.'
                : '; years that nobody told are shared out evenly.'}
            </p>
          )}
          {changeOvers.length > 0 && (
            <>
              <h2 className="sec" style={{ marginTop: 16 }}>
                Change-overs <small>what dates a piece of this pattern</small>
              </h2>
              <table className="grid">
                <tbody>
                  {changeOvers.map((w) => (
                    <tr key={w.id}>
                      <td>
                        <Link to={`/reference/write/windows/${w.id}`}>
                          {featureLabel(w.feature)}: {valueLabel(w.feature, w.value)}
                        </Link>
                      </td>
                      <td className="num">{edtfInWords(w.window)}</td>
                      <td className="soft">
                        {vocabulary.data.sources.find((x) => x.id === w.source)?.title ?? 'no source'}
                        {w.page != null && `, p. ${w.page}`}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          <Stories stories={detail.data.stories} words={vocabulary.data} />
        </section>
        <section>
          <h2 className="sec">
            What changed <small>each against the one before; tick two to four to compare</small>
          </h2>
          <table className="grid succession">
            <tbody>
              {variants.map((v, i) => (
                <tr key={v.id}>
                  <td style={{ width: 28 }}>
                    <CellTick
                      label={`Compare ${v.name}`}
                      value={chosen.includes(v.id)}
                      disabled={!chosen.includes(v.id) && chosen.length >= MOST_COMPARED}
                      onChange={(taken) =>
                        setChosen(taken ? [...chosen, v.id] : chosen.filter((id) => id !== v.id))
                      }
                    />
                  </td>
                  <td className="drawn">
                    <FormDrawing
                      recipe={recipes[i] ?? recipeOfVariant(vocabulary.data, pattern)}
                      scale={perMm}
                      width={DRAWN}
                      label=""
                    />
                  </td>
                  <td style={{ width: '30%' }}>
                    <Link to={`/reference/variants/${v.id}`}>{v.name}</Link>
                    <div className="soft" style={{ fontSize: 12 }}>
                      {v.window == null ? 'not dated' : edtfInWords(v.window)}
                      {v.kind !== 'production' && ` · ${sentence(v.kind).toLowerCase()}`}
                    </div>
                  </td>
                  <td className="soft">{changes(variants[i - 1], v, vocabulary.data)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {compared.length > 1 && (
            <>
              <h2 className="sec" style={{ marginTop: 18 }}>
                Side by side <small>only what differs</small>
              </h2>
              <Differences variants={compared} pattern={pattern} words={vocabulary.data} />
            </>
          )}
        </section>
      </div>
    </div>
  );
}

const MOST_COMPARED = 4;
/** px that the longest form is drawn wide */
const DRAWN = 190;

const beginning = (v: Variant): number =>
  v.window == null ? Infinity : Number(periodOf(v.window).start.earliest);

function changes(before: Variant | undefined, v: Variant, vocabulary: Vocabulary): string {
  if (!before) return 'where it begins';
  const words = differencesOf([before, v]).flatMap((d) => {
    const values = d.kind === 'feature' ? (d.cells[1] ?? []) : [];
    if (d.kind !== 'feature' || values.length === 0) return [];
    const known = vocabulary.features.find((f) => f.id === d.id);
    const said = values
      .map((value) => known?.values?.find((x) => x.id === value)?.label.toLowerCase() ?? String(value))
      .join(' or ');
    return [`${known?.label.toLowerCase() ?? d.id}: ${said}`];
  });
  return words.length === 0 ? 'nothing that can be seen' : words.join('; ');
}
