/** Somebody's list of prices: read, its columns named, tried, and then taken in; every error at its line and column. */
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { DATE_ORDERS, type DateOrder } from '@jutbank/core/value';
import {
  COMPARABLE_COLUMNS,
  REQUIRED_COLUMNS,
  type ComparableColumn,
  type ComparablesImportAnswer,
  type FileLook,
  type ImportRecord,
  type JobAnswer,
} from '@jutbank/contract/value';
import { ApiProblem, call, get } from '../app/api.ts';
import { counted, dayText, inWords } from '../parts/words.ts';

type Mapping = FileLook['mapping'];
const ORDER_WORDS: Record<DateOrder, string> = {
  ymd: 'year, month, day',
  dmy: 'day, month, year',
  mdy: 'month, day, year',
};
const SEPARATOR_WORDS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' };
const ERRORS_SHOWN = 12;
const SAMPLE_SHOWN = 3;

/** Columns a row must have, which neither the file nor the person has named yet. */
const missingIn = (mapping: Mapping) =>
  REQUIRED_COLUMNS.filter(
    (c) => !Object.values(mapping.columns).includes(c) && (mapping.fixed[c] ?? '') === '',
  );

/** A large file goes on as a task: asked after until it is done. */
async function finished(id: string, tell: (share: number) => void): Promise<ComparablesImportAnswer> {
  for (;;) {
    const job = await get<JobAnswer>(`/jobs/${id}`);
    tell(job.progress);
    if (job.state === 'done') return job.result as ComparablesImportAnswer;
    if (job.state === 'failed')
      throw new ApiProblem(500, 'The import did not go through', 'Nothing was changed.', []);
    if (job.state === 'cancelled')
      throw new ApiProblem(0, 'Cancelled', 'Cancelled: nothing was changed.', []);
    await new Promise((resolve) => setTimeout(resolve, 400));
  }
}

export function ImportWizard() {
  const queries = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [mapping, setMapping] = useState<Mapping>();
  const [job, setJob] = useState<{ id: string; share: number }>();
  const look = useMutation({
    mutationFn: (chosen: File) => {
      const form = new FormData();
      form.set('file', chosen);
      return call<FileLook>('POST', '/comparables/look', { body: form });
    },
    onSuccess: (found, chosen) => {
      setMapping(found.mapping);
      if (missingIn(found.mapping).length === 0) send.mutate({ check: true, chosen, by: found.mapping });
    },
  });
  const send = useMutation({
    mutationFn: async ({ check, chosen, by }: { check: boolean; chosen: File; by: Mapping }) => {
      const form = new FormData();
      form.set('mapping', JSON.stringify(by));
      form.set('file', chosen);
      const answer = await call<ComparablesImportAnswer | { job: string }>(
        'POST',
        `/comparables/import${check ? '?check=1' : ''}`,
        { body: form },
      );
      if (!('job' in answer)) return { check, result: answer };
      setJob({ id: answer.job, share: 0 });
      return { check, result: await finished(answer.job, (share) => setJob({ id: answer.job, share })) };
    },
    onSuccess: ({ check }) => {
      if (check) return;
      setFile(undefined);
      setMapping(undefined);
      look.reset();
      void queries.invalidateQueries({ queryKey: ['comparables'] });
      void queries.invalidateQueries({ queryKey: ['imports'] });
    },
    onSettled: () => setJob(undefined),
  });
  const choose = (chosen: File | undefined) => {
    setFile(chosen);
    setMapping(undefined);
    send.reset();
    if (chosen) look.mutate(chosen);
  };
  const change = (next: Mapping) => {
    setMapping(next);
    send.reset();
  };
  const answer = send.data?.result;
  const problem = [look.error, send.error].find((e) => e instanceof ApiProblem);
  return (
    <section className="askbox" style={{ margin: 0 }}>
      <h2 className="sec">
        Take in a list <small>CSV from anywhere</small>
      </h2>
      <button type="button" className="drop" onClick={() => chooser.current?.click()}>
        {file ? file.name : 'Choose a CSV file'}
      </button>
      <input
        ref={chooser}
        type="file"
        accept=".csv,.txt,text/csv"
        hidden
        aria-label="Choose a CSV file"
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          e.target.value = '';
          choose(chosen);
        }}
      />
      {look.data && mapping && (
        <>
          <p className="soft" style={{ margin: '8px 0' }}>
            {counted(look.data.rows)} rows, parted by{' '}
            {SEPARATOR_WORDS[look.data.separator] ?? look.data.separator}, in {look.data.encoding}.
            {look.data.remembered && ' Its columns are read as last time.'}
          </p>
          <Columns look={look.data} mapping={mapping} onChange={change} />
        </>
      )}
      {job && (
        <p role="status">
          Going in: {Math.round(job.share * 100)} %{' '}
          <Button onClick={() => void call('DELETE', `/jobs/${job.id}`)}>Cancel</Button>
        </p>
      )}
      {answer && (
        <p role="status" style={{ marginTop: 8 }}>
          {counted(answer.rows)} rows: {send.data?.check ? 'would add' : 'added'} {counted(answer.added)},{' '}
          {counted(answer.alreadyKnown)} known already, {counted(answer.rejected)} not readable.
        </p>
      )}
      {answer?.errors.slice(0, ERRORS_SHOWN).map((e, i) => (
        <p key={i} className="problem">
          Line {e.line}
          {e.column === null ? '' : `, ${inWords(e.column.replaceAll('_', '-'))}`}
          {e.value === '' ? '' : ` “${e.value.slice(0, 40)}”`}: {e.message}
        </p>
      ))}
      {answer && answer.errors.length > ERRORS_SHOWN && (
        <p className="problem">and {counted(answer.errors.length - ERRORS_SHOWN)} more</p>
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
      {file && mapping && !job && (
        <div style={{ display: 'flex', gap: 10, marginTop: 10 }}>
          <Button
            disabled={send.isPending}
            onClick={() => send.mutate({ check: true, chosen: file, by: mapping })}
          >
            Try it
          </Button>
          <Button
            variant="contained"
            disabled={send.isPending || !send.data?.check || send.data.result.added === 0}
            onClick={() => send.mutate({ check: false, chosen: file, by: mapping })}
          >
            Import the good rows
          </Button>
        </div>
      )}
      <Imports />
    </section>
  );
}

function Columns({
  look,
  mapping,
  onChange,
}: {
  look: FileLook;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const missing = REQUIRED_COLUMNS.filter((c) => !Object.values(mapping.columns).includes(c));
  const give = (name: string, column: string) => {
    const columns = Object.fromEntries(
      Object.entries(mapping.columns).filter(([other, c]) => other !== name && c !== column),
    );
    onChange({
      ...mapping,
      columns: column === '' ? columns : { ...columns, [name]: column as ComparableColumn },
    });
  };
  return (
    <>
      <div
        className="scroll"
        tabIndex={0}
        role="region"
        aria-label="Columns of the file"
        style={{ maxHeight: 260, overflowY: 'auto' }}
      >
        <table className="grid">
          <thead>
            <tr>
              <th>Their column</th>
              <th>Says</th>
              <th>First rows</th>
            </tr>
          </thead>
          <tbody>
            {look.header.map((name, i) => (
              <tr key={name}>
                <td>{name}</td>
                <td>
                  <select
                    className="plainselect"
                    aria-label={`What “${name}” says`}
                    value={mapping.columns[name] ?? ''}
                    onChange={(e) => give(name, e.target.value)}
                  >
                    <option value="">kept as a note</option>
                    {COMPARABLE_COLUMNS.map((c) => (
                      <option key={c} value={c}>
                        {inWords(c.replaceAll('_', '-'))}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="soft">
                  {look.sample
                    .slice(0, SAMPLE_SHOWN)
                    .map((row) => row[i] ?? '')
                    .filter(Boolean)
                    .join(' · ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div
        style={{
          display: 'grid',
          gap: 10,
          gridTemplateColumns: 'repeat(auto-fit, minmax(140px, 1fr))',
          marginTop: 10,
        }}
      >
        <TextField
          select
          label="Dates are written"
          value={mapping.dateOrder}
          onChange={(e) => onChange({ ...mapping, dateOrder: e.target.value as DateOrder })}
        >
          {DATE_ORDERS.map((o) => (
            <MenuItem key={o} value={o}>
              {ORDER_WORDS[o]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Decimals with"
          value={mapping.decimalComma ? 'comma' : 'point'}
          onChange={(e) => onChange({ ...mapping, decimalComma: e.target.value === 'comma' })}
        >
          <MenuItem value="point">a point</MenuItem>
          <MenuItem value="comma">a comma</MenuItem>
        </TextField>
        {missing.map((column) => (
          <TextField
            key={column}
            label={`${inWords(column.replaceAll('_', '-'))} of every row`}
            value={mapping.fixed[column] ?? ''}
            placeholder={column === 'price_kind' ? 'sold' : column === 'venue_kind' ? 'auction' : ''}
            onChange={(e) => {
              const { [column]: _, ...fixed } = mapping.fixed;
              onChange({
                ...mapping,
                fixed: e.target.value === '' ? fixed : { ...fixed, [column]: e.target.value },
              });
            }}
          />
        ))}
      </div>
    </>
  );
}

/** Lists that went in, and the way back. */
function Imports() {
  const queries = useQueryClient();
  const imports = useQuery({
    queryKey: ['imports'],
    queryFn: () => get<{ items: ImportRecord[] }>('/comparables/imports'),
  });
  const undo = useMutation({
    mutationFn: (of: ImportRecord) =>
      call('POST', `/comparables/imports/${of.id}/undo`, { body: { undone: of.undoneAt === null } }),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['imports'] });
      void queries.invalidateQueries({ queryKey: ['comparables'] });
    },
  });
  if (!imports.data || imports.data.items.length === 0) return null;
  return (
    <details style={{ marginTop: 12 }}>
      <summary className="soft">Lists that went in</summary>
      <table className="grid">
        <tbody>
          {imports.data.items.slice(0, 8).map((i) => (
            <tr key={i.id} className={i.undoneAt === null ? '' : 'soft'}>
              <td className="num">{dayText(i.at)}</td>
              <td>{i.name}</td>
              <td className="r num">{counted(i.rows)}</td>
              <td className="r">
                <button
                  type="button"
                  className="quiet"
                  disabled={undo.isPending}
                  onClick={() => undo.mutate(i)}
                >
                  {i.undoneAt === null ? 'Undo' : 'Take back'}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
