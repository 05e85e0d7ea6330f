/** Whether the shop would come back: the last backups, each restored once to be sure; and everything in one file. */
import { archiveRoutes, type BackupRun, type BackupsAnswer } from '@jutbank/contract/archive';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { awaitJob } from '../base/task.ts';
import { NumberInput, Submit, useContractForm } from '../parts/fields/index.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Table, type Column } from '../parts/table/Table.tsx';
import { counted, momentText } from '../parts/words.ts';

export default function BackupsPage() {
  const own = useMay('own');
  const backups = useAnswer(archiveRoutes.backups);
  if (backups.isPending) return <Loading />;
  if (backups.isError) return <Failed error={backups.error} retry={() => void backups.refetch()} />;
  const { runs, lastGoodAt, tooOld, encrypted, archives } = backups.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Backups and archive</PageTitle>
      </div>
      <p className={tooOld ? 'note bad' : 'note good'} style={{ marginBottom: 16 }}>
        <b>
          {tooOld
            ? 'The last good backup is too old.'
            : lastGoodAt === null
              ? 'No backup yet.'
              : 'The shop is backed up.'}
        </b>
        {lastGoodAt === null
          ? 'The first is made by itself within minutes of the program’s start.'
          : `The last good one is of ${momentText(lastGoodAt)}: it was restored into a database of its own, and its ledger was walked from end to end.`}{' '}
        {encrypted
          ? 'Backups are encrypted; without the passphrase nobody reads them, the shop neither.'
          : 'They are not encrypted: a passphrase is given to the program when it is started.'}
      </p>
      <div className="twocol">
        <section>
          <h2 className="sec">Backups</h2>
          {own && <Task words="Back up now" act={archiveRoutes.backUp} label="How far the backup is" />}
          {runs.length > 0 && (
            <Table label="The last backups" rows={runs} columns={COLUMNS} keyOf={(run) => run.id} />
          )}
        </section>
        <section>
          <h2 className="sec">How often, and what is kept</h2>
          <SettingsForm key={backups.data.version} seen={backups.data} disabled={!own} />
          <h2 className="sec" style={{ marginTop: 22 }}>
            Everything in one open file
          </h2>
          <p className="soft">
            A ZIP with every table as text, lists that a spreadsheet opens, the reference packs, all pictures
            and papers, and the ledger, each with its fingerprint. Another installation reads it back whole.
            It holds what is private, and the keys that certificates are signed with.
          </p>
          {own && (
            <Task words="Make an archive" act={archiveRoutes.makeArchive} label="How far the archive is" />
          )}
          {own && archives.length > 0 && (
            <ul className="archives">
              {archives.map((made) => (
                <li key={made.name}>
                  <a href={`/api/v1/archives/${made.name}`}>{momentText(made.madeAt)}</a>{' '}
                  <span className="soft num">{bytes(made.size)}</span>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </div>
  );
}

const MEGABYTE = 1e6;
const bytes = (n: number): string =>
  n < MEGABYTE ? `${Math.ceil(n / 1e3)} kB` : `${counted(n / MEGABYTE)} MB`;

const COLUMNS: readonly Column<BackupRun>[] = [
  {
    id: 'when',
    head: 'When',
    lead: true,
    cell: (run) => <span className="num">{momentText(run.begunAt)}</span>,
  },
  {
    id: 'came',
    head: 'What came of it',
    cell: (run) =>
      run.good ? (
        `restored and found whole, ${counted(run.entries ?? 0)} entries`
      ) : (
        <span className="warn">{run.problem}</span>
      ),
  },
  { id: 'files', head: 'Files', figure: true, cell: (run) => (run.files === null ? '' : counted(run.files)) },
  { id: 'size', head: 'Size', figure: true, cell: (run) => (run.size === null ? '' : bytes(run.size)) },
];

/** A task that is begun here and followed to its end. */
function Task({ words, act, label }: { words: string; act: typeof archiveRoutes.backUp; label: string }) {
  const answers = useKeptAnswers();
  const [share, setShare] = useState<number>();
  const task = useMutation({
    mutationFn: async () => {
      const { job } = await send(act, {});
      setShare(0);
      await awaitJob(job, setShare);
    },
    onSettled: () => {
      setShare(undefined);
      return answers.invalidate(archiveRoutes.backups);
    },
  });
  return (
    <p style={{ marginBlock: 8 }}>
      <Button variant="contained" disabled={task.isPending} onClick={() => task.mutate()}>
        {words}
      </Button>{' '}
      {share !== undefined && (
        <>
          <progress value={share} max={1} aria-label={label} />{' '}
          <span className="num">{Math.round(share * 100)} in 100</span>
        </>
      )}
      {task.isError && <span className="problem">{task.error.message}</span>}
    </p>
  );
}

function SettingsForm({ seen, disabled }: { seen: BackupsAnswer; disabled: boolean }) {
  const answers = useKeptAnswers();
  const form = useContractForm(archiveRoutes.putBackupSettings, {
    empty: seen.settings,
    version: seen.version,
    onSent: (next) => answers.set(archiveRoutes.backups, {}, next),
  });
  const kept = (name: 'daily' | 'weekly' | 'monthly', label: string) => {
    const bound = form.field(name);
    return (
      <NumberInput
        label={label}
        disabled={disabled}
        {...bound}
        onChange={(n, understood) => bound.onChange(n ?? 0, understood && n !== null)}
      />
    );
  };
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <NumberInput
        label="Every so many hours"
        why="empty: nothing is backed up by itself"
        disabled={disabled}
        {...form.field('every')}
      />
      <div className="fields across">
        {kept('daily', 'Kept: days')}
        {kept('weekly', 'Kept: weeks')}
        {kept('monthly', 'Kept: months')}
      </div>
      {!disabled && <Submit form={form} words="Keep these" />}
    </form>
  );
}
