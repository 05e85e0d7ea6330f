/** The address in front of several copies, and the clock that is set. */
import { expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { balance } from './balance.mjs';
import { freePort } from './mariadb.mjs';

const copy = async (name: string): Promise<{ server: Server; port: number }> => {
  const server = createServer((_request, response) => {
    response.setHeader('connection', 'close');
    response.end(name);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
  return { server, port: (server.address() as AddressInfo).port };
};
const closed = (server: Server) => new Promise((resolve) => server.close(resolve));

test('copies behind one address are asked by turns; one that is gone is passed over', async () => {
  const [one, two] = [await copy('one'), await copy('two')];
  const port = await freePort();
  const front = await balance('127.0.0.1', port, [one.port, two.port]);
  const ask = async () => (await fetch(`http://127.0.0.1:${port}/`)).text();
  expect(new Set([await ask(), await ask()])).toEqual(new Set(['one', 'two']));
  await closed(one.server);
  expect([await ask(), await ask(), await ask()]).toEqual(['two', 'two', 'two']);
  await closed(two.server);
  await expect(ask()).rejects.toThrow();
  await front.close();
});

test('a clock that is set moves what a program takes for now, and nothing that it was told', () => {
  const folder = mkdtempSync(join(tmpdir(), 'jutbank-clock-'));
  const file = join(folder, 'clock');
  const YEAR_MS = 365 * 86_400_000;
  writeFileSync(file, String(-YEAR_MS));
  const said = spawnSync(
    process.execPath,
    [
      '--import',
      new URL('clock.mjs', import.meta.url).href,
      '-e',
      'console.log(JSON.stringify([Date.now(), new Date().getTime(), new Date("1938-04-01T00:00:00Z").toISOString(), new Date() instanceof Date]))',
    ],
    { encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '', JUTBANK_CLOCK: file } },
  );
  rmSync(folder, { recursive: true, force: true });
  const [now, made, told, same] = JSON.parse(said.stdout) as [number, number, string, boolean];
  const then = Date.now() - YEAR_MS;
  for (const at of [now, made]) expect(Math.abs(at - then)).toBeLessThan(30_000);
  expect([told, same]).toEqual(['1938-04-01T00:00:00.000Z', true]);
});
