/** Somebody's list of prices: read, its columns named, tried, and then taken in; every error at its line and column. */
import { marketRoutes, type ComparablesImportAnswer, type FileLook } from '@jutbank/contract/market';
import { jobRoutes } from '@jutbank/contract/jobs';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { FileChooser } from '../parts/FileChooser.tsx';
import { awaitJob } from '../base/task.ts';
import { counted } from '../parts/words.ts';
import { columnInWords, ImportColumns, untoldIn, type Mapping } from './ImportColumns.tsx';
import { fileInWords } from '../lists/fileInWords.ts';
import { ListNames } from '../lists/ListNames.tsx';
import { RowsTold } from '../lists/RowsTold.tsx';
import { useListLook } from '../lists/useListLook.ts';
import { ImportWords } from './ImportWords.tsx';
import { PastImports } from './PastImports.tsx';

const UNKNOWN_NAMES = { maker: 'not told', pattern: 'leave the rows out', variant: 'form not told' };

/** Columns a row must have, which neither the file nor the person has named yet. */
const missingIn = (mapping: Mapping) => untoldIn(mapping).filter((c) => (mapping.fixed[c] ?? '') === '');

export function ImportWizard() {
  const answers = useKeptAnswers();
  const [job, setJob] = useState<{ id: string; share: number }>();
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
      list.clear();
      void answers.invalidateBelow('/comparables');
    },
    onSettled: () => setJob(undefined),
  });
  const list = useListLook<Mapping, FileLook>({
    ask: (form) => send(marketRoutes.lookAtFile, { body: form }),
    where: { dates: ['sale_date'], prices: ['price'] },
    // what is said depends on which column says it, forms on their pattern, grades on their scale
    rereadBy: (m) => [m?.columns, m?.names.pattern, m?.fixed.grade_scale, m?.currencyInPrice],
    onFirstRead: (chosen, read) => {
      if (missingIn(read).length === 0) sending.mutate({ check: true, chosen, by: read });
    },
    onChange: () => sending.reset(),
  });
  const { file, mapping, look, choose, change } = list;
  const answer = sending.data?.result;
  const problem = [list.error, sending.error].find((e) => e instanceof ApiProblem);
  return (
    <section className="askbox" style={{ margin: 0 }}>
      <h2 className="sec">
        Take in a list <small>CSV from anywhere</small>
      </h2>
      <FileChooser label="Choose a CSV file" accept=".csv,.txt,text/csv" onChoose={choose}>
        {file ? file.name : 'Choose a CSV file'}
      </FileChooser>
      {look && mapping && (
        <>
          <p className="soft" style={{ margin: '8px 0' }}>
            {fileInWords(look)}
          </p>
          <ImportColumns look={look} mapping={mapping} onChange={change} />
          <ListNames
            names={look.names}
            meant={mapping.names}
            unknown={UNKNOWN_NAMES}
            onChange={(names) => change({ ...mapping, names })}
          />
          <ImportWords words={look.words} mapping={mapping} onChange={change} />
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
      {answer && <RowsTold rows={answer.errors} inWords={columnInWords} className="problem" />}
      {answer && sending.data?.check && answer.warnings.length > 0 && (
        <>
          <p style={{ margin: '8px 0 0' }}>
            <b>{counted(answer.warnings.length)}</b> to look at before they go in:
          </p>
          <RowsTold rows={answer.warnings} inWords={columnInWords} className="soft" />
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
