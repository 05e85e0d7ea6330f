/** Money at both ends of a piece: the bases of value, the most to pay, the ask against patience, offers. */
import { offerRoutes, type PieceFinances } from '@jutbank/contract/worth';
import { Link } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { counted, dayText, moneyText, sentence, signed } from '../parts/words.ts';
import { Offers } from './Offers.tsx';
import { PatienceCurve } from './PatienceCurve.tsx';
import { Steps } from '../parts/Steps.tsx';
import './worth.css';

export function Finances({ sheet }: { sheet: PieceSheet }) {
  const ends = useAnswer(offerRoutes.money, { params: { id: sheet.id } });
  if (ends.isPending) return <Loading />;
  if (ends.isError) return <Failed error={ends.error} retry={() => void ends.refetch()} />;
  const { money } = ends.data;
  if (!money) return null;
  const { most } = money;
  return (
    <div className="twocol" style={{ marginTop: 22 }}>
      <section>
        <h2 className="sec">
          One piece, several values <small>of {dayText(money.asOf)}</small>
        </h2>
        <table className="grid">
          <tbody>
            {money.bases.map((b) => (
              <tr key={b.basis}>
                <td>
                  <b>{sentence(b.basis)}</b>
                  <span className="soft" style={{ display: 'block' }}>
                    {b.definition} {sentence(b.assumptions.join('; '))}.
                    {b.licensed && ' An appraisal for insurance may need a licensed appraiser.'}
                  </span>
                </td>
                <td className="r num">{moneyText(b.amount)}</td>
              </tr>
            ))}
            <tr>
              <td>
                <details>
                  <summary>
                    <b>Most to pay</b>{' '}
                    <span className="soft">
                      {money.care}, sold through {money.channel}
                    </span>
                  </summary>
                  <Steps steps={most.steps} currency={most.currency} />
                </details>
              </td>
              <td className="r num">
                {most.bid === null ? 'nothing' : moneyText({ amount: most.bid, currency: most.currency })}
              </td>
            </tr>
          </tbody>
        </table>
        {money.markets.length > 0 && <TwoMarkets markets={money.markets} sheet={sheet} />}
        {money.knowing && <Knowing knowing={money.knowing} pieceId={sheet.id} />}
      </section>
      <section>
        <h2 className="sec">
          Ask and patience{' '}
          <small>
            {money.patience.hazard.learnedFrom === 0
              ? 'not yet learned from the shop’s own days'
              : `learned from ${money.patience.hazard.learnedFrom} of the shop’s own`}
          </small>
        </h2>
        <PatienceCurve patience={money.patience} />
        {money.breakEven && (
          <p className="soft" style={{ marginTop: 6 }}>
            Asking <span className="num">{moneyText(money.breakEven.ask)}</span> through {money.channel} gets
            back what it cost.
            {money.net && (
              <>
                {' '}
                The ask leaves{' '}
                <span className="num">
                  {moneyText({ amount: money.net.left, currency: money.net.currency })}
                </span>
                {money.tax.on !== 'none' && (
                  <>
                    , after{' '}
                    <span className="num">
                      {moneyText({ amount: money.net.tax, currency: money.net.currency })}
                    </span>{' '}
                    tax on the {money.tax.on === 'margin' ? 'margin' : 'sale'}
                  </>
                )}
                .
              </>
            )}
          </p>
        )}
        <Offers sheet={sheet} offers={money.offers} />
      </section>
    </div>
  );
}

const MARKET_WORDS = { collectible: 'As a collectible', 'to-use': 'To use' } as const;
const MARKET_SCALE = { collectible: ['collector', 'finish'], 'to-use': ['user'] } as const;

/** The same piece before two kinds of buyers, who weigh its condition differently. */
function TwoMarkets({ markets, sheet }: { markets: PieceFinances['markets']; sheet: PieceSheet }) {
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        Two markets <small>from sales graded on either’s scale</small>
      </h2>
      <div className="pairwise">
        {(['collectible', 'to-use'] as const).map((name) => {
          const found = markets.find((m) => m.market === name);
          const grade = sheet.grade.grades.find((g) =>
            (MARKET_SCALE[name] as readonly string[]).includes(g.scale),
          );
          return (
            <div key={name}>
              <span className="soft">{MARKET_WORDS[name]}</span>
              {found ? (
                <>
                  <b className="num">{moneyText(found.estimate)}</b>
                  <span className="num soft">
                    {moneyText(found.low, true)} – {moneyText(found.high, true)}
                  </span>
                  <span className="soft">
                    {grade && sheet.condition.inspected ? `${sentence(grade.grade)} there; ` : ''}
                    {counted(found.sales)} sales; ten points of condition are worth{' '}
                    <span className="num">{signed(found.tenPoints, 1)} %</span> against all buyers
                  </span>
                </>
              ) : (
                <span className="soft">Fewer than three sales speak of it.</span>
              )}
            </div>
          );
        })}
      </div>
    </>
  );
}

/** What settling which variant it is would be worth, and which check pays most. */
function Knowing({ knowing, pieceId }: { knowing: NonNullable<PieceFinances['knowing']>; pieceId: string }) {
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        What a check is worth <small>next checks by money</small>
      </h2>
      <p className="soft">
        It may be one of several things. Knowing which would be worth{' '}
        <b className="num">{moneyText(knowing.worth)}</b>{' '}
        {knowing.mayLeave
          ? 'before it is bought: one could ask the right price, or leave it.'
          : 'in what is asked for it.'}
      </p>
      {knowing.checks.length === 0 ? (
        <p className="soft">No single check that is left would change what to do.</p>
      ) : (
        <table className="grid" style={{ marginTop: 6 }}>
          <tbody>
            {knowing.checks.map((c) => (
              <tr key={c.ask}>
                <td>
                  {c.ask} <span className="soft">{c.effort}</span>
                </td>
                <td className="r num">{moneyText(c.worth)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p style={{ marginTop: 6 }}>
        <Link to={`/pieces/${pieceId}/bench`}>To the bench</Link>
      </p>
    </>
  );
}
