/** One lot: its costs, its pieces taken in in a run by keyboard, each with its share, and the recovery over time. */
import { pieceRoutes } from '@jutbank/contract/pieces';
import {
  lotRoutes,
  type LotBody,
  type LotPiece,
  type LotSheet,
  type LotSharesBody,
} from '@jutbank/contract/intake';
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { ALLOCATION_METHODS } from '@jutbank/core/intake';
import { CONSTRUCTIONS, type Construction } from '@jutbank/core/reference';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
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
    <input
      className="cell num"
      aria-label={`${label} of ${piece.title}`}
      defaultValue={value ?? ''}
      placeholder={hint}
      disabled={disabled}
      inputMode="decimal"
      onBlur={(e) => {
        const text = e.target.value.trim().replace(',', '.');
        if (text !== (value ?? '')) put(text === '' ? null : text);
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
      }}
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
        <label>
          <input
            type="checkbox"
            checked={piece.keep}
            disabled={disabled}
            aria-label={`Keep ${piece.title}`}
            onChange={(e) => onChange({ keep: e.target.checked })}
          />{' '}
          {piece.keep ? 'kept' : ''}
        </label>
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
                <input
                  aria-label={`What cost ${i + 1} was for`}
                  value={cost.label}
                  placeholder="another cost"
                  disabled={disabled}
                  onChange={(e) => edit(i, { label: e.target.value })}
                />
              </td>
              <td style={{ width: 130 }}>
                <input
                  className="num"
                  aria-label={`Amount of cost ${i + 1}`}
                  value={cost.amount}
                  placeholder="0.00"
                  inputMode="decimal"
                  disabled={disabled}
                  onChange={(e) => edit(i, { amount: e.target.value.replace(',', '.') })}
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
        <TextField
          select
          label="Shared"
          value={sheet.lot.method}
          disabled={disabled}
          sx={{ width: 230 }}
          onChange={(e) => onChange({ ...sheet.lot, method: e.target.value as LotBody['method'] })}
        >
          {ALLOCATION_METHODS.map((m) => (
            <MenuItem key={m} value={m}>
              {METHOD_WORDS[m]}
            </MenuItem>
          ))}
        </TextField>
        {unsaved && (
          <Button variant="contained" onClick={() => save(costs)}>
            Spread it anew
          </Button>
        )}
      </div>
    </section>
  );
}

/** Thirty pieces in a run: a name, its construction, what it may be worth, Enter. */
function Run({ id, onTaken }: { id: string; onTaken: (sheet: LotSheet) => void }) {
  const name = useRef<HTMLInputElement>(null);
  const [title, setTitle] = useState('');
  const [construction, setConstruction] = useState<Construction>('slipjoint');
  const [value, setValue] = useState('');
  const add = useMutation({
    mutationFn: () =>
      send(lotRoutes.addPieces, {
        params: { id },
        body: {
          pieces: [
            { title, construction, value: value.trim() === '' ? null : value.trim().replace(',', '.') },
          ],
        },
      }),
    onSuccess: (sheet) => {
      onTaken(sheet);
      setTitle('');
      setValue('');
      name.current?.focus();
    },
  });
  const problem = add.error instanceof ApiProblem ? add.error : undefined;
  return (
    <form
      className="runline"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <TextField
        inputRef={name}
        label="Next piece"
        value={title}
        autoFocus
        onChange={(e) => setTitle(e.target.value)}
        error={!!problem?.at('/pieces/0/title')}
        helperText={problem?.at('/pieces/0/title')}
      />
      <TextField
        select
        label="Construction"
        value={construction}
        onChange={(e) => setConstruction(e.target.value as Construction)}
      >
        {CONSTRUCTIONS.map((c) => (
          <MenuItem key={c} value={c}>
            {CONSTRUCTION_WORDS[c]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="Worth about"
        value={value}
        onChange={(e) => setValue(e.target.value)}
        error={!!problem?.at('/pieces/0/value')}
        helperText={problem?.at('/pieces/0/value')}
        slotProps={{ htmlInput: { inputMode: 'decimal', className: 'num' } }}
      />
      <Button type="submit" variant="contained" disabled={add.isPending}>
        Take it in
      </Button>
      {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
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
