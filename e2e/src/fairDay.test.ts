/** A whole day at a fair with the connection cut: packed before, used all day, everything sent once afterwards. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import type { FairNoteRecord } from '@jutbank/contract/fair';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { type Application, DEMO, FILLING_MS, startApplication } from './support/application.ts';
import { openBrowser, PATIENCE_MS, signIn, type Browser } from './support/browser.ts';
import { photographTable } from './support/photograph.ts';
import { openGate, type Gate } from './support/gate.ts';

let app: Application;
let gate: Gate;
let browser: Browser;
let before = 0;
beforeAll(async () => {
  app = await startApplication(true);
  gate = await openGate(app.address);
  browser = await openBrowser({ width: 390, height: 844 });
  await signIn(browser, gate.address, DEMO);
}, FILLING_MS);
afterAll(async () => {
  await browser?.close();
  await gate?.close();
  await app?.close();
});

const WHICH = 'Which is it? Name, number, or what is stamped on it';
const open = async (path: string) => {
  await browser.driver.get(gate.address + path);
  await browser.settled();
};
const textOf = (css: string) =>
  browser.driver.executeScript<string>(
    'return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText).join(" ")',
    css,
  );
const amountOf = async () => Number((await textOf('.ceiling .most')).replace(/[^\d.]/g, ''));
const ceiling = async (): Promise<number> => {
  await browser.driver.wait(async () => (await amountOf()) > 0, PATIENCE_MS, 'there is no ceiling');
  return amountOf();
};
const notes = async () => (await browser.fetchJson<{ items: FairNoteRecord[] }>('/api/v1/fair/notes')).items;

test('at home: the bag is packed, with the program in it', async () => {
  before = (await notes()).length;
  await open('/fair');
  await browser.says('No bag packed');
  await browser.click('button', 'Pack my bag');
  await browser.click('button', 'Pack all makers');
  await browser.says('works without a connection');
  await browser.says('Bag packed just now');
});

test('at the gate of the fair the connection is gone; the program starts all the same, at any of its pages', async () => {
  await gate.cut();
  await browser.driver.get(gate.address);
  await browser.click('link', 'Fair');
  await browser.says('At the table');
  await browser.driver.get(`${gate.address}/fair`);
  await browser.says('works without a connection');
  await browser.find('.pickbox input');
});

test('a stamp and what is seen lead to which it is, when it was made, and the most to pay', async () => {
  await browser.type(WHICH, 'norham v');
  await browser.says('NORHAM VALE');
  await browser.keys(Key.ENTER);
  await browser.says('Which it may be');
  await browser.find('.candidates svg');
  await browser.says('made');
  await browser.clickAt("(//ul[@class='candidates']//button)[1]");
  const clean = await ceiling();
  await browser.click('button', 'Cracked handle');
  await browser.driver.wait(async () => (await amountOf()) < clean, PATIENCE_MS, 'a crack lowers no ceiling');
  await browser.type('They ask', '5');
  await browser.says('Below the ceiling');
  await browser.type('What the seller says', 'from a chandler’s cellar');
  await browser.click('button', 'Bought');
  await browser.says('One note waits for a connection');
});

test('a numbered piece is found by its number; one is only photographed; one is left', async () => {
  await browser.type(WHICH, 'AB-0412');
  await browser.says('Petrel');
  await browser.keys(Key.ENTER);
  await ceiling();
  await browser.type('They ask', '9000');
  await browser.says('Leave it');
  await browser.click('button', 'Thinking');
  await browser.says('2 notes wait');

  await photographTable(browser);
  await browser.type('Working name', 'Brass jack, wet table');
  await browser.type('They ask', '25');
  await browser.click('button', 'Bought');
  await browser.says('3 notes wait');

  await browser.type(WHICH, 'jack harbour');
  await browser.keys(Key.ENTER);
  await ceiling();
  await browser.click('button', 'Left it');
  await browser.says('4 notes wait');
});

test('the phone is closed and opened again: nothing is lost', async () => {
  await browser.driver.get(`${gate.address}/fair`);
  await browser.says('4 notes wait');
});

test('meanwhile at the shop the number comes onto the watch-list', async () => {
  const call = (path: string, body: object, cookie = '') =>
    fetch(`${app.address}/api/v1${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID(), cookie },
      body: JSON.stringify(body),
    });
  const signed = await call('/session', DEMO);
  const cookie = (signed.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  const watched = await call(
    '/watch-list',
    { code: 'petrel-serial', text: 'AB-0412', note: 'reported stolen' },
    cookie,
  );
  expect(watched.status).toBe(201);
});

test('back in reach everything is sent once, and what no longer holds is told', async () => {
  await gate.mend();
  await browser.click('button', 'Send now');
  await browser.says('4 notes sent.');
  await browser.says('Number 412 is on the shop’s watch-list: reported stolen');
  const kept = await notes();
  expect(kept).toHaveLength(before + 4);
  const bought = kept.filter((n) => n.pieceId !== null).slice(0, 2);
  const pieces = await Promise.all(
    bought.map((n) => browser.fetchJson<PieceSheet>(`/api/v1/pieces/${n.pieceId ?? ''}`)),
  );
  const stamped = pieces.find((p) => p.title !== 'Brass jack, wet table');
  expect(stamped?.observations).toMatchObject([{ mark: expect.any(String) }]);
  expect(stamped?.intake).toMatchObject({
    sellerStatement: 'from a chandler’s cellar',
    price: { amount: '5.00', currency: 'EUR' },
  });
  const photographed = pieces.find((p) => p.title === 'Brass jack, wet table');
  expect(photographed?.pictures).toHaveLength(1);
  // once more, and again: it is all there already
  await open('/fair');
  expect(await notes()).toHaveLength(before + 4);
});

test('signing out leaves nothing of the shop on the phone', async () => {
  await open('/account');
  await browser.click('button', 'Sign out');
  await browser.find("input[autocomplete='current-password'], input[type='password']");
  const left = await browser.driver.executeAsyncScript<string[]>(
    `const done = arguments[0];
     const kept = indexedDB.open('jutbank-kept');
     kept.onsuccess = () => {
       const all = kept.result.transaction('documents').objectStore('documents').getAllKeys();
       all.onsuccess = () => done([...all.result, ...Object.keys(localStorage).filter((k) => k.startsWith('jutbank.kept'))]);
     };`,
  );
  expect(left).toEqual([]);
});
