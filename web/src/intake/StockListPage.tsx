/** A shop moves in: its own list of stock is read, tried, taken in as pieces, and its pictures find them. */
import {
  stockListRoutes,
  type ListedPiece,
  type StockListAnswer,
  type StockLook,
} from '@jutbank/contract/intake';
import {
  STOCK_COLUMNS,
  STOCK_WORD_COLUMNS,
  stockMeaningsOf,
  type StockColumn,
  type StockWordColumn,
} from '@jutbank/core/intake';
import { edtfInWords } from '@jutbank/core/dates';
import { SOURCE_OF_PIECE } from '@jutbank/core/pieces';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Empty } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { ColumnTable } from '../lists/ColumnTable.tsx';
import { fileInWords } from '../lists/fileInWords.ts';
import { ListNames } from '../lists/ListNames.tsx';
import { ListWords } from '../lists/ListWords.tsx';
import { RowsTold } from '../lists/RowsTold.tsx';
import { useListLook } from '../lists/useListLook.ts';
import { FileChooser } from '../parts/FileChooser.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { CONSTRUCTION_WORDS, counted, inWords, moneyText, sentence } from '../parts/words.ts';
import { PastStockLists } from './PastStockLists.tsx';
import { StockPictures } from './StockPictures.tsx';
import './stockList.css';

type Mapping = StockLook['mapping'];

const COLUMN_WORDS: Record<StockColumn, string> = {
  stock_number: 'its stock number',
  title: 'working name',
  maker: 'maker',
  pattern: 'pattern or model',
  variant: 'form (kept as a note)',
  construction: 'how it is built',
  acquired: 'when it came',
  source_kind: 'kind of source',
  source_name: 'from whom',
  source_place: 'bought where',
  cost: 'price paid',
  ask: 'price asked',
  floor: 'least price',
  currency: 'currency',
  place: 'where it lies',
  seller_statement: 'what the seller said',
  came_with: 'what came with it',
  box: 'box',
  papers: 'papers',
  sheath: 'sheath, scabbard or pouch',
  state: 'here or sold',
  quantity: 'how many',
  pictures: 'its pictures’ files',
  note: 'note',
};
const columnInWords = (column: string): string => COLUMN_WORDS[column as StockColumn] ?? column;
const STATE_WORDS: Record<string, string> = {
  here: 'it is here',
  gone: 'gone: leave the row out',
  'not-own': 'somebody else’s: leave the row out',
};
const UNKNOWN_NAMES = { maker: 'kept as a note', pattern: 'kept as a note', variant: 'kept as a note' };

const meaningInWords = (column: StockWordColumn, meaning: string): string =>
  column === 'currency'
    ? meaning
    : column === 'construction'
      ? (CONSTRUCTION_WORDS[meaning as keyof typeof CONSTRUCTION_WORDS] ?? meaning)
      : (STATE_WORDS[meaning] ?? inWords(meaning));

export default function StockListPage() {
  const mayWork = useMay('work');
  const [shown, setShown] = useState<string>();
  if (!mayWork) return <Empty title="Your account reads, it does not take in pieces" />;
  return (
    <div className="page stocklist">
      <div className="pagehead">
        <PageTitle>Move in with a list</PageTitle>
        <span className="soft">
          One row a piece, saved as CSV from your own spreadsheet. Nothing comes in before you say so.
        </span>
      </div>
      <Reading onTaken={setShown} />
      {shown !== undefined && <StockPictures key={shown} id={shown} onClose={() => setShown(undefined)} />}
      <PastStockLists onShow={setShown} shown={shown} />
    </div>
  );
}

function Reading({ onTaken }: { onTaken: (list: string) => void }) {
  const answers = useKeptAnswers();
  const sending = useMutation({
    mutationFn: async ({ check, chosen, by }: { check: boolean; chosen: File; by: Mapping }) => {
      const form = new FormData();
      form.set('mapping', JSON.stringify(by));
      form.set('file', chosen);
      return {
        check,
        result: await send(stockListRoutes.takeInStockList, {
          query: { check: check ? '1' : undefined },
          body: form,
        }),
      };
    },
    onSuccess: ({ check, result }) => {
      if (check) return;
      list.clear();
      void answers.invalidate(stockListRoutes.listStockLists, pieceRoutes.tray);
      if (result.id !== null) onTaken(result.id);
    },
  });
  const list = useListLook<Mapping, StockLook>({
    ask: (form) => send(stockListRoutes.lookAtStockList, { body: form }),
    where: { dates: ['acquired'], prices: ['cost', 'ask', 'floor'] },
    rereadBy: (m) => [m?.columns, m?.names.pattern, m?.currencyInPrice],
    onFirstRead: (chosen, by) => sending.mutate({ check: true, chosen, by }),
    onChange: () => sending.reset(),
  });
  const { file, look, mapping, change } = list;
  useUnsaved(mapping !== undefined);
  const problem = [list.error, sending.error].find((e) => e instanceof ApiProblem);
  const tried = sending.data?.check ? sending.data.result : undefined;
  return (
    <section aria-label="The list">
      <FileChooser label="Choose your list" accept=".csv,.txt,text/csv" onChoose={list.choose}>
        {file ? file.name : 'Choose your list'}
      </FileChooser>
      {look && mapping && (
        <>
          <p className="soft" style={{ margin: '8px 0' }}>
            {fileInWords(look)} What no column of yours is said to say stays with its piece as a note.
          </p>
          <ColumnTable
            look={look}
            mapping={mapping}
            columns={STOCK_COLUMNS}
            inWords={columnInWords}
            onChange={change}
          >
            <ForEveryRow mapping={mapping} onChange={change} />
          </ColumnTable>
          <ListNames
            names={look.names}
            meant={mapping.names}
            unknown={UNKNOWN_NAMES}
            onChange={(names) => change({ ...mapping, names })}
          />
          <ListWords
            title="Your words"
            label="Words in the list"
            words={look.words}
            meant={mapping.words}
            columns={STOCK_WORD_COLUMNS}
            columnInWords={columnInWords}
            none={() => 'kept as a note'}
            choicesOf={(column) =>
              stockMeaningsOf(column).map((id) => ({ id, name: meaningInWords(column, id) }))
            }
            onChange={(words) => change({ ...mapping, words })}
          />
        </>
      )}
      {problem && (
        <p className="problem" role="alert">
          {problem.errors[0]?.message ?? problem.message}
        </p>
      )}
      {tried && <Tried answer={tried} />}
      {sending.data && !sending.data.check && (
        <p role="status" className="note">
          {counted(sending.data.result.added)} {sending.data.result.added === 1 ? 'piece is' : 'pieces are'}{' '}
          in stock now
          {sending.data.result.rejected > 0
            ? `; ${counted(sending.data.result.rejected)} rows were left out. Put those right and choose the list again: only what is new comes in.`
            : '.'}
        </p>
      )}
      {file && mapping && (
        <div className="submit">
          <Button
            disabled={sending.isPending}
            onClick={() => sending.mutate({ check: true, chosen: file, by: mapping })}
          >
            Try it
          </Button>
          <Button
            variant="contained"
            disabled={sending.isPending || list.pending || !tried || tried.added === 0}
            onClick={() => sending.mutate({ check: false, chosen: file, by: mapping })}
          >
            {tried
              ? `Take in ${counted(tried.added)} ${tried.added === 1 ? 'piece' : 'pieces'}`
              : 'Take them in'}
          </Button>
        </div>
      )}
    </section>
  );
}

/** What no column says, said once for all rows. */
function ForEveryRow({ mapping, onChange }: { mapping: Mapping; onChange: (mapping: Mapping) => void }) {
  const { shop } = useSession();
  const said = new Set(Object.values(mapping.columns));
  const put = (column: StockColumn, value: string | null) => {
    const { [column]: _, ...fixed } = mapping.fixed;
    onChange({ ...mapping, fixed: value === null || value === '' ? fixed : { ...fixed, [column]: value } });
  };
  return (
    <>
      <Select
        label={said.has('construction') ? 'Built, where no row says' : 'Built, all of them'}
        value={mapping.fixed.construction ?? null}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c])}
        onChange={(c) => put('construction', c)}
      />
      {mapping.currencyInPrice && (
        <Select
          label="Currency of amounts"
          value="beside"
          options={[
            { value: 'beside', label: 'as beside each amount' },
            { value: 'every', label: `${mapping.fixed.currency ?? shop.baseCurrency} for all` },
          ]}
          onChange={() => onChange({ ...mapping, currencyInPrice: false })}
        />
      )}
      {!said.has('currency') && (
        <TextInput
          label={mapping.currencyInPrice ? 'Currency of the others' : 'Currency of all amounts'}
          value={mapping.fixed.currency ?? ''}
          onChange={(currency) => put('currency', currency.toUpperCase())}
        />
      )}
      {!said.has('source_kind') && (
        <Select
          label="Where from, all of them"
          value={mapping.fixed.source_kind ?? null}
          none="Not recorded"
          options={optionsOf(SOURCE_OF_PIECE, sentence)}
          onChange={(kind) => put('source_kind', kind)}
        />
      )}
    </>
  );
}

/** What would come in, what would not and why, and the first pieces as they would stand in stock. */
function Tried({ answer }: { answer: StockListAnswer }) {
  return (
    <>
      <p role="status" className="trial">
        <b>{counted(answer.added)}</b> would come in
        {answer.alreadyKnown > 0 && `, ${counted(answer.alreadyKnown)} are in stock already`}
        {answer.rejected > 0 && `, ${counted(answer.rejected)} would stay out`}.
      </p>
      <RowsTold rows={answer.errors} inWords={columnInWords} className="problem" />
      {answer.warnings.length > 0 && (
        <>
          <p style={{ margin: '8px 0 0' }}>
            <b>{counted(answer.warnings.length)}</b> to look at before they come in:
          </p>
          <RowsTold rows={answer.warnings} inWords={columnInWords} className="soft" />
        </>
      )}
      {answer.first.length > 0 && <FirstPieces pieces={answer.first} all={answer.added} />}
    </>
  );
}

function FirstPieces({ pieces, all }: { pieces: readonly ListedPiece[]; all: number }) {
  return (
    <>
      <h2 className="sec">
        As they would come in{' '}
        <small>{all > pieces.length ? `the first ${pieces.length} of ${counted(all)}` : 'all of them'}</small>
      </h2>
      <div className="scroll" tabIndex={0} role="region" aria-label="The first pieces">
        <table className="grid">
          <thead>
            <tr>
              <th>Number</th>
              <th>Piece</th>
              <th>Came</th>
              <th className="r">Paid</th>
              <th className="r">Asked</th>
              <th>Lies</th>
              <th className="r">Pictures</th>
              <th>Notes</th>
            </tr>
          </thead>
          <tbody>
            {pieces.map((piece) => (
              <tr key={piece.line}>
                <td className="mono">{piece.stockNumber ?? 'the next'}</td>
                <td>
                  {piece.title}{' '}
                  <span className="soft">
                    {[CONSTRUCTION_WORDS[piece.construction], piece.pattern && `said to be ${piece.pattern}`]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </td>
                <td>{piece.acquired === null ? '' : edtfInWords(piece.acquired)}</td>
                <td className="r num">{piece.price === null ? '' : moneyText(piece.price)}</td>
                <td className="r num">{piece.ask === null ? '' : moneyText(piece.ask)}</td>
                <td>{piece.place}</td>
                <td className="r num">{piece.pictures || ''}</td>
                <td className="soft notes">{piece.shopNote.split('\n').join(' · ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
