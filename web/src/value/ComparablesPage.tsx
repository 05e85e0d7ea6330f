/** Comparables: what things sold for elsewhere; by hand in seconds, by CSV with each error at its place. */
import { Button, MenuItem, TextField } from '@mui/material';
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/value';
import type { ComparableRecord, ComparablesImportAnswer, JobAnswer } from '@jutbank/contract/value';
import type { Page } from '@jutbank/contract/http';
import type { Vocabulary } from '@jutbank/contract/reference';
import { ApiProblem, call, get } from '../app/api.ts';
import { useMay, useSession } from '../app/session.ts';
import { Failed, Loading } from '../app/states.tsx';
import { moneyText, sentence, counted } from '../parts/words.ts';
import { useVocabulary } from '../parts/names.ts';

export default function ComparablesPage() {
  const mayWork = useMay('work');
  const [pattern, setPattern] = useState('');
  const [kind, setKind] = useState('');
  const vocabulary = useVocabulary();
  const list = useInfiniteQuery({
    queryKey: ['comparables', pattern, kind],
    queryFn: ({ pageParam, signal }) =>
      get<Page<ComparableRecord>>(
        `/comparables?limit=50${pattern && `&pattern=${pattern}`}${kind && `&priceKind=${kind}`}${pageParam && `&cursor=${pageParam}`}`,
        signal,
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });
  const patternName = (id: string) => vocabulary.data?.patterns.find((p) => p.id === id)?.name ?? id;
  const total = list.data?.pages[0]?.total ?? 0;
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Comparables</h1>
        <span className="soft">
          <span className="num">{counted(total)}</span> prices
        </span>
        <span className="grow" />
        <TextField
          select
          label="Pattern"
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
          sx={{ width: 220 }}
        >
          <MenuItem value="">All patterns</MenuItem>
          {vocabulary.data?.patterns.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Kind"
          value={kind}
          onChange={(e) => setKind(e.target.value)}
          sx={{ width: 130 }}
        >
          <MenuItem value="">All kinds</MenuItem>
          {PRICE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
      </div>
      {mayWork && (
        <div
          className="columns"
          style={{ gridTemplateColumns: 'repeat(auto-fit, minmax(300px, 1fr))', marginBottom: 20 }}
        >
          <AddByHand vocabulary={vocabulary.data} />
          <ImportCsv />
        </div>
      )}
      {list.isPending ? (
        <Loading />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : total === 0 ? (
        <p className="soft">
          No price is known yet. Import a list, or write down the first one: every estimate leans on them.
        </p>
      ) : (
        <>
          <div className="scroll" tabIndex={0} role="region" aria-label="List of comparables">
            <table className="grid">
              <thead>
                <tr>
                  <th>Sold</th>
                  <th>Piece</th>
                  <th>Kind</th>
                  <th>Where</th>
                  <th className="r">Price</th>
                  <th className="r">Index</th>
                  <th>With it</th>
                  <th>Source</th>
                </tr>
              </thead>
              <tbody>
                {list.data.pages
                  .flatMap((p) => p.items)
                  .map((row) => (
                    <tr key={row.id}>
                      <td className="num">{row.saleDate}</td>
                      <td>
                        {patternName(row.pattern)}{' '}
                        <span className="soft">{row.variantName ?? 'variant not told'}</span>
                      </td>
                      <td>{row.priceKind}</td>
                      <td>{row.cells.venue ?? row.venueKind}</td>
                      <td className="r num">{moneyText(row.price)}</td>
                      <td className="r num">{row.conditionIndex ?? ''}</td>
                      <td className="soft">
                        {[
                          row.cells.box === 'original' ? 'box' : undefined,
                          row.cells.alterations?.replaceAll('|', ', '),
                        ]
                          .filter(Boolean)
                          .join(', ')}
                      </td>
                      <td className="soft">{row.cells.source}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </div>
          {list.hasNextPage && (
            <Button
              sx={{ mt: 1.5 }}
              onClick={() => void list.fetchNextPage()}
              disabled={list.isFetchingNextPage}
            >
              Show more
            </Button>
          )}
        </>
      )}
    </div>
  );
}

const EMPTY = {
  sale_date: '',
  price: '',
  price_kind: 'sold',
  venue: '',
  venue_kind: 'auction',
  pattern: '',
  variant: '',
  condition_index: '',
};

function AddByHand({ vocabulary }: { vocabulary: Vocabulary | undefined }) {
  const { shop } = useSession();
  const queries = useQueryClient();
  const [cells, setCells] = useState({ ...EMPTY, currency: shop.baseCurrency });
  const add = useMutation({
    mutationFn: () =>
      call<ComparableRecord>('POST', '/comparables', {
        body: Object.fromEntries(Object.entries(cells).filter(([, v]) => v.trim() !== '')),
      }),
    onSuccess: () => {
      setCells({ ...cells, price: '', condition_index: '' });
      void queries.invalidateQueries({ queryKey: ['comparables'] });
    },
  });
  const problem = add.error instanceof ApiProblem ? add.error : undefined;
  const field = (key: keyof typeof cells, label: string, more: object = {}) => (
    <TextField
      label={label}
      value={cells[key]}
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      onChange={(e) => setCells({ ...cells, [key]: e.target.value })}
      {...more}
    />
  );
  return (
    <form
      className="askbox"
      style={{ margin: 0 }}
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <h2 className="sec">Write down a price</h2>
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'repeat(auto-fit, minmax(120px, 1fr))' }}>
        {field('sale_date', 'Date')}
        {field('price', 'Price')}
        {field('currency', 'Currency')}
        <TextField
          select
          label="Kind"
          value={cells.price_kind}
          onChange={(e) => setCells({ ...cells, price_kind: e.target.value })}
        >
          {PRICE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Venue"
          value={cells.venue_kind}
          onChange={(e) => setCells({ ...cells, venue_kind: e.target.value })}
        >
          {VENUE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Pattern"
          value={cells.pattern}
          error={!!problem?.at('/pattern')}
          helperText={problem?.at('/pattern')}
          onChange={(e) => setCells({ ...cells, pattern: e.target.value })}
        >
          {(vocabulary?.patterns ?? []).map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        {field('variant', 'Variant (id)')}
        {field('condition_index', 'Index 0–100')}
      </div>
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
      <div style={{ display: 'flex', gap: 10, alignItems: 'center', marginTop: 10 }}>
        <Button type="submit" variant="contained" disabled={add.isPending}>
          Add
        </Button>
        {add.isSuccess && <span className="soft">Added.</span>}
      </div>
    </form>
  );
}

/** A large file goes on as a task: asked after until it is done. */
async function finished(id: string, tell: (share: number) => void): Promise<ComparablesImportAnswer> {
  for (;;) {
    const job = await get<JobAnswer>(`/jobs/${id}`);
    tell(job.progress);
    if (job.state === 'done') return job.result as ComparablesImportAnswer;
    if (job.state === 'failed' || job.state === 'cancelled')
      throw new ApiProblem(500, 'The import did not go through', 'Nothing was changed.', []);
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}

const ERRORS_SHOWN = 12;

function ImportCsv() {
  const queries = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [progress, setProgress] = useState<number>();
  const send = useMutation({
    mutationFn: async ({ chosen, check }: { chosen: File; check: boolean }) => {
      const form = new FormData();
      form.set('file', chosen);
      const answer = await call<ComparablesImportAnswer | { job: string }>(
        'POST',
        `/comparables/import${check ? '?check=1' : ''}`,
        { body: form },
      );
      const result = 'job' in answer ? await finished(answer.job, setProgress) : answer;
      return { check, result };
    },
    onSuccess: ({ check }) => {
      if (check) return;
      setFile(undefined);
      void queries.invalidateQueries({ queryKey: ['comparables'] });
    },
    onSettled: () => setProgress(undefined),
  });
  const answer = send.data?.result;
  const problem = send.error instanceof ApiProblem ? send.error : undefined;
  return (
    <section className="askbox" style={{ margin: 0 }}>
      <h2 className="sec">
        Import a list <small>CSV, UTF-8</small>
      </h2>
      <button type="button" className="drop" onClick={() => chooser.current?.click()}>
        {file ? file.name : 'Choose a CSV file'}
      </button>
      <input
        ref={chooser}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="Choose a CSV file"
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          e.target.value = '';
          setFile(chosen);
          if (chosen) send.mutate({ chosen, check: true });
        }}
      />
      {progress !== undefined && <p role="status">Going in: {Math.round(progress * 100)} %</p>}
      {answer && (
        <p role="status" style={{ marginTop: 8 }}>
          {answer.rows} rows: {send.data?.check ? 'would add' : 'added'} {answer.added}, {answer.alreadyKnown}{' '}
          known already, {answer.rejected} not readable.
        </p>
      )}
      {answer?.errors.slice(0, ERRORS_SHOWN).map((e, i) => (
        <p key={i} className="problem">
          Line {e.line}
          {e.column === null ? '' : `, ${e.column}`}: {e.message}
        </p>
      ))}
      {answer && answer.errors.length > ERRORS_SHOWN && (
        <p className="problem">and {answer.errors.length - ERRORS_SHOWN} more</p>
      )}
      {problem && (
        <div role="alert">
          {[problem.message, ...problem.errors.map((e) => e.message)]
            .filter((m, i, list) => list.indexOf(m) === i)
            .map((m) => (
              <p key={m} className="problem">
                {m}
              </p>
            ))}
        </div>
      )}
      {file && send.data?.check && (
        <Button
          sx={{ mt: 1 }}
          variant="contained"
          disabled={send.isPending}
          onClick={() => send.mutate({ chosen: file, check: false })}
        >
          Import the good rows
        </Button>
      )}
    </section>
  );
}
