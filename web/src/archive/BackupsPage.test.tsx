import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { BackupsAnswer } from '@jutbank/contract/archive';
import { serve, show } from '../testing/screen.tsx';
import BackupsPage from './BackupsPage.tsx';

afterEach(cleanup);

const run: BackupsAnswer['runs'][number] = {
  id: '1',
  begunAt: '2026-11-30T03:00:00.000Z',
  name: '2026-11-30T03-00-00-000Z',
  good: true,
  encrypted: false,
  size: 6_400_000,
  files: 321,
  entries: 757,
  problem: null,
};
const backups = (more: Partial<BackupsAnswer> = {}): BackupsAnswer => ({
  settings: { every: 24, daily: 7, weekly: 5, monthly: 12 },
  version: 1,
  encrypted: false,
  runs: [],
  lastGoodAt: null,
  tooOld: false,
  running: null,
  archives: [],
  archiving: null,
  ...more,
});

describe('backups', () => {
  test('a new shop is told when the first is made', async () => {
    serve({ 'GET /backups': () => ({ body: backups() }) });
    show(<BackupsPage />);
    await screen.findByText('No backup yet.');
    expect(screen.queryByRole('table')).toBeNull();
  });

  test('one that failed says why, and that the last good one is too old', async () => {
    const failed = {
      ...run,
      id: '2',
      good: false,
      name: null,
      size: null,
      files: null,
      entries: null,
      problem: 'No space left on device',
    };
    serve({
      'GET /backups': () => ({
        body: backups({ runs: [failed, run], lastGoodAt: run.begunAt, tooOld: true }),
      }),
    });
    show(<BackupsPage />);
    await screen.findByText('The last good backup is too old.');
    await screen.findByText('No space left on device');
    await screen.findByText(/found whole, 757 entries/);
    await screen.findByText('6 MB');
  });

  test('what cannot be is told beside its field, and what was typed stays', async () => {
    const came = serve({ 'GET /backups': () => ({ body: backups() }) });
    show(<BackupsPage />);
    const every = await screen.findByLabelText('Every so many hours');
    await userEvent.clear(every);
    await userEvent.type(every, '2000');
    await userEvent.click(screen.getByRole('button', { name: 'Keep these' }));
    await screen.findByText(/720/);
    expect(screen.getByLabelText<HTMLInputElement>('Every so many hours').value).toBe('2000');
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
  });

  test('a clerk sees how it stands, and begins nothing', async () => {
    serve({ 'GET /backups': () => ({ body: backups({ runs: [run], lastGoodAt: run.begunAt }) }) });
    show(<BackupsPage />, { role: 'clerk' });
    await screen.findByText('The shop is backed up.');
    expect(screen.queryByRole('button', { name: /Back up now|Make an archive|Keep these/ })).toBeNull();
  });
});
