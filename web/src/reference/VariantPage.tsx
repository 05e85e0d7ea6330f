/** One variant: its features, marks, windows, and where each is said. */
import { referenceRoutes } from '@jutbank/contract/reference';
import { Link, useParams } from 'react-router';
import { edtfInWords } from '@jutbank/core/dates';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { MarkDrawing } from '../parts/Drawn.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { stampCaption } from '../parts/stampCaption.ts';
import { sentence, counted } from '../parts/words.ts';
import { YearRule } from '../parts/YearRule.tsx';
import { ScarcityTable } from './ScarcityTable.tsx';
import { VariantDrawings } from './VariantDrawings.tsx';
import { recipeOfVariant } from './useForms.ts';
import { useVocabulary } from './vocabulary.ts';
import './reference.css';

export default function VariantPage() {
  const { id = '' } = useParams();
  const mayWrite = useMay('appraise');
  const detail = useAnswer(referenceRoutes.variant, { params: { id } });
  const vocabulary = useVocabulary();
  if (detail.isError) return <Failed error={detail.error} retry={() => void detail.refetch()} />;
  if (!detail.data || !vocabulary.data) return <Loading />;
  const { variant, pattern, maker, marks, windows, sources, scarcity } = detail.data;
  const feature = (fid: string) => vocabulary.data.features.find((f) => f.id === fid);
  const value = (fid: string, v: string | number) =>
    feature(fid)?.values?.find((x) => x.id === v)?.label ?? String(v);
  const title = (sid: string | null | undefined) => sources.find((s) => s.id === sid)?.title ?? '';
  const measures = Object.entries({ ...pattern.measures, ...variant.measures });
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{variant.name}</PageTitle>
        <span className="soft">
          <Link to={`/reference/patterns/${pattern.id}`}>{pattern.name}</Link> ·{' '}
          <Link to={`/reference?maker=${maker.id}`}>{maker.name}</Link> · {sentence(variant.kind)}
          {variant.issuedTo != null && `, issued to ${variant.issuedTo}`}
        </span>
        <span className="grow" />
        {mayWrite && (
          <>
            <Link className="quiet" to={`/reference/write/variants/${variant.id}`}>
              Edit
            </Link>
            <Link className="quiet" to={`/reference/write/variants?from=${variant.id}`}>
              Copy as next form
            </Link>
          </>
        )}
      </div>
      {variant.tells?.map((tell) => (
        <div key={tell} className="note bad" style={{ marginBottom: 8 }}>
          <b>What gives it away</b>
          {tell}
        </div>
      ))}
      <VariantDrawings recipe={recipeOfVariant(vocabulary.data, pattern, variant)} />
      <div className="twocol">
        <section>
          <h2 className="sec">
            Made{' '}
            <small>
              {variant.window == null ? 'not dated' : edtfInWords(variant.window)}
              {variant.made?.quantity != null &&
                `, ${counted(variant.made.quantity)} (${variant.made.basis})`}
            </small>
          </h2>
          <YearRule
            core={variant.window ?? undefined}
            bars={windows.map((w) => ({
              label: `${feature(w.feature)?.label ?? w.feature}: ${value(w.feature, w.value).toLowerCase()}`,
              source: [title(w.source), w.page].filter(Boolean).join(' '),
              strict: [w.window],
              lenient: [],
            }))}
            label={`Windows of ${variant.name}`}
          />
          {windows
            .filter((w) => w.note != null)
            .map((w) => (
              <p key={w.id} className="soft" style={{ fontSize: 12.5 }}>
                {feature(w.feature)?.label}: {w.note}
              </p>
            ))}
          {marks.length > 0 && (
            <>
              <h2 className="sec" style={{ marginTop: 18 }}>
                Stamp
              </h2>
              <div className="marks">
                {marks.map((m) => (
                  <figure key={m.id}>
                    <MarkDrawing mark={m} codes={vocabulary.data.codes} width={170} />
                    <figcaption className="soft" style={{ fontSize: 12 }}>
                      {stampCaption(m)} {[title(m.source), m.page].filter(Boolean).join(' ')}
                    </figcaption>
                  </figure>
                ))}
              </div>
            </>
          )}
        </section>
        <section>
          <h2 className="sec">Features</h2>
          <table className="grid">
            <tbody>
              {Object.entries(variant.features ?? {}).map(([fid, values]) => (
                <tr key={fid}>
                  <td className="soft">{feature(fid)?.label ?? fid}</td>
                  <td>{values.map((v) => value(fid, v)).join(' or ')}</td>
                </tr>
              ))}
              {measures.map(([fid, m]) => (
                <tr key={fid}>
                  <td className="soft">{feature(fid)?.label ?? fid}</td>
                  <td className="num">
                    {formatQuantity(m.value, dimensionOfUnit(feature(fid)?.unit))}
                    {m.tolerance != null && <span className="soft"> ± {m.tolerance}</span>}
                  </td>
                </tr>
              ))}
              {variant.edition != null && (
                <tr>
                  <td className="soft">Run</td>
                  <td className="num">
                    {variant.edition.run == null
                      ? 'of unknown size'
                      : `${counted(variant.edition.run)} from number ${variant.edition.firstNumber ?? 1}`}
                    {variant.edition.retailer != null && ` for ${variant.edition.retailer}`}
                  </td>
                </tr>
              )}
              {variant.edition?.index != null && (
                <tr>
                  <td className="soft">Annual series</td>
                  <td className="num">number {variant.edition.index}</td>
                </tr>
              )}
              {(variant.edition?.split ?? []).map((share) => (
                <tr key={`${share.by} ${share.of}`}>
                  <td className="soft">of the run, by {share.by}</td>
                  <td>
                    <span className="num">{counted(share.run)}</span> {share.of}
                    {share.firstNumber != null && (
                      <span className="soft"> from number {share.firstNumber}</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <ScarcityTable scarcity={scarcity} />
          <h2 className="sec" style={{ marginTop: 18 }}>
            Where it is said
          </h2>
          {(variant.claims ?? []).map((c) => (
            <p key={c.about + c.source} className="soft">
              {sentence(c.about)}: {title(c.source)}, page {c.page}
            </p>
          ))}
        </section>
      </div>
    </div>
  );
}
