/** The grid: every sale that bears on the estimate, each line to be read, challenged and corrected with a reason. */
import { worthRoutes, type OverrideRecord, type WorthOfPiece } from '@jutbank/contract/worth';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import type { EstimateAnswer, EstimateRow } from '@jutbank/contract/market';
import { useKeptAnswers } from '../base/answers.ts';
import { chosen, optionsOf, Select } from '../parts/fields/choices.tsx';
import { NumberInput } from '../parts/fields/figures.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { invalidatePiece } from '../pieces/usePiece.ts';
import { send } from '../base/api.ts';
import { dayText, moneyText, sentence, signed } from '../parts/words.ts';

const SHORTEST = 14;
const WHOLE = 'the sale itself';
/** Which rate brought a price to this currency: always to be seen. */
const rateText = (row: EstimateRow): string | undefined =>
  row.rate ? `${row.paid.currency} at ${row.rate.rate} of ${dayText(row.rate.date)}` : undefined;
const percentText = (percent: number) => `${signed(percent, 1)} %`;

export function AdjustmentGrid({
  pieceId,
  estimate,
  overrides,
  corrected,
  mayCorrect,
}: {
  pieceId: string;
  estimate: EstimateAnswer;
  overrides: readonly OverrideRecord[];
  corrected: WorthOfPiece['corrected'];
  mayCorrect: boolean;
}) {
  const [all, setAll] = useState(false);
  const [challenged, setChallenged] = useState<EstimateRow>();
  const rows = all ? estimate.comparables : estimate.comparables.slice(0, SHORTEST);
  const names = [...new Set(estimate.comparables.flatMap((r) => r.adjustments.map((a) => a.name)))];
  const inForce = overrides.filter((o) => o.endedAt === null);
  return (
    <section style={{ marginTop: 22 }}>
      <h2 className="sec">
        The grid{' '}
        <small>
          paid × every adjustment = what it comes to; weighed together they give{' '}
          {moneyText(estimate.methods.find((m) => m.name === 'adjustment-grid')?.estimate)}
          {estimate.byVariant.length > 1 && (
            <>, the middle of what it may be is {moneyText(estimate.estimate)}</>
          )}
          {corrected && (
            <>
              ; with your corrections <b className="num">{moneyText(corrected)}</b>
            </>
          )}
        </small>
      </h2>
      <Corrections pieceId={pieceId} estimate={estimate} overrides={overrides} mayCorrect={mayCorrect} />
      <div className="scroll" tabIndex={0} role="region" aria-label="Adjustment grid">
        <table className="grid">
          <thead>
            <tr>
              <th>Sold</th>
              <th>Where</th>
              <th>Kind</th>
              <th className="r">Paid</th>
              {names.map((n) => (
                <th key={n} className="r">
                  {sentence(n)}
                </th>
              ))}
              <th className="r">Comes to</th>
              <th className="r">Weight</th>
              {mayCorrect && (
                <th>
                  <span className="visually-hidden">Challenge</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Fragment key={`${row.id} ${row.weight}`}>
                <Row
                  row={row}
                  names={names}
                  overrides={inForce.filter((o) => o.comparable === row.id)}
                  onChallenge={mayCorrect ? () => setChallenged(row) : undefined}
                />
                {challenged === row && (
                  <tr>
                    <td colSpan={7 + names.length}>
                      <Challenge
                        key={challenged.id}
                        pieceId={pieceId}
                        row={challenged}
                        names={names}
                        onDone={() => setChallenged(undefined)}
                      />
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
            <tr>
              <td colSpan={4 + names.length}>
                What pattern, maker and kind say{' '}
                <span className="soft">({estimate.rest.count} other prices behind it)</span>
              </td>
              <td className="r num">{moneyText(estimate.rest.adjusted)}</td>
              <td className="r num">{(estimate.rest.weight * 100).toFixed(1)} %</td>
              {mayCorrect && <td />}
            </tr>
          </tbody>
        </table>
      </div>
      {estimate.comparables.length > SHORTEST && (
        <Button variant="text" className="quiet soft" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show all ${estimate.comparables.length}`}
        </Button>
      )}
    </section>
  );
}

function Row({
  row,
  names,
  overrides,
  onChallenge,
}: {
  row: EstimateRow;
  names: readonly string[];
  overrides: readonly OverrideRecord[];
  onChallenge: (() => void) | undefined;
}) {
  if (row.excluded !== null)
    return (
      <tr className="soft">
        <td>{dayText(row.saleDate)}</td>
        <td>{row.venue}</td>
        <td>{row.priceKind}</td>
        <td className="r num">{moneyText(row.paid)}</td>
        <td colSpan={names.length + 3}>
          left out: {row.excluded === 'no-rate' ? 'no exchange rate for that day' : row.excluded}
        </td>
      </tr>
    );
  const leftOut = overrides.some((o) => o.percent === null);
  return (
    <tr className={leftOut ? 'soft' : ''}>
      <td className="num">{dayText(row.saleDate)}</td>
      <td>{row.venue}</td>
      <td>{row.priceKind}</td>
      <td className="r num" title={rateText(row)}>
        {moneyText(row.paid)}
      </td>
      {names.map((n) => {
        const percent = row.adjustments.find((a) => a.name === n)?.percent;
        const own = overrides.find((o) => o.line === n && o.percent !== null)?.percent;
        return (
          <td key={n} className="r num">
            {own == null ? (
              percent !== undefined && percentText(percent)
            ) : (
              <>
                <s className="soft">{percent !== undefined && percentText(percent)}</s>{' '}
                <b>{percentText(own)}</b>
              </>
            )}
          </td>
        );
      })}
      <td className="r num">{leftOut ? 'left out' : moneyText(row.adjusted)}</td>
      <td className="r num">{(row.weight * 100).toFixed(1)} %</td>
      {onChallenge && (
        <td className="r">
          <Button
            variant="text"
            className="quiet soft"
            aria-label={`Challenge the sale of ${dayText(row.saleDate)}`}
            onClick={onChallenge}
          >
            challenge
          </Button>
        </td>
      )}
    </tr>
  );
}

/** One sale challenged: a line that should say something else, or the whole sale. */
function Challenge({
  pieceId,
  row,
  names,
  onDone,
}: {
  pieceId: string;
  row: EstimateRow;
  names: readonly string[];
  onDone: () => void;
}) {
  const answers = useKeptAnswers();
  const empty: { line: string; percent: number | null; reason: string } = {
    line: row.adjustments[0]?.name ?? WHOLE,
    percent: null,
    reason: '',
  };
  const form = useContractForm(worthRoutes.addOverride, {
    params: { id: pieceId },
    empty,
    toBody: ({ line, percent, reason }: typeof empty) => ({
      comparable: row.id,
      line,
      percent: line === WHOLE ? null : percent,
      reason,
    }),
    onSent: () => {
      void invalidatePiece(answers, pieceId);
      onDone();
    },
  });
  const { line } = form.values;
  const engine = row.adjustments.find((a) => a.name === line)?.percent;
  return (
    <form className="note fieldrow" noValidate style={{ marginBottom: 10 }} onSubmit={form.onSubmit}>
      <span style={{ alignSelf: 'center' }}>
        {dayText(row.saleDate)}, {row.venue}, <span className="num">{moneyText(row.paid)}</span>
        {row.rate && <span className="soft"> ({rateText(row)})</span>}
      </span>
      <Select label="Line" options={optionsOf([...names, WHOLE], sentence)} {...chosen(form.field('line'))} />
      {line !== WHOLE && (
        <NumberInput
          label="Should be"
          unit="%"
          why={engine === undefined ? 'nothing so far' : `says ${percentText(engine)}`}
          {...form.field('percent')}
        />
      )}
      <TextInput
        label="Your reason"
        why={line === WHOLE ? 'it is left out of this estimate' : undefined}
        {...form.field('reason')}
      />
      <Submit form={form} words="Correct it" disabled={line !== WHOLE && form.values.percent === null}>
        <Button onClick={onDone}>Leave it</Button>
      </Submit>
    </form>
  );
}

/** What was corrected, by whom and why; ended ones stay to be read. */
function Corrections({
  pieceId,
  estimate,
  overrides,
  mayCorrect,
}: {
  pieceId: string;
  estimate: EstimateAnswer;
  overrides: readonly OverrideRecord[];
  mayCorrect: boolean;
}) {
  const answers = useKeptAnswers();
  const end = useMutation({
    mutationFn: (id: string) => send(worthRoutes.endOverride, { params: { id: pieceId, override: id } }),
    onSuccess: () => void invalidatePiece(answers, pieceId),
  });
  if (overrides.length === 0) return null;
  const saleOf = (o: OverrideRecord) => estimate.comparables.find((row) => row.id === o.comparable)?.saleDate;
  return (
    <details style={{ marginBottom: 8 }} open>
      <summary className="soft">Corrections</summary>
      <table className="grid">
        <tbody>
          {overrides.map((o) => (
            <tr key={o.id} className={o.endedAt === null ? '' : 'soft'}>
              <td className="num">{saleOf(o) ?? 'a sale no longer shown'}</td>
              <td>{o.percent === null ? 'left out' : `${sentence(o.line)} ${percentText(o.percent)}`}</td>
              <td>{o.reason}</td>
              <td className="soft">
                {o.person}, {dayText(o.at)}
                {o.endedAt !== null && `; taken back ${dayText(o.endedAt)}`}
              </td>
              <td className="r">
                {mayCorrect && o.endedAt === null && (
                  <Button variant="text" className="quiet" onClick={() => end.mutate(o.id)}>
                    Take back
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
