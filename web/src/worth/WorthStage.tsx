/** What it would bring: range, chart, and the grid in which every adjustment can be read. */
import { worthRoutes } from '@jutbank/contract/worth';
import { lazy, Suspense, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import type { PricingBody } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { Failed, Loading } from '../base/states.tsx';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { Finances } from './FinancesPanel.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { isHere, useStage } from '../pieces/usePiece.ts';
import { Appraisals } from './Appraisals.tsx';
import { Grounds } from './Grounds.tsx';
import { AdjustmentGrid } from './AdjustmentGrid.tsx';
import { useVariantNames } from '../reference/vocabulary.ts';
import { VENUE_OF_SHOP } from '@jutbank/core/market';
import { inWords, moneyText, sentence } from '../parts/words.ts';

const PriceChart = lazy(() => import('./PriceChart.tsx').then((m) => ({ default: m.PriceChart })));
const asBody = (value: PricingBody) => value;

export default function WorthStage() {
  const sheet = useSheet();
  const { shop } = useSession();
  const mayPrice = useMay('appraise') && isHere(sheet);
  const worth = useAnswer(worthRoutes.pieceWorth, { params: { id: sheet.id } });
  const grounds = useAnswer(worthRoutes.grounds, { params: { id: sheet.id } });
  const pricing = useStage(sheet, worthRoutes.putPricing, sheet.pricing, asBody);
  const ask = useRef<HTMLInputElement>(null);
  const keys = useMemo(() => [{ key: 'a', does: 'Say what it asks', run: () => ask.current?.focus() }], []);
  useShortcuts('Worth', keys);
  const names = useVariantNames(worth.data?.pattern == null ? [] : [worth.data.pattern]);
  if (worth.isPending) return <Loading />;
  if (worth.isError) return <Failed error={worth.error} retry={() => void worth.refetch()} />;
  const estimate = worth.data.worth;
  return (
    <div className="stage">
      <div className="twocol">
        <section>
          <h2 className="sec">
            What it would bring{' '}
            <small>
              {estimate
                ? `at ${VENUE_OF_SHOP}: all the buyer pays, postage not; four of five sales fall inside`
                : ''}
            </small>
          </h2>
          {estimate && !estimate.supported ? (
            <div className="note">
              <b>No sale near it.</b>
              {estimate.notes[0]}
              <details>
                <summary>the range all the same</summary>
                <p className="num">
                  {moneyText(estimate.low, true)} – {moneyText(estimate.high, true)}, a guess by kind
                </p>
              </details>
            </div>
          ) : estimate ? (
            <>
              <p className="num" style={{ fontSize: 26, fontWeight: 650 }}>
                {moneyText(estimate.estimate, true)}{' '}
                <span className="soft" style={{ fontSize: 17, fontWeight: 450 }}>
                  {moneyText(estimate.low, true)} – {moneyText(estimate.high, true)}
                </span>
              </p>
              {estimate.notes.map((note) => (
                <p key={note} className={estimate.thin ? 'note bad' : 'note'} style={{ margin: '8px 0' }}>
                  {note}
                </p>
              ))}
              <Suspense fallback={<Loading />}>
                <PriceChart worth={estimate} />
              </Suspense>
            </>
          ) : (
            <div className="note">
              <b>No estimate yet.</b>
              {worth.data.why} <Link to={`/pieces/${sheet.id}/bench`}>To the bench</Link>
            </div>
          )}
        </section>
        <section>
          <StageBar title="What we ask" state={pricing} />
          <div
            style={{ display: 'grid', gap: 14, gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))' }}
          >
            <MoneyInput
              label="Asking price"
              inputRef={ask}
              value={pricing.value.ask}
              currency={shop.baseCurrency}
              disabled={!mayPrice}
              problem={pricing.problem?.at('/ask')}
              onChange={(ask, understood) => understood && pricing.set({ ...pricing.value, ask })}
            />
            <MoneyInput
              label="Not below"
              value={pricing.value.floor}
              currency={shop.baseCurrency}
              disabled={!mayPrice}
              problem={pricing.problem?.at('/floor')}
              onChange={(floor, understood) => understood && pricing.set({ ...pricing.value, floor })}
            />
          </div>
          <div style={{ marginTop: 14 }}>
            <TextInput
              label="Why this price, and not what the other ways say"
              rows={2}
              disabled={!mayPrice}
              value={pricing.value.note}
              onChange={(note) => pricing.set({ ...pricing.value, note })}
            />
          </div>
          {estimate && (
            <>
              <h2 className="sec" style={{ marginTop: 18 }}>
                By other ways
              </h2>
              <table className="grid">
                <tbody>
                  {estimate.methods.map((m) => (
                    <tr key={m.name}>
                      <td>{sentence(m.name)}</td>
                      <td className="r num">{moneyText(m.estimate, true)}</td>
                    </tr>
                  ))}
                  {estimate.byVariant.length > 1 &&
                    estimate.byVariant.map((v) => (
                      <tr key={v.variant ?? 'unlisted'}>
                        <td>
                          If it is{' '}
                          {v.variant === null
                            ? 'something unlisted'
                            : (names.get(v.variant)?.label ?? inWords(v.variant))}{' '}
                          <span className="soft">({Math.round(v.probability * 100)} in 100)</span>
                        </td>
                        <td className="r num">{moneyText(v.estimate, true)}</td>
                      </tr>
                    ))}
                </tbody>
              </table>
              <p className="soft" style={{ fontSize: 12, marginTop: 8 }}>
                An estimate from sales, not an appraisal: for tax, court or insurance a licensed appraiser may
                be needed.
              </p>
              <Appraisals sheet={sheet} />
            </>
          )}
        </section>
      </div>
      {estimate && (
        <AdjustmentGrid
          pieceId={sheet.id}
          estimate={estimate}
          overrides={worth.data.overrides}
          corrected={worth.data.corrected}
          mayCorrect={mayPrice}
        />
      )}
      {estimate && grounds.data && <Grounds grounds={grounds.data} />}
      {estimate && <Finances sheet={sheet} />}
    </div>
  );
}
