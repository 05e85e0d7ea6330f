/** A model's twenty-five forms and an annual series of thirty are followed; a clerk learns the marks by keyboard. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Client } from '../../demo/src/client.ts';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, signIn, type Browser } from './support/browser.ts';
import { faults } from './support/intakeToSale.ts';

const OWNER = { name: 'Sanna Merrow', email: 'sanna@lanternrow.example', password: 'a long enough one' };
let app: Application;
let browser: Browser;
let shop: Client;

const FIRST_YEAR = 1997;
const LAST_YEAR = 2026;
const years = Array.from({ length: LAST_YEAR - FIRST_YEAR + 1 }, (_, i) => FIRST_YEAR + i);
const woods = ['birch', 'oak', 'alder'];
/** Seventeen in the catalogue, six for shops, a run that was split by hand, and a prototype. */
const petrels = [
  ...Array.from({ length: 17 }, (_, i) => ({
    id: `pt-${i + 1}`,
    name: `Series ${i + 1}`,
    kind: 'production',
    window: String(2001 + i),
    features: { coating: [i % 2 === 0 ? 'satin' : 'black'], spacer: [woods[i % 3]] },
    marks: ['bird'],
  })),
  ...Array.from({ length: 6 }, (_, i) => ({
    id: `pt-shop-${i + 1}`,
    name: `Exclusive ${i + 1}`,
    kind: 'exclusive',
    window: String(2004 + 2 * i),
    edition: { run: 100 * (i + 1), firstNumber: 1, retailer: 'Lantern Row' },
    marks: ['bird'],
  })),
  {
    id: 'pt-split',
    name: 'Left and right',
    kind: 'limited',
    window: '2019',
    edition: {
      split: [
        { by: 'hand', of: 'left hand', run: 20 },
        { by: 'hand', of: 'right hand', run: 180 },
      ],
    },
  },
  {
    id: 'pt-proto',
    name: 'Prototype',
    kind: 'prototype',
    window: '2000',
    made: { quantity: 4, basis: 'documented' },
  },
].map((variant) => ({ pattern: 'petrel', ...variant }));

const pack = {
  format: 'jutbank.reference/1',
  id: 'series-pack',
  title: 'For collectors',
  revision: '1',
  sources: [{ id: 'list', title: 'Maker’s list', kind: 'catalogue' }],
  makers: [
    { id: 'cv', name: 'Corvane Knifeworks' },
    { id: 'as', name: 'Askelund & Dotter' },
  ],
  features: [
    {
      id: 'coating',
      label: 'Coating',
      part: 'blade',
      kind: 'category',
      values: [
        { id: 'satin', label: 'Satin' },
        { id: 'black', label: 'Black' },
      ],
    },
    {
      id: 'spacer',
      label: 'Spacer',
      part: 'scales',
      kind: 'category',
      values: woods.map((id) => ({ id, label: id })),
    },
    {
      id: 'grip',
      label: 'Grip',
      part: 'scales',
      kind: 'category',
      values: woods.map((id) => ({ id, label: id })),
    },
  ],
  patterns: [
    { id: 'petrel', maker: 'cv', name: 'Petrel', construction: 'locking-folder' },
    { id: 'yearly', maker: 'as', name: 'Yearly knife', construction: 'fixed' },
  ],
  codes: [
    {
      id: 'dots',
      maker: 'cv',
      kind: 'date',
      source: 'list',
      page: '3',
      reads: [
        { id: 'row', label: 'Row', type: 'choice', values: ['above', 'below'] },
        { id: 'dots', label: 'Dots', type: 'count', min: 0, max: 9 },
      ],
      rules: [
        { when: { row: 'above' }, year: { base: 2000, plus: 'dots' } },
        { when: { row: 'below' }, year: { base: 2010, plus: 'dots' } },
      ],
    },
  ],
  marks: [{ id: 'bird', maker: 'cv', lines: ['CORVANE'], window: '2000/2020', codes: ['dots'] }],
  variants: [
    ...petrels,
    ...years.map((year) => ({
      id: `yk-${year}`,
      pattern: 'yearly',
      name: `Year ${year}`,
      kind: 'limited',
      window: String(year),
      features: { grip: [woods[year % 3]] },
      edition: { run: 300, index: year - FIRST_YEAR + 1 },
    })),
  ],
};

async function owned(pattern: string, variant: string): Promise<string> {
  const { id, version } = await shop.call<{ id: string; version: number }>('POST', '/pieces', {
    title: `One of ${variant}`,
    construction: pattern === 'petrel' ? 'locking-folder' : 'fixed',
    sourceKind: 'private',
    sourceName: 'A collector',
    sourcePlace: '',
    acquired: '2026-05-04',
    price: null,
    sellerStatement: '',
    cameWith: '',
    asFound: 'untouched',
  });
  await shop.call(
    'PUT',
    `/pieces/${id}/attribution`,
    { attribution: { pattern, variant, tier: 'probable', reason: 'compared' } },
    version,
  );
  return id;
}

beforeAll(async () => {
  app = await startApplication(false);
  shop = new Client(app.address);
  await shop.call('POST', '/setup', { shopName: 'Lantern Row', baseCurrency: 'EUR', owner: OWNER });
  await shop.signIn(OWNER);
  await shop.call('POST', '/reference-packs', pack);
  // nine of the forms, two of them twice; three of the years
  for (const variant of [
    'pt-1',
    'pt-1',
    'pt-2',
    'pt-3',
    'pt-5',
    'pt-8',
    'pt-13',
    'pt-shop-1',
    'pt-shop-1',
    'pt-shop-4',
    'pt-proto',
  ])
    await owned('petrel', variant);
  for (const year of [1997, 2008, 2026]) await owned('yearly', `yk-${year}`);
  browser = await openBrowser({ width: 1280, height: 800 });
  await signIn(browser, app.address, OWNER);
}, 180_000);
afterAll(async () => {
  expect(await faults(browser)).toEqual([]);
  await browser?.close();
  await app?.close();
});

const open = async (path: string) => {
  await browser.driver.get(app.address + path);
  await browser.settled();
};
/** How many each filter of the series has. */
const counts = async (): Promise<Record<string, number>> =>
  browser.driver.executeScript(
    "return Object.fromEntries([...document.querySelectorAll('[aria-label=\"What is shown\"] button')].map((b) => [b.firstChild.textContent.trim(), Number(b.querySelector('.num').textContent)]))",
  );
const onBoard = async (): Promise<string[]> =>
  browser.driver.executeScript("return [...document.querySelectorAll('.slot b')].map((b) => b.textContent)");

describe('a model with its exclusives', () => {
  test('followed from an empty list, it fills itself from what was decided', async () => {
    await open('/series');
    await browser.says('Nothing is followed yet');
    await browser.click('button', 'Follow a series');
    await browser.type('Name', 'Every Petrel');
    await browser.type('Patterns or models', 'Petrel');
    await browser.keys(Key.ARROW_DOWN, Key.ENTER);
    await browser.click('button', 'Follow it');
    await browser.says('9 of 25');
    expect(await counts()).toEqual({ All: 25, Missing: 16, Double: 2, Wanted: 0, 'A better one wanted': 0 });
    const board = await onBoard();
    // in the order in which they were made: the prototype first, the split run last
    expect([board[0], board.at(-1)]).toEqual(['Prototype', 'Left and right']);
    await browser.says('no. 1–100');
    await browser.says('20 left hand + 180 right hand');
  }, 60_000);

  test('of a double it is said which to sell', async () => {
    await browser.click('button', 'Double');
    expect(await onBoard()).toEqual(['Series 1', 'Exclusive 1']);
    await browser.clickAt("//button[contains(@class, 'slot')][contains(., 'Series 1')]");
    await browser.says('To sell');
    await browser.says('Nobody has inspected it');
  });

  test('what is wanted is said with a price and a condition, and taken back', async () => {
    await browser.click('button', 'Missing');
    await browser.clickAt("//button[contains(@class, 'slot')][contains(., 'Exclusive 6')]");
    await browser.choose('What is said of it', 'Wanted');
    await browser.type('For at most', '340');
    await browser.type('In condition', '80');
    await browser.click('button', 'Keep it');
    await browser.driver.wait(async () => (await counts()).Wanted === 1, 8000);
    await browser.choose('What is said of it', 'Not cared for');
    await browser.click('button', 'Keep it');
    await browser.says('9 of 24');
    await browser.choose('What is said of it', 'nothing');
    await browser.click('button', 'Keep it');
    await browser.says('9 of 25');
  }, 60_000);
});

describe('an annual series', () => {
  test('thirty years, of which three are here, one is elsewhere and one is not cared for', async () => {
    const { id, version } = await shop.call<{ id: string; version: number }>('POST', '/series', {
      name: 'Every year’s knife',
      rule: { kind: 'years', patterns: ['yearly'] },
    });
    const said = await shop.call<{ version: number }>(
      'PUT',
      `/series/${id}/wishes`,
      { key: '1999', wish: 'have' },
      version,
    );
    await shop.call('PUT', `/series/${id}/wishes`, { key: '2001', wish: 'skip' }, said.version);
    await open(`/series/${id}`);
    await browser.says('4 of 29');
    expect(await onBoard()).toHaveLength(30);
    expect(await counts()).toMatchObject({ All: 30, Missing: 25 });
    await browser.says('number 30 of the series');
  });
});

test('a customer’s wish speaks up where a piece is taken in, and again where it is decided', async () => {
  const contact = await shop.call<{ id: string }>('POST', '/contacts', { name: 'Anna Quill' });
  await shop.call('POST', '/series', {
    name: 'Anna’s Petrels',
    contactId: contact.id,
    rule: { kind: 'picked', variants: ['pt-17', 'pt-split'] },
  });
  const id = await owned('petrel', 'pt-split');
  await open(`/pieces/${id}/intake`);
  await browser.says('Somebody waits for this');
  await browser.says('Anna Quill');
  await open(`/pieces/${id}/bench`);
  await browser.says('Somebody waits for this');
});

describe('drills', () => {
  test('a session from first to last by keyboard alone, each answer with its reason', async () => {
    await open('/drills');
    await browser.says('not asked yet');
    await browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
    let right = 0;
    let asked = 0;
    for (; asked < 40; asked++) {
      await browser.driver.wait(
        async () =>
          /Question \d+ of|\d+ of \d+ right/.test(
            await browser.driver.executeScript('return document.querySelector("h1")?.textContent ?? ""'),
          ),
        8000,
      );
      const head = await browser.driver.executeScript<string>(
        'return document.querySelector("h1").textContent',
      );
      if (/right$/.test(head)) break;
      expect(head).toContain(`Question ${asked + 1}`);
      await browser.keys(String(1 + (asked % 3)));
      await browser.says('Comes back');
      right += await browser.driver.executeScript<number>(
        "return document.querySelector('.note.good') ? 1 : 0",
      );
      await browser.keys(Key.ENTER);
    }
    expect(asked).toBeGreaterThanOrEqual(10);
    await browser.says(`${right} of ${asked} right`);
    await browser.keys(Key.ENTER);
    await browser.says(`${right} right, ${asked - right} wrong on 1 day`);
  }, 120_000);
});
