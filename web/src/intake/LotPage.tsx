/** One lot: its costs, its pieces taken in in a run by keyboard, each with its share, and the recovery over time. */
import { edtfInWords } from '@jutbank/core/dates';
import { hasLeft } from '@jutbank/core/pieces';
import { pieceRoutes } from '@jutbank/contract/pieces';
import {
  lotRoutes,
  type LotBody,
  type LotPiece,
  type LotSheet,
  type LotSharesBody,
} from '@jutbank/contract/intake';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ALLOCATION_METHODS } from '@jutbank/core/intake';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { CellInput } from '../parts/fields/CellInput.tsx';
import { CellTick, optionsOf, Select } from '../parts/fields/choices.tsx';
import { decimal } from '../parts/fields/typed.ts';
import { Submit } from '../parts/fields/Submit.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { Table, type Column } from '../parts/table/Table.tsx';
import { dayText, moneyText, sentence, STAGE_WORDS } from '../parts/words.ts';
import { LotSource } from './LotSource.tsx';
import { LotPictures } from './LotPictures.tsx';
import { RecoveryBar } from './RecoveryBar.tsx';
import { Run } from './Run.tsx';
import './lots.css';

const METHOD_WORDS = {
  'relative-value': 'by what each is worth',
  equal: 'the same for each',
  manual: 'by hand, the rest by worth',
} as const;

export default function LotPage() {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const answers = useKeptAnswers();
  const mayWork = useMay('work');
  const lot = useAnswer(lotRoutes.lot, { params: { id } });
  const taken = (sheet: LotSheet) => {
    answers.set(lotRoutes.lot, { params: { id } }, sheet);
    void answers.invalidate(lotRoutes.listLots, pieceRoutes.tray);
  };
  const put = useMutation({
    mutationFn: (body: LotBody) =>
      send(lotRoutes.put, { params: { id }, body, version: lot.data?.version ?? 0 }),
    onSuccess: taken,
  });
  const shares = useMutation({
    mutationFn: (body: LotSharesBody) =>
      send(lotRoutes.putShares, { params: { id }, body, version: lot.data?.version ?? 0 }),
    onSuccess: taken,
  });
  const takeOut = useMutation({
    mutationFn: (piece: string) =>
      send(lotRoutes.takeOut, { params: { id, piece }, version: lot.data?.version ?? 0 }),
    onSuccess: taken,
  });
  if (lot.isPending) return <Loading />;
  if (lot.isError) return <Failed error={lot.error} retry={() => void lot.refetch()} />;
  const sheet = lot.data;
  const money = (amount: string) => moneyText({ amount, currency: sheet.currency });
  const problem = [put.error, shares.error, takeOut.error].find((e) => e instanceof ApiProblem);
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{sheet.name}</PageTitle>
        <span className="soft">
          {sheet.pieces} pieces, {sheet.sold} sold, {sheet.kept} kept
        </span>
        <span className="grow" />
        <a className="quiet" href={`/api/v1/lots/${id}/sheet.pdf`} target="_blank" rel="noreferrer">
          Sheet for printing
        </a>
      </div>
      {problem && (
        <p className="note bad" role="alert">
          {problem.status === 412
            ? 'Somebody changed this lot meanwhile. '
            : (problem.errors[0]?.message ?? problem.message)}
          {problem.status === 412 && (
            <Button
              onClick={() => {
                put.reset();
                shares.reset();
                takeOut.reset();
                void lot.refetch();
              }}
            >
              Look at it again
            </Button>
          )}
        </p>
      )}
      <Origin key={`from ${sheet.version}`} sheet={sheet} may={mayWork} onTaken={taken} />
      <div className="lottop">
        <Costs key={sheet.version} sheet={sheet} disabled={!mayWork} onChange={(body) => put.mutate(body)} />
        <section>
          <h2 className="sec">
            What has come back{' '}
            <small>
              {sheet.brokeEvenOn === null
                ? 'not yet paid for itself'
                : `paid for itself on ${dayText(sheet.brokeEvenOn)}`}
            </small>
          </h2>
          <p className="num" style={{ fontSize: 22, fontWeight: 650 }}>
            {money(sheet.recovered)}{' '}
            <span className="soft" style={{ fontSize: 15 }}>
              of {money(sheet.cost)}
            </span>
          </p>
          <RecoveryBar share={sheet.share} />
          <Recovery sheet={sheet} />
          {sheet.stillWorth && (
            <p className="soft" style={{ marginTop: 6 }}>
              What is not sold would bring about{' '}
              <span className="num">{moneyText(sheet.stillWorth, true)}</span>.
            </p>
          )}
        </section>
      </div>
      {mayWork && <Run key={`run ${id}`} id={id} currency={sheet.currency} onTaken={taken} />}
      {mayWork && sheet.list.some((piece) => !hasLeft(piece.stage)) && (
        <LotPictures
          key={`pictures ${id}`}
          pieces={sheet.list.filter((piece) => !hasLeft(piece.stage))}
          onAdded={() => void lot.refetch()}
        />
      )}
      {sheet.list.length === 0 ? (
        <p className="soft">
          No piece yet. Write the first one’s working name above and press Enter, or paste a whole list; the
          next line waits for the next one.
        </p>
      ) : (
        <Table
          label="Pieces of the lot"
          rows={sheet.list}
          columns={columnsOf({
            sheet,
            mayWork,
            onTakeOut: (piece) => takeOut.mutate(piece.id),
            onChange: (piece, change) =>
              shares.mutate({
                pieces: [
                  {
                    id: piece.id,
                    value: piece.valueSaid ? piece.value : null,
                    share: piece.share,
                    keep: piece.keep,
                    ...change,
                  },
                ],
              }),
          })}
          keyOf={(piece) => `${piece.id} ${sheet.version}`}
          onOpen={(piece) => void navigate(`/pieces/${piece.id}`)}
        />
      )}
    </div>
  );
}

/** The columns of the lot's pieces; what is sold is changed no more. */
function columnsOf({
  sheet,
  mayWork,
  onTakeOut,
  onChange,
}: {
  sheet: LotSheet;
  mayWork: boolean;
  onTakeOut: (piece: LotPiece) => void;
  onChange: (piece: LotPiece, change: Partial<LotSharesBody['pieces'][number]>) => void;
}): readonly Column<LotPiece>[] {
  const money = (amount: string | null) =>
    moneyText(amount === null ? null : { amount, currency: sheet.currency });
  const fixed = (piece: LotPiece) => !mayWork || hasLeft(piece.stage);
  const amountOf = (amount: string | null) => amount && Number(amount);
  return [
    {
      id: 'number',
      head: 'Number',
      className: 'mono',
      cell: (p) => p.stockNumber,
      sortBy: (p) => p.stockNumber,
    },
    {
      id: 'piece',
      head: 'Piece',
      lead: true,
      cell: (p) => <Link to={`/pieces/${p.id}`}>{p.title}</Link>,
      sortBy: (p) => p.title,
    },
    {
      id: 'stage',
      head: 'Where it stands',
      className: 'soft',
      cell: (p) => STAGE_WORDS[p.stage],
      sortBy: (p) => p.stage,
    },
    {
      id: 'pictures',
      head: 'Pictures',
      figure: true,
      cell: (p) => (p.pictures === 0 ? <span className="soft">none</span> : p.pictures),
      sortBy: (p) => p.pictures,
    },
    {
      id: 'worth',
      head: `Worth among them, ${sheet.currency}`,
      figure: true,
      cell: (p) => (
        <CellInput
          label={`Worth of ${p.title}`}
          value={p.valueSaid ? (p.value ?? '') : ''}
          hint={p.value ?? 'unknown'}
          disabled={fixed(p)}
          onKeep={(text) => onChange(p, { value: text === '' ? null : decimal(text) })}
        />
      ),
      sortBy: (p) => amountOf(p.value),
    },
    ...(sheet.lot.method === 'manual'
      ? [
          {
            id: 'share',
            head: 'Fixed share',
            figure: true,
            cell: (p: LotPiece) => (
              <CellInput
                label={`Fixed share of ${p.title}`}
                value={p.share ?? ''}
                hint="open"
                disabled={fixed(p)}
                onKeep={(text) => onChange(p, { share: text === '' ? null : decimal(text) })}
              />
            ),
          },
        ]
      : []),
    {
      id: 'cost',
      head: 'Share of cost',
      figure: true,
      cell: (p) => <b>{money(p.cost)}</b>,
      sortBy: (p) => amountOf(p.cost),
    },
    {
      id: 'keep',
      head: 'Keep',
      cell: (p) => (
        <>
          <CellTick
            label={`Keep ${p.title}`}
            value={p.keep}
            disabled={fixed(p)}
            onChange={(keep) => onChange(p, { keep })}
          />
          {p.keep ? 'kept' : ''}
        </>
      ),
    },
    {
      id: 'left',
      head: 'Left of its sale',
      figure: true,
      cell: (p) => (
        <>
          {money(p.net)} {p.soldOn && <span className="soft">{dayText(p.soldOn)}</span>}
        </>
      ),
      sortBy: (p) => amountOf(p.net),
    },
    {
      id: 'out',
      head: 'Take out',
      headHidden: true,
      className: 'r',
      cell: (p) =>
        !fixed(p) && (
          <Button
            variant="text"
            aria-label={`take out ${p.title}`}
            title="It does not belong to this lot: its share goes back to the others, and its own cost has to be said anew"
            onClick={() => onTakeOut(p)}
          >
            take out
          </Button>
        ),
    },
  ];
}

/** Whose it was: said in a line, and put right where it stands. */
function Origin({
  sheet,
  may,
  onTaken,
}: {
  sheet: LotSheet;
  may: boolean;
  onTaken: (sheet: LotSheet) => void;
}) {
  const [open, setOpen] = useState(false);
  const { sourceKind, sourceName, acquired } = sheet.lot;
  const form = useContractForm(lotRoutes.put, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: sheet.lot,
    toBody: (lot: LotBody) => lot,
    onSent: onTaken,
  });
  if (open)
    return (
      <form className="lotnew" noValidate onSubmit={form.onSubmit}>
        <LotSource
          name={form.field('name')}
          sourceKind={form.field('sourceKind')}
          sourceName={form.field('sourceName')}
          acquired={form.field('acquired')}
        />
        <Submit form={form} words="Keep it">
          <Button variant="text" className="quiet" onClick={() => setOpen(false)}>
            Leave it
          </Button>
          <span className="soft">Pieces that are taken in already keep what they have.</span>
        </Submit>
      </form>
    );
  const said = [
    sourceKind !== null && sentence(sourceKind),
    sourceName,
    acquired !== null && edtfInWords(acquired),
  ].filter(Boolean);
  return (
    <p style={{ margin: '-6px 0 16px' }}>
      {said.length > 0 ? said.join(', ') : <span className="soft">Nobody says where it came from.</span>}{' '}
      {may && (
        <Button variant="text" className="quiet" onClick={() => setOpen(true)}>
          {said.length > 0 ? 'Put it right' : 'Say it'}
        </Button>
      )}
    </p>
  );
}

function Costs({
  sheet,
  disabled,
  onChange,
}: {
  sheet: LotSheet;
  disabled: boolean;
  onChange: (body: LotBody) => void;
}) {
  const [costs, setCosts] = useState(sheet.lot.costs);
  const save = (next: LotBody['costs']) =>
    onChange({ ...sheet.lot, costs: next.filter((c) => c.label !== '' && c.amount !== '') });
  const rows = [...costs, { label: '', amount: '' }];
  const edit = (i: number, change: Partial<LotBody['costs'][number]>) =>
    setCosts(
      rows
        .map((c, k) => (k === i ? { ...c, ...change } : c))
        .filter((c) => c.label !== '' || c.amount !== ''),
    );
  const unsaved = JSON.stringify(costs) !== JSON.stringify(sheet.lot.costs);
  return (
    <section>
      <h2 className="sec">
        What it cost <small>price, premium, travel, supplies</small>
      </h2>
      <table className="costs">
        <tbody>
          {(disabled ? costs : rows).map((cost, i) => (
            <tr key={i}>
              <td>
                <CellInput
                  text
                  label={`What cost ${i + 1} was for`}
                  value={cost.label}
                  hint="another cost"
                  disabled={disabled}
                  onType={(label) => edit(i, { label })}
                />
              </td>
              <td style={{ width: 130 }}>
                <CellInput
                  label={`Amount of cost ${i + 1}`}
                  value={cost.amount}
                  hint="0.00"
                  disabled={disabled}
                  onType={(text) => edit(i, { amount: decimal(text) })}
                />
              </td>
            </tr>
          ))}
          <tr>
            <td>
              <b>In all</b>
            </td>
            <td className="num" style={{ textAlign: 'right' }}>
              <b>{moneyText({ amount: sheet.cost, currency: sheet.currency })}</b>
            </td>
          </tr>
        </tbody>
      </table>
      <div style={{ display: 'flex', gap: 12, marginTop: 12, alignItems: 'center' }}>
        <Select
          label="Shared"
          value={sheet.lot.method}
          disabled={disabled}
          options={optionsOf(ALLOCATION_METHODS, (m) => METHOD_WORDS[m])}
          onChange={(method) => method !== null && onChange({ ...sheet.lot, method })}
        />
        {unsaved && (
          <Button variant="contained" onClick={() => save(costs)}>
            Spread it anew
          </Button>
        )}
      </div>
    </section>
  );
}

function Recovery({ sheet }: { sheet: LotSheet }) {
  if (sheet.recovery.length === 0) return null;
  return (
    <table className="costs" style={{ marginTop: 8 }}>
      <tbody>
        {sheet.recovery.slice(-6).map((r, i) => (
          <tr key={i}>
            <td className="num">{dayText(r.day)}</td>
            <td className="num" style={{ textAlign: 'right' }}>
              {moneyText({ amount: r.net, currency: sheet.currency })}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
