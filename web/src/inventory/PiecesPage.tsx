/** All pieces: found, put in order, chosen, and acted on many at once. */
import { Button } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { InventoryRow } from '@jutbank/contract/inventory';
import { stagePath } from '../pieces/stagePath.ts';
import { useMay, useSession } from '../base/session.ts';
import { Empty, Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { CellTick } from '../parts/fields/index.ts';
import { Table, type Column } from '../parts/table/Table.tsx';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { useForms } from '../reference/useForms.ts';
import { TierBadge } from '../parts/TierBadge.tsx';
import { counted, inWords, moneyText, STAGE_WORDS } from '../parts/words.ts';
import { Chosen } from './Chosen.tsx';
import { Filters } from './Filters.tsx';
import { useAsking, useRows } from './useInventory.ts';
import { Views } from './Views.tsx';
import './inventory.css';

export default function PiecesPage() {
  const asking = useAsking();
  const { shop } = useSession();
  const mayWork = useMay('work');
  const list = useRows(asking.filter);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const rows = list.data?.pages.flatMap((page) => page.items) ?? [];
  const total = list.data?.pages[0]?.total ?? 0;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Pieces</PageTitle>
        <span className="soft">
          <span className="num">{counted(total)}</span>{' '}
          {asking.asks !== '' ? 'as asked' : total === 0 ? 'yet' : 'in all, those that have left among them'}
        </span>
        <span className="grow" />
        {mayWork && (
          <a className="quiet" href="/api/v1/due.ics">
            What is due, as a calendar
          </a>
        )}
        {mayWork && (
          <a className="quiet" href={`/api/v1/inventory.csv?${asking.asks}`}>
            Export
          </a>
        )}
      </div>
      <Views asking={asking} />
      <Filters asking={asking} currency={shop.baseCurrency} />
      {chosen.length > 0 && <Chosen chosen={chosen} onChoose={setChosen} />}
      {list.isPending ? (
        <Loading />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : rows.length === 0 ? (
        asking.asks === '' ? (
          <Empty title="There is no piece yet">
            <Link to="/pieces/new">Take in the first one</Link>
          </Empty>
        ) : (
          <p className="soft">No piece fits what was asked.</p>
        )
      ) : (
        <Rows rows={rows} chosen={chosen} mayChoose={mayWork} onChoose={setChosen} />
      )}
      {list.hasNextPage && <Further busy={list.isFetchingNextPage} fetch={() => void list.fetchNextPage()} />}
    </div>
  );
}

function Rows({
  rows,
  chosen,
  mayChoose,
  onChoose,
}: {
  rows: readonly InventoryRow[];
  chosen: readonly string[];
  mayChoose: boolean;
  onChoose: (chosen: readonly string[]) => void;
}) {
  const navigate = useNavigate();
  const recipeOf = useForms(rows.filter((row) => !row.picture));
  const marked = new Set(chosen);
  const toggle = ({ id }: InventoryRow) =>
    onChoose(marked.has(id) ? chosen.filter((other) => other !== id) : [...chosen, id]);
  const address = (row: InventoryRow) => `/pieces/${row.id}/${stagePath(row)}`;
  const columns: readonly Column<InventoryRow>[] = [
    ...(mayChoose
      ? [
          {
            id: 'chosen',
            head: 'Chosen',
            headHidden: true,
            cell: (row: InventoryRow) => (
              <CellTick
                label={`Choose ${row.stockNumber}`}
                value={marked.has(row.id)}
                onChange={() => toggle(row)}
              />
            ),
          },
        ]
      : []),
    {
      id: 'picture',
      head: 'Picture',
      headHidden: true,
      className: 'thumb',
      cell: (row) =>
        row.picture ? (
          <img src={`/api/v1/pictures/${row.picture}/thumb`} alt="" loading="lazy" />
        ) : (
          <FormDrawing recipe={recipeOf(row)} width={74} height={34} label="" />
        ),
    },
    { id: 'number', head: 'Number', className: 'num', cell: (row) => row.stockNumber },
    {
      id: 'piece',
      head: 'Piece',
      lead: true,
      cell: (row) => (
        <>
          <Link to={address(row)}>{row.title}</Link>
          {row.warnings.map((warning) => (
            <span key={warning} className="warned">
              {warning}
            </span>
          ))}
        </>
      ),
    },
    {
      id: 'what',
      head: 'What it is',
      cell: (row) =>
        row.tier && (
          <>
            <TierBadge tier={row.tier} /> <span className="soft">{row.attributed}</span>
          </>
        ),
    },
    { id: 'made', head: 'Made', className: 'soft', cell: (row) => row.made },
    {
      id: 'grade',
      head: 'Grade',
      className: 'soft',
      cell: (row) => (row.grade === null ? '' : inWords(row.grade)),
    },
    { id: 'stage', head: 'Stands', cell: (row) => STAGE_WORDS[row.stage] },
    { id: 'place', head: 'Lies', className: 'soft', cell: (row) => row.place },
    { id: 'days', head: 'Days', figure: true, cell: (row) => counted(row.days) },
    {
      id: 'worth',
      head: 'Worth',
      figure: true,
      cell: (row) => (row.worth ? moneyText(row.worth, true) : ''),
    },
    { id: 'ask', head: 'Asked', figure: true, cell: (row) => (row.ask ? moneyText(row.ask) : '') },
  ];
  return (
    <Table
      label="Pieces"
      rows={rows}
      columns={columns}
      keyOf={(row) => row.id}
      marked={(row) => marked.has(row.id)}
      onOpen={(row) => void navigate(address(row))}
      {...(mayChoose ? { onToggle: toggle } : {})}
    />
  );
}

/** The next page is fetched before its end comes into sight; by hand where nothing scrolls. */
function Further({ busy, fetch }: { busy: boolean; fetch: () => void }) {
  const end = useRef<HTMLDivElement>(null);
  const next = useRef(fetch);
  useEffect(() => {
    next.current = fetch;
  });
  useEffect(() => {
    if (busy || !end.current || typeof IntersectionObserver === 'undefined') return;
    const seen = new IntersectionObserver(
      (entries) => {
        if (entries.some((entry) => entry.isIntersecting)) next.current();
      },
      { rootMargin: '900px' },
    );
    seen.observe(end.current);
    return () => seen.disconnect();
  }, [busy]);
  return (
    <div ref={end} style={{ marginTop: 12 }}>
      <Button disabled={busy} onClick={fetch}>
        Show more
      </Button>
    </div>
  );
}
