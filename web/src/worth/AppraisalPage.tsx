/** An appraisal as it was made, and what would be said today. */
import { worthRoutes, type AppraisalRecord, type Recomputed } from '@jutbank/contract/worth';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { dayText, moneyText, sentence, signed } from '../parts/words.ts';
import { Evidence } from './Evidence.tsx';
import { BASIS_WORDS, CAUSE_WORDS, PURPOSE_WORDS } from './words.ts';
import './worth.css';

export default function AppraisalPage() {
  const { id = '' } = useParams();
  const kept = useAnswer(worthRoutes.appraisal, { params: { id } });
  if (kept.isPending) return <Loading />;
  if (kept.isError) return <Failed error={kept.error} retry={() => void kept.refetch()} />;
  const { record, fingerprint, intact } = kept.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{`Appraisal ${record.number}`}</PageTitle>
        <span className="soft">
          <Link to={`/pieces/${record.piece.id}/worth`}>
            {record.piece.stockNumber} {record.piece.title}
          </Link>
        </span>
        <span className="grow" />
        <Button
          component="a"
          href={`/api/v1/appraisals/${id}/appraisal.pdf`}
          target="_blank"
          variant="contained"
        >
          For paper
        </Button>
        <Button component="a" href={`/api/v1/appraisals/${id}/record.json`}>
          The record
        </Button>
      </div>
      {!intact && (
        <div className="note bad" role="alert">
          <b>This record is not as it was made.</b>Its fingerprint does not match the ledger: do not rely on
          it.
        </div>
      )}
      <div className="twocol">
        <section>
          <p className="num appraisedfigure">{moneyText(record.concluded)}</p>
          <p>{record.because}</p>
          <Facts record={record} />
          <Again id={id} record={record} />
          <p className="soft fingerprint">
            Record <span className="mono">{fingerprint}</span>
            {intact && ', as the ledger holds it'}. {record.engine.version}, sales{' '}
            {record.revisions.comparables}, rates {record.revisions.rates}, reference{' '}
            {record.revisions.reference}.
          </p>
        </section>
        <section>
          <Evidence
            evidence={record}
            heading={`What it rested on, ${dayText(record.effectiveDate)}`}
            checks={new Map(record.rows.flatMap((row) => (row.check ? [[row.id, row.check]] : [])))}
          />
        </section>
      </div>
    </div>
  );
}

function Facts({ record }: { record: AppraisalRecord }) {
  const { piece } = record;
  const lines: [string, string][] = [
    ['Basis', `${BASIS_WORDS[record.basis]}, as of ${dayText(record.effectiveDate)}`],
    ['For', `${PURPOSE_WORDS[record.purpose]}, to be used by ${record.intendedUser}`],
    ['Signed', `${record.signature}, ${dayText(record.issuedAt)}`],
    ['Interest', record.interest],
    [
      'It was taken for',
      `${piece.which.label}, ${piece.which.variants.map((v) => `${v.name} (${Math.round(100 * v.probability)} in 100)`).join('; ')}; made ${piece.made ?? 'nobody knows when'}`,
    ],
    [
      'Condition',
      piece.condition
        ? `${sentence(piece.condition.grade)} on the ${piece.condition.scale} scale, index ${piece.condition.index.toFixed(1)} of 100${piece.condition.inspected ? '' : '; not inspected'}`
        : 'not graded',
    ],
    [
      'Inspected',
      piece.scope.by === null ? 'by nobody' : `by ${piece.scope.by}, ${dayText(piece.scope.at ?? '')}`,
    ],
    ...(piece.scope.notExamined.length > 0
      ? [['Not examined', piece.scope.notExamined.join('; ')] as [string, string]]
      : []),
    [
      'Assumed',
      record.assumptions.length === 0
        ? 'nothing beyond what is written here'
        : record.assumptions
            .map(
              (a) =>
                `${a.extraordinary ? 'extraordinary: ' : ''}${a.text}${a.effectPct === null ? '' : ` (else ${signed(a.effectPct)} %)`}`,
            )
            .join('; '),
    ],
    ...(record.limiting === '' ? [] : [['Limits', record.limiting] as [string, string]]),
  ];
  return (
    <dl className="facts">
      {lines.map(([name, text]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{text}</dd>
        </div>
      ))}
    </dl>
  );
}

function Again({ id, record }: { id: string; record: AppraisalRecord }) {
  const again = useMutation({
    mutationFn: () => send(worthRoutes.recompute, { params: { id } }),
  });
  const told = again.data;
  return (
    <section className="again">
      <h2 className="sec">
        Reckoned again <small>the same question, the same day</small>
      </h2>
      {again.isError && <Failed error={again.error} retry={() => again.mutate()} />}
      {told ? (
        <table className="grid" aria-live="polite">
          <tbody>
            <tr>
              <td>
                From what was known then
                <span className="soft" style={{ display: 'block' }}>
                  {told.agrees
                    ? 'the recorded figure, to the cent'
                    : `the record says ${moneyText(record.figure)}`}
                </span>
              </td>
              <td className={told.agrees ? 'r num' : 'r num warn'}>{moneyText(told.then)}</td>
            </tr>
            {told.changes.map((change) => (
              <tr key={change.cause} className={Number(change.by.amount) === 0 ? 'soft' : ''}>
                <td>
                  {CAUSE_WORDS[change.cause]}
                  <span className="soft" style={{ display: 'block' }}>
                    {change.told}
                  </span>
                </td>
                <td className="r num">{signedMoney(change.by)}</td>
              </tr>
            ))}
            <tr>
              <td>
                <b>From what is known now</b>
              </td>
              <td className="r num">
                <b>{moneyText(told.now)}</b>
              </td>
            </tr>
          </tbody>
        </table>
      ) : (
        <Button disabled={again.isPending} onClick={() => again.mutate()}>
          {again.isPending ? 'Reckoning…' : 'Reckon it again'}
        </Button>
      )}
    </section>
  );
}

const signedMoney = (by: Recomputed['now']): string =>
  Number(by.amount) === 0 ? '–' : `${Number(by.amount) > 0 ? '+' : ''}${moneyText(by)}`;
