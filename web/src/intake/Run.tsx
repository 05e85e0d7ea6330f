/** Pieces taken into a lot in a run: a name, Enter, the next; or a whole list, pasted. */
import { pastedPieces, type PastedPiece } from '@jutbank/core/intake';
import { CONSTRUCTIONS, type Construction } from '@jutbank/core/reference';
import { AS_FOUND } from '@jutbank/contract/pieces';
import { lotPiecesBody, type LotPiecesBody, type LotSheet } from '@jutbank/contract/intake';
import { Button } from '@mui/material';
import { useRef, useState } from 'react';
import { useUnsaved } from '../base/unsaved.ts';
import { chosen, optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { readMoney } from '../parts/fields/typed.ts';
import { CONSTRUCTION_WORDS, sentence } from '../parts/words.ts';
import { useRun, type RunPiece, type Waiting } from './useRun.ts';

const onePiece = lotPiecesBody.shape.pieces.element;

export function Run({
  id,
  currency,
  onTaken,
}: {
  id: string;
  /** the lot's */
  currency: string;
  onTaken: (sheet: LotSheet) => void;
}) {
  const run = useRun(id, onTaken);
  const name = useRef<HTMLInputElement>(null);
  const [title, setTitle] = useState('');
  const [worth, setWorth] = useState('');
  const [construction, setConstruction] = useState<Construction>('slipjoint');
  const [asFound, setAsFound] = useState<LotPiecesBody['asFound']>(null);
  const [wrong, setWrong] = useState<{ readonly title?: string; readonly worth?: string }>({});
  const [pasted, setPasted] = useState<readonly PastedPiece[]>();
  useUnsaved(title.trim() !== '' || pasted !== undefined);

  const take = () => {
    const value = amountIn(worth, currency);
    const read = onePiece.safeParse({ title, construction, value: value.ok ? value.amount : null });
    if (!read.success || !value.ok) {
      const told = read.error?.issues.find((issue) => issue.path[0] === 'title')?.message;
      setWrong({
        ...(told !== undefined && { title: told }),
        ...(value.ok ? {} : { worth: value.wrong }),
      });
      return;
    }
    run.add([read.data], asFound);
    setWrong({});
    setTitle('');
    setWorth('');
    name.current?.focus();
  };
  return (
    <section aria-label="Take in pieces of the lot" className="run">
      <form
        className="runline"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          take();
        }}
      >
        <TextInput
          label="Next piece"
          why="Enter takes it in; a pasted list makes a piece of every line"
          inputRef={name}
          autoFocus
          value={title}
          problem={wrong.title}
          onChange={setTitle}
          onPaste={(text) => {
            const lines = pastedPieces(text, CONSTRUCTION_WORDS);
            if (lines.length < 2) return false;
            setPasted(lines);
            return true;
          }}
        />
        <Select
          label="Construction"
          options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c] ?? c)}
          {...chosen({ value: construction, onChange: setConstruction })}
        />
        <TextInput
          label={`Worth about, ${currency}`}
          inputMode="decimal"
          value={worth}
          problem={wrong.worth}
          onChange={setWorth}
        />
        <Select
          label="All came in"
          none="not recorded"
          value={asFound}
          options={optionsOf(AS_FOUND, sentence)}
          onChange={setAsFound}
        />
        <Button type="submit" variant="contained">
          Take it in
        </Button>
      </form>
      {pasted && (
        <Pasted
          list={pasted}
          currency={currency}
          usual={construction}
          onTake={(pieces) => {
            run.add(pieces, asFound);
            setPasted(undefined);
            name.current?.focus();
          }}
          onLeave={() => {
            setPasted(undefined);
            name.current?.focus();
          }}
        />
      )}
      {run.waiting.length > 0 && (
        <ul className="waiting" aria-label="On their way into the lot">
          {run.waiting.map((waiting) => (
            <WaitingPiece key={waiting.key} waiting={waiting} onDrop={() => run.drop(waiting.key)} />
          ))}
        </ul>
      )}
      {run.held !== undefined && (
        <p className="problem" role="alert">
          {run.held} What was written waits here.{' '}
          <Button variant="text" className="quiet" onClick={run.again}>
            Try again
          </Button>
        </p>
      )}
    </section>
  );
}

function WaitingPiece({ waiting, onDrop }: { waiting: Waiting; onDrop: () => void }) {
  const { piece, problem } = waiting;
  return (
    <li>
      {piece.title}{' '}
      {problem === undefined ? (
        <span className="soft">is being taken in…</span>
      ) : (
        <>
          <span className="problem">{problem}</span>{' '}
          <Button variant="text" className="quiet" aria-label={`Leave out ${piece.title}`} onClick={onDrop}>
            leave it out
          </Button>
        </>
      )}
    </li>
  );
}

/** What a pasted list makes, before it is taken in. */
function Pasted({
  list,
  currency,
  usual,
  onTake,
  onLeave,
}: {
  list: readonly PastedPiece[];
  currency: string;
  /** the construction of lines that name none */
  usual: Construction;
  onTake: (pieces: RunPiece[]) => void;
  onLeave: () => void;
}) {
  const rows = list.map((line) => {
    const value = amountIn(line.worth ?? '', currency);
    return { ...line, construction: line.construction ?? usual, value };
  });
  return (
    <div className="pasted" role="group" aria-label="Pasted list">
      <ol>
        {rows.map((row, i) => (
          <li key={i}>
            {row.title} <span className="soft">{CONSTRUCTION_WORDS[row.construction]}</span>{' '}
            {row.worth !== null && (
              <span className={row.value.ok ? 'num' : 'problem'}>
                {row.value.ok ? `${row.value.amount ?? ''} ${currency}` : `${row.value.wrong}: left out`}
              </span>
            )}
          </li>
        ))}
      </ol>
      <Button
        variant="contained"
        autoFocus
        onClick={() =>
          onTake(
            rows.map(({ title, construction, value }) => ({
              title,
              construction,
              value: value.ok ? value.amount : null,
              keep: false,
            })),
          )
        }
      >
        Take in {rows.length} pieces
      </Button>{' '}
      <Button variant="text" className="quiet" onClick={onLeave}>
        Leave it
      </Button>
    </div>
  );
}

type Amount =
  { readonly ok: true; readonly amount: string | null } | { readonly ok: false; readonly wrong: string };
/** An amount as people write it; in another currency than the lot's it is none of its. */
function amountIn(typed: string, currency: string): Amount {
  const read = readMoney(typed, currency);
  if (!read) return { ok: true, amount: null };
  if ('wrong' in read) return { ok: false, wrong: read.wrong };
  return read.money.currency === currency
    ? { ok: true, amount: read.money.amount }
    : { ok: false, wrong: `The lot is kept in ${currency}` };
}
