/** Files that come in lie on the disk for as long as their request lasts, and not in memory. */
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { intake, serverForTest, type TestServer } from '../testing/index.ts';
import { UPLOADS } from './upload.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());

const MIB = 1 << 20;
const HEAD =
  '--b\r\nContent-Disposition: form-data; name="file"; filename="junk.jpg"\r\nContent-Type: image/jpeg\r\n\r\n';
const PART = new Uint8Array(64 * 1024).fill(7);
/** Sends so many megabytes of the same bytes over and over, so that the sender holds next to nothing. */
const send = (path: string, megabytes: number): Promise<number> =>
  new Promise((resolve, reject) => {
    const out = request(
      `${server.address}/api/v1${path}`,
      {
        method: 'POST',
        headers: { cookie: server.owner.cookie, 'content-type': 'multipart/form-data; boundary=b' },
      },
      (answered) => {
        answered.resume();
        answered.on('end', () => resolve(answered.statusCode ?? 0));
      },
    );
    out.on('error', reject);
    out.write(HEAD);
    let left = megabytes * 16;
    const more = () => {
      while (left > 0) {
        left--;
        if (!out.write(PART)) {
          out.once('drain', more);
          return;
        }
      }
      out.end('\r\n--b--\r\n');
    };
    more();
  });
const lying = (): string[] => {
  try {
    return readdirSync(server.app.express.get(UPLOADS) as string);
  } catch {
    return [];
  }
};

test('eight times thirty megabytes of junk are refused, leave nothing lying, and memory as it was', async () => {
  const piece = (await server.owner.call('POST', '/pieces', intake)).body;
  const path = `/pieces/${piece.id}/pictures`;
  expect(await send(path, 1)).toBe(415);
  const held = () => process.memoryUsage().arrayBuffers + process.memoryUsage().heapUsed;
  const before = held();
  let most = 0;
  const watching = setInterval(() => (most = Math.max(most, held() - before)), 20);
  const replies = await Promise.all(Array.from({ length: 8 }, () => send(path, 29)));
  clearInterval(watching);
  expect(new Set(replies)).toEqual(new Set([415]));
  expect(most).toBeLessThan(100 * MIB);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(lying()).toEqual([]);
}, 60_000);
