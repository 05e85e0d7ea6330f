/** Somebody's list of prices: read, its columns named, tried, and then taken in; every error at its line and column. */
import type { RowError } from '@jutbank/contract/lists';
import { marketRoutes, type ComparablesImportAnswer, type FileLook } from '@jutbank/contract/market';
import { jobRoutes } from '@jutbank/contract/jobs';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { takeGuesses } from '@jutbank/core/lists';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { FileChooser } from '../parts/FileChooser.tsx';
import { awaitJob } from '../base/task.ts';
import { counted } from '../parts/words.ts';
import { columnInWords, ImportColumns, untoldIn, type Mapping } from './ImportColumns.tsx';
import { ImportNames } from './ImportNames.tsx';
import { ImportWords } from './ImportWords.tsx';
import { PastImports } from './PastImports.tsx';

const SEPARATOR_WORDS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' };
const ROWS_SHOWN = 12;

/** Columns a row must have, which neither the file nor the person has named yet. */
const missingIn = (mapping: Mapping) => untoldIn(mapping).filter((c) => (mapping.fixed[c] ?? '') === '');

const columnOf = (mapping: Mapping, ours: string) =>
  Object.keys(mapping.columns).find((name) => mapping.columns[name] === ours);

/** A date or a price that stands in another column now is written as that column writes it. */
function withNotation(mapping: Mapping, before: Mapping | undefined, { notation }: FileLook): Mapping {
  const moved = (ours: string) => before !== undefined && columnOf(before, ours) !== columnOf(mapping, ours);
  return {
    ...mapping,
    ...(moved('sale_date') ? { dateOrder: notation.dateOrder } : {}),
    ...(moved('price') || moved('currency')
      ? { decimalComma: notation.decimalComma, currencyInPrice: notation.currencyInPrice }
      : {}),
  };
}

export function ImportWizard() {
  const answers = useKeptAnswers();
  const [file, setFile] = useState<File>();
  const [mapping, setMapping] = useState<Mapping>();
  const [job, setJob] = useState<{ id: string; share: number }>();
  const look = useMutation({
    mutationFn: ({ chosen, by }: { chosen: File; by?: Mapping; before?: Mapping }) => {
      const form = new FormData();
      form.set('file', chosen);
      if (by) form.set('mapping', JSON.stringify(by));
      return send(marketRoutes.lookAtFile, { body: form });
    },
    onSuccess: (found, { chosen, by, before }) => {
      const read = takeGuesses(by ? withNotation(by, before, found) : found.mapping, found);
      setMapping(read);
      if (!by && missingIn(read).length === 0) sending.mutate({ check: true, chosen, by: read });
    },
  });
  const sending = useMutation({
    mutationFn: async ({ check, chosen, by }: { check: boolean; chosen: File; by: Mapping }) => {
      const form = new FormData();
      form.set('mapping', JSON.stringify(by));
      form.set('file', chosen);
      const answer = await send(marketRoutes.importComparables, {
        query: { check: check ? '1' : undefined },
        body: form,
      });
      if (!('job' in answer)) return { check, result: answer };
      setJob({ id: answer.job, share: 0 });
      return {
        check,
        result: (await awaitJob(answer.job, (share) =>
          setJob({ id: answer.job, share }),
        )) as ComparablesImportAnswer,
      };
    },
    onSuccess: ({ check }) => {
      if (check) return;
      setFile(undefined);
      setMapping(undefined);
      look.reset();
      void answers.invalidateBelow('/comparables');
    },
    onSettled: () => setJob(undefined),
  });
  const choose = (chosen: File) => {
    setFile(chosen);
    setMapping(undefined);
    sending.reset();
    look.mutate({ chosen });
  };
  const change = (next: Mapping) => {
    const said = (m: Mapping | undefined) =>
      JSON.stringify([m?.columns, m?.names.pattern, m?.fixed.grade_scale, m?.currencyInPrice]);
    const renamed = said(next) !== said(mapping);
    setMapping(next);
    sending.reset();
    // what is said depends on which column says it, forms on their pattern, grades on their scale
    if (renamed && file) look.mutate({ chosen: file, by: next, ...(mapping && { before: mapping }) });
  };
  const answer = sending.data?.result;
  const problem = [look.error, sending.error].find((e) => e instanceof ApiProblem);
  return (
    <section className="askbox" style={{ margin: 0 }}>
      <h2 className="sec">
        Take in a list <small>CSV from anywhere</small>
      </h2>
      <FileChooser label="Choose a CSV file" accept=".csv,.txt,text/csv" onChoose={choose}>
        {file ? file.name : 'Choose a CSV file'}
      </FileChooser>
      {look.data && mapping && (
        <>
          <p className="soft" style={{ margin: '8px 0' }}>
            {counted(look.data.rows)} rows, parted by{' '}
            {SEPARATOR_WORDS[look.data.separator] ?? look.data.separator}, in {look.data.encoding}.
            {look.data.remembered && ' Its columns are read as last time.'}
          </p>
          <ImportColumns look={look.data} mapping={mapping} onChange={change} />
          <ImportNames names={look.data.names} mapping={mapping} onChange={change} />
          <ImportWords words={look.data.words} mapping={mapping} onChange={change} />
        </>
      )}
      {job && (
        <p role="status">
          Going in: {Math.round(job.share * 100)} %{' '}
          <Button onClick={() => void send(jobRoutes.cancelJob, { params: { id: job.id } })}>Cancel</Button>
        </p>
      )}
      {answer && (
        <p role="status" style={{ marginTop: 8 }}>
          {counted(answer.rows)} rows: {sending.data?.check ? 'would add' : 'added'} {counted(answer.added)},{' '}
          {counted(answer.alreadyKnown)} known already, {counted(answer.rejected)} left out.
        </p>
      )}
      {answer && <RowsTold rows={answer.errors} className="problem" />}
      {answer && sending.data?.check && answer.warnings.length > 0 && (
        <>
          <p style={{ margin: '8px 0 0' }}>
            <b>{counted(answer.warnings.length)}</b> to look at before they go in:
          </p>
          <RowsTold rows={answer.warnings} className="soft" />
        </>
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
            disabled={sending.isPending}
            onClick={() => sending.mutate({ check: true, chosen: file, by: mapping })}
          >
            Try it
          </Button>
          <Button
            variant="contained"
            disabled={sending.isPending || !sending.data?.check || sending.data.result.added === 0}
            onClick={() => sending.mutate({ check: false, chosen: file, by: mapping })}
          >
            Import the good rows
          </Button>
        </div>
      )}
      <PastImports />
    </section>
  );
}

/** What is wrong or odd, at its line and column. */
function RowsTold({ rows, className }: { rows: readonly RowError[]; className: string }) {
  return (
    <>
      {rows.slice(0, ROWS_SHOWN).map((row, i) => (
        <p key={i} className={className}>
          Line {row.line}
          {row.column === null ? '' : `, ${columnInWords(row.column)}`}
          {row.value === '' ? '' : ` “${row.value.slice(0, 40)}”`}: {row.message}
        </p>
      ))}
      {rows.length > ROWS_SHOWN && <p className={className}>and {counted(rows.length - ROWS_SHOWN)} more</p>}
    </>
  );
}
