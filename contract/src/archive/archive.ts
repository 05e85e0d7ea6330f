/** Backups of the shop, and everything of it in one open file. */
import { z } from 'zod';
import { answers, route } from '../http/index.ts';

export const BACKUP_JOB = 'backup';
export const ARCHIVE_JOB = 'archive';

const kept = (most: number) => z.number().int('write a whole number').min(0).max(most);
export const backupSettings = z.object({
  /** hours; null: nothing is backed up by itself */
  every: z.number().int('write whole hours').min(1).max(720).nullable(),
  daily: kept(90),
  weekly: kept(104),
  monthly: kept(120),
});
export type BackupSettings = z.infer<typeof backupSettings>;

export const backupRun = z
  .object({
    id: z.string(),
    /** instant */
    begunAt: z.string(),
    name: z.string().nullable(),
    good: z.boolean(),
    encrypted: z.boolean(),
    /** bytes */
    size: z.number().nullable(),
    files: z.number().int().nullable(),
    /** entries of the ledger that were walked in the restored copy */
    entries: z.number().int().nullable(),
    problem: z.string().nullable(),
  })
  .meta({ id: 'BackupRun' });
export type BackupRun = z.infer<typeof backupRun>;

export const backupsAnswer = z
  .object({
    settings: backupSettings,
    version: z.number(),
    encrypted: z.boolean(),
    /** the last runs, the newest first */
    runs: z.array(backupRun),
    lastGoodAt: z.string().nullable(),
    /** the last good one is older than the shop wants */
    tooOld: z.boolean(),
    /** the task that is under way */
    running: z.string().nullable(),
    /** archives that were made and can be fetched, the newest first */
    archives: z.array(z.object({ name: z.string(), size: z.number(), madeAt: z.string() })),
    archiving: z.string().nullable(),
  })
  .meta({ id: 'Backups' });
export type BackupsAnswer = z.infer<typeof backupsAnswer>;

const archive = { room: 'archive', access: 'own' } as const;
const job = z.object({ job: z.string() });
export const archiveRoutes = {
  backups: route({
    ...archive,
    access: 'work',
    method: 'get',
    path: '/backups',
    summary: 'What was backed up, and whether it is enough',
    answer: answers(backupsAnswer, 'Settings and the last runs'),
  }),
  putBackupSettings: route({
    ...archive,
    method: 'put',
    path: '/backups/settings',
    summary: 'How often, and what is kept',
    body: backupSettings,
    answer: answers(backupsAnswer, 'Settings and the last runs'),
  }),
  backUp: route({
    ...archive,
    method: 'post',
    path: '/backups',
    summary: 'Back up now, as a task',
    answer: answers(job, 'The task'),
    status: 202,
  }),
  makeArchive: route({
    ...archive,
    method: 'post',
    path: '/archives',
    summary: 'Everything of the shop in one open file, as a task',
    answer: answers(job, 'The task'),
    status: 202,
  }),
  archive: route({
    ...archive,
    method: 'get',
    path: '/archives/:name',
    params: z.object({ name: z.string().regex(/^jutbank-[\w-]{10,40}\.zip$/, 'there is no such archive') }),
    summary: 'An archive as it was made',
    carries: 'file',
  }),
};
