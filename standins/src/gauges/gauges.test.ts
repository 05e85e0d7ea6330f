import { connect, type Socket } from 'node:net';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startGauge, type SimulatedGauge } from './index.ts';

let gauge: SimulatedGauge;
let hand: Socket;
const lines: string[] = [];
const waiting: (() => void)[] = [];

beforeAll(async () => {
  gauge = await startGauge('caliper');
  const [host, port] = gauge.address.split(':');
  hand = connect(Number(port), host);
  hand.setEncoding('utf8');
  hand.on('data', (text: string) => {
    lines.push(...text.split('\r\n').filter((l) => l !== ''));
    waiting.splice(0).forEach((go) => go());
  });
  await new Promise<void>((resolve) => hand.once('connect', () => resolve()));
});
afterAll(async () => {
  hand.destroy();
  await gauge.close();
});

/** Sends a command and gives the line that answers it. */
async function said(command: string): Promise<string | undefined> {
  hand.write(`${command}\n`);
  while (lines.length === 0) await new Promise<void>((resolve) => waiting.push(resolve));
  return lines.shift();
}

test('the data key sends what lies between the jaws, with its unit', async () => {
  hand.write('jaws 97.624\n');
  expect(await said('send')).toBe('97.62 mm');
});

test('inch and back', async () => {
  expect(await said('unit')).toBe('! unit in');
  expect(await said('send')).toBe('3.8435 in');
  expect(await said('unit')).toBe('! unit mm');
});

test('hold keeps the figure, zero starts from here', async () => {
  expect(await said('hold')).toBe('! hold on');
  hand.write('jaws 50\n');
  expect(await said('send')).toBe('97.62 mm');
  expect(await said('hold')).toBe('! hold off');
  expect(await said('zero')).toBe('! zero');
  hand.write('jaws 62.5\n');
  expect(await said('send')).toBe('12.50 mm');
});

test('what it does not know it says', async () => {
  expect(await said('dance')).toBe('! ?');
});
