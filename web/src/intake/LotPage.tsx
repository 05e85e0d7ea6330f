/** One lot: its costs, its pieces taken in in a run by keyboard, each with its share, and the recovery over time. */
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
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { ALLOCATION_METHODS } from '@jutbank/core/intake';
import { CONSTRUCTIONS, type Construction } from '@jutbank/core/reference';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import {
  CellInput,
  CellTick,
  chosen,
  decimal,
  optionsOf,
  Select,
  Submit,
  TextInput,
  useContractForm,
} from '../parts/fields/index.ts';
import { CONSTRUCTION_WORDS, moneyText, STAGE_WORDS } from '../parts/words.ts';
import { RecoveryBar } from './RecoveryBar.tsx';
import './lots.css';

const METHOD_WORDS = {
  'relative-value': 'by what each is worth',
  equal: 'the same for each',
  manual: 'by hand, the rest by worth',
} as const;

export default function LotPage() {
  const { id = '' } = useParams();
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
        <h1>{sheet.name}</h1>
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
      <div className="lottop">
        <Costs key={sheet.version} sheet={sheet} disabled={!mayWork} onChange={(body) => put.mutate(body)} />
        <section>
          <h2 className="sec">
            What has come back{' '}
            <small>
              {sheet.brokeEvenOn === null
                ? 'not yet paid for itself'
                : `paid for itself on ${sheet.brokeEvenOn}`}
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
      {mayWork && <Run id={id} onTaken={taken} />}
      {sheet.list.length === 0 ? (
        <p className="soft">
          No piece yet. Write the first one’s working name above and press Enter; the next line waits for the
          next one.
        </p>
      ) : (
        <div className="scroll" tabIndex={0} role="region" aria-label="Pieces of the lot">
          <table className="grid">
            <thead>
              <tr>
                <th>Number</th>
                <th>Piece</th>
                <th>Where it stands</th>
                <th className="r">Worth among them, {sheet.currency}</th>
                {sheet.lot.method === 'manual' && <th className="r">Fixed share</th>}
                <th className="r">Share of cost</th>
                <th>Keep</th>
                <th className="r">Left of its sale</th>
                <th aria-label="Take out" />
              </tr>
            </thead>
            <tbody>
              {sheet.list.map((piece) => (
                <PieceRow
                  key={`${piece.id} ${sheet.version}`}
                  piece={piece}
                  sheet={sheet}
                  disabled={!mayWork || piece.stage === 'sold'}
                  onTakeOut={() => takeOut.mutate(piece.id)}
                  onChange={(change) =>
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
                    })
                  }
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}

function PieceRow({
  piece,
  sheet,
  disabled,
  onTakeOut,
  onChange,
}: {
  piece: LotPiece;
  sheet: LotSheet;
  disabled: boolean;
  onTakeOut: () => void;
  onChange: (change: Partial<LotSharesBody['pieces'][number]>) => void;
}) {
  const money = (amount: string | null) =>
    moneyText(amount === null ? null : { amount, currency: sheet.currency });
  const cell = (label: string, value: string | null, put: (text: string | null) => void, hint?: string) => (
    <CellInput
      label={`${label} of ${piece.title}`}
      value={value ?? ''}
      hint={hint}
      disabled={disabled}
      onKeep={(text) => put(text === '' ? null : decimal(text))}
    />
  );
  return (
    <tr>
      <td className="mono">{piece.stockNumber}</td>
      <td>
        <Link to={`/pieces/${piece.id}`}>{piece.title}</Link>
      </td>
      <td className="soft">{STAGE_WORDS[piece.stage]}</td>
      <td className="r">
        {cell(
          'Worth',
          piece.valueSaid ? piece.value : null,
          (value) => onChange({ value }),
          piece.value ?? 'unknown',
        )}
      </td>
      {sheet.lot.method === 'manual' && (
        <td className="r">{cell('Fixed share', piece.share, (share) => onChange({ share }), 'open')}</td>
      )}
      <td className="r num">
        <b>{money(piece.cost)}</b>
      </td>
      <td>
        <CellTick
          label={`Keep ${piece.title}`}
          value={piece.keep}
          disabled={disabled}
          onChange={(keep) => onChange({ keep })}
        />
        {piece.keep ? 'kept' : ''}
      </td>
      <td className="r num">
        {money(piece.net)} {piece.soldOn && <span className="soft">{piece.soldOn}</span>}
      </td>
      <td className="r">
        {!disabled && (
          <button
            type="button"
            className="quiet soft"
            aria-label={`take out ${piece.title}`}
            title="It does not belong to this lot: its share goes back to the others, and its own cost has to be said anew"
            onClick={onTakeOut}
          >
            take out
          </button>
        )}
      </td>
    </tr>
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

interface RunForm {
  pieces: { title: string; construction: Construction; value: string }[];
}
/** Thirty pieces in a run: a name, its construction, what it may be worth, Enter. */
function Run({ id, onTaken }: { id: string; onTaken: (sheet: LotSheet) => void }) {
  const name = useRef<HTMLInputElement>(null);
  const form = useContractForm(lotRoutes.addPieces, {
    params: { id },
    empty: { pieces: [{ title: '', construction: 'slipjoint', value: '' }] },
    toBody: ({ pieces }: RunForm) => ({
      pieces: pieces.map((p) => ({ ...p, value: p.value.trim() === '' ? null : decimal(p.value) })),
    }),
    onSent: (sheet) => {
      onTaken(sheet);
      form.set('pieces.0.title', '');
      form.set('pieces.0.value', '');
      name.current?.focus();
    },
  });
  return (
    <form className="runline" noValidate onSubmit={form.onSubmit}>
      <TextInput label="Next piece" inputRef={name} autoFocus {...form.field('pieces.0.title')} />
      <Select
        label="Construction"
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c] ?? c)}
        {...chosen(form.field('pieces.0.construction'))}
      />
      <TextInput label="Worth about" inputMode="decimal" {...form.field('pieces.0.value')} />
      <Submit form={form} words="Take it in" />
    </form>
  );
}

function Recovery({ sheet }: { sheet: LotSheet }) {
  if (sheet.recovery.length === 0) return null;
  return (
    <table className="costs" style={{ marginTop: 8 }}>
      <tbody>
        {sheet.recovery.slice(-6).map((r, i) => (
          <tr key={i}>
            <td className="num">{r.day}</td>
            <td className="num" style={{ textAlign: 'right' }}>
              {moneyText({ amount: r.net, currency: sheet.currency })}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
