/**
 * The one table for lists of things: sorted by its heads, walked by the arrow keys, of any length (only the rows in sight
 * are drawn), and on a phone each row a card with its lead on top.
 */
import {
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table';
import { Button } from '@mui/material';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { counted } from '../words.ts';
import './table.css';

export interface Column<R> {
  readonly id: string;
  readonly head: string;
  /** for those who see the rest of the column only */
  readonly headHidden?: boolean;
  readonly cell: (row: R) => ReactNode;
  /** figures stand right, in their own type */
  readonly figure?: boolean;
  /** names the row where rows are cards */
  readonly lead?: boolean;
  /** what rows are sorted by; a column without is not sorted by. What is not known comes last either way */
  readonly sortBy?: (row: R) => string | number | null | undefined;
  readonly className?: string;
}

interface TableProps<R> {
  /** what the list is of, for those who do not see it */
  readonly label: string;
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  /** Enter on a row, or a double click */
  readonly onOpen?: (row: R) => void;
  /** the space bar on a row */
  readonly onToggle?: (row: R) => void;
  readonly marked?: (row: R) => boolean;
  /** so many at first, in the order they are sorted by; the rest on demand */
  readonly first?: number;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
});
/** Above this only the rows in sight are drawn. */
const DRAWN_WHOLE = 100;
const ROW_HEIGHT_PX = 31;
const BEYOND_SIGHT = 20;

export function Table<R extends object>({ label, rows, columns, first, ...more }: TableProps<R>) {
  const definitions = useMemo(
    () =>
      columns.map((column): ColumnDef<typeof features, R> => ({
        id: column.id,
        accessorFn: (row) => column.sortBy?.(row) ?? undefined,
        enableSorting: column.sortBy !== undefined,
        sortUndefined: 'last',
        sortFn: 'alphanumeric',
        // of figures the greatest is wanted first
        sortDescFirst: column.figure ?? false,
      })),
    [columns],
  );
  const data = useMemo(() => [...rows], [rows]);
  const table = useTable({ features, columns: definitions, data, getRowId: more.keyOf });
  const sorted = table.getRowModel().rows.map((row) => row.original);
  const [all, setAll] = useState(first === undefined);
  const shown = all ? sorted : sorted.slice(0, first);
  return (
    <>
      <div className="scroll" tabIndex={0} role="region" aria-label={label}>
        <table className="grid cards">
          <thead>
            <tr>
              {table
                .getHeaderGroups()
                .flatMap((group) =>
                  group.headers.map((header, i) => (
                    <Head
                      key={header.id}
                      column={columns[i]}
                      sorted={header.column.getIsSorted()}
                      onSort={
                        header.column.getCanSort() ? header.column.getToggleSortingHandler() : undefined
                      }
                    />
                  )),
                )}
            </tr>
          </thead>
          {shown.length > DRAWN_WHOLE ? (
            <RowsInSight rows={shown} columns={columns} {...more} />
          ) : (
            <Body rows={shown} columns={columns} {...more} />
          )}
        </table>
      </div>
      {shown.length < sorted.length && (
        <Button sx={{ mt: 1 }} onClick={() => setAll(true)}>
          Show all {counted(sorted.length)}
        </Button>
      )}
    </>
  );
}

function Head<R>({
  column,
  sorted,
  onSort,
}: {
  column: Column<R> | undefined;
  sorted: false | 'asc' | 'desc';
  onSort: ((event: unknown) => void) | undefined;
}) {
  if (!column) return null;
  const words = column.headHidden ? <span className="visually-hidden">{column.head}</span> : column.head;
  return (
    <th
      className={column.figure ? 'r' : undefined}
      aria-sort={sorted === false ? undefined : sorted === 'asc' ? 'ascending' : 'descending'}
    >
      {onSort ? (
        <button type="button" className="sorter" onClick={onSort}>
          {words}
          <span className="way" aria-hidden="true">
            {sorted === false ? '' : sorted === 'asc' ? '↑' : '↓'}
          </span>
        </button>
      ) : (
        words
      )}
    </th>
  );
}

type BodyProps<R> = Omit<TableProps<R>, 'label'>;

function Body<R>(props: BodyProps<R>) {
  const walk = useWalk(props);
  return (
    <tbody>
      {props.rows.map((row, i) => (
        <Row key={props.keyOf(row)} row={row} at={i} walk={walk} {...props} />
      ))}
    </tbody>
  );
}

function RowsInSight<R>(props: BodyProps<R>) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  // how far down the page the list begins: known once it is drawn
  useLayoutEffect(() => setTop((body.current?.getBoundingClientRect().top ?? 0) + window.scrollY), []);
  const rows = useWindowVirtualizer({
    count: props.rows.length,
    estimateSize: () => ROW_HEIGHT_PX,
    overscan: BEYOND_SIGHT,
    scrollMargin: top,
  });
  const walk = useWalk(props, (at) => rows.scrollToIndex(at));
  const seen = rows.getVirtualItems();
  const above = (seen[0]?.start ?? 0) - rows.options.scrollMargin;
  const below = rows.getTotalSize() - ((seen.at(-1)?.end ?? 0) - rows.options.scrollMargin);
  return (
    <tbody ref={body}>
      {above > 0 && <tr aria-hidden="true" className="unseen" style={{ height: above }} />}
      {seen.map(({ index }) => {
        const row = props.rows[index];
        return (
          row !== undefined && (
            <Row
              key={props.keyOf(row)}
              row={row}
              at={index}
              walk={walk}
              measure={rows.measureElement}
              {...props}
            />
          )
        );
      })}
      {below > 0 && <tr aria-hidden="true" className="unseen" style={{ height: below }} />}
    </tbody>
  );
}

interface Walk {
  /** the one row that the Tab key comes to */
  readonly at: number;
  readonly onKeyDown: ((event: KeyboardEvent<HTMLTableRowElement>, at: number) => void) | undefined;
}

/** One Tab stop for the whole list; the arrow keys walk it. */
function useWalk<R>({ rows, onOpen, onToggle }: BodyProps<R>, bring?: (at: number) => void): Walk {
  const [at, setAt] = useState(0);
  if (!onOpen && !onToggle) return { at: -1, onKeyDown: undefined };
  const go = (row: HTMLTableRowElement, to: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, to));
    setAt(next);
    bring?.(next);
    const body = row.parentElement;
    // drawn first, focused then
    requestAnimationFrame(() => body?.querySelector<HTMLElement>(`[data-at="${next}"]`)?.focus());
  };
  return {
    at: Math.min(at, rows.length - 1),
    onKeyDown: (event, from) => {
      // keys of what stands in a cell are that cell's own
      if (event.target !== event.currentTarget) return;
      const row = rows[from];
      if (event.key === 'ArrowDown') go(event.currentTarget, from + 1);
      else if (event.key === 'ArrowUp') go(event.currentTarget, from - 1);
      else if (event.key === 'Home') go(event.currentTarget, 0);
      else if (event.key === 'End') go(event.currentTarget, rows.length - 1);
      else if (event.key === 'Enter' && onOpen && row !== undefined) onOpen(row);
      else if (event.key === ' ' && onToggle && row !== undefined) onToggle(row);
      else return;
      event.preventDefault();
    },
  };
}

function Row<R>({
  row,
  at,
  walk,
  columns,
  marked,
  onOpen,
  measure,
}: BodyProps<R> & { row: R; at: number; walk: Walk; measure?: (element: Element | null) => void }) {
  const { onKeyDown } = walk;
  return (
    <tr
      ref={measure}
      data-index={at}
      data-at={at}
      className={marked?.(row) ? 'on' : undefined}
      {...(onKeyDown
        ? { tabIndex: at === walk.at ? 0 : -1, onKeyDown: (event) => onKeyDown(event, at) }
        : {})}
      {...(onOpen ? { onDoubleClick: () => onOpen(row) } : {})}
    >
      {columns.map((column) => (
        <td
          key={column.id}
          data-head={column.head}
          className={
            [column.figure ? 'r num' : '', column.lead ? 'lead' : '', column.className ?? '']
              .join(' ')
              .trim() || undefined
          }
        >
          {column.cell(row)}
        </td>
      ))}
    </tr>
  );
}
