/** A dealer's day: bought at a fair, a lot taken in, an estimate, an ask, an offer, a decision; lists good and bad. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import type chrome from 'selenium-webdriver/chrome.js';
import { type Application, DEMO, FILLING_MS, startApplication } from './support/application.ts';
import { openBrowser, signIn, type Browser } from './support/browser.ts';
import { photographTable } from './support/photograph.ts';

let app: Application;
let browser: Browser;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 360, height: 780 };
beforeAll(async () => {
  app = await startApplication(true);
  browser = await openBrowser(DESK);
  await signIn(browser, app.address, DEMO);
}, FILLING_MS);
afterAll(async () => {
  await browser?.close();
  await app?.close();
});
const open = async (path: string) => {
  await browser.driver.get(app.address + path);
  await browser.settled();
};
const textOf = async (css: string) => (await browser.find(css)).getText();
const total = async () => (await browser.fetchJson<{ total: number }>('/api/v1/comparables?limit=1')).total;
const offline = async (off: boolean) => {
  const driver = browser.driver as unknown as chrome.Driver;
  // without this the browser only says that it is offline, and everything goes out all the same
  await driver.sendDevToolsCommand('Network.enable', {});
  await driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
    offline: off,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
};
describe('at the fair, on a phone', () => {
  beforeAll(() => browser.resize(PHONE));
  afterAll(async () => {
    await offline(false);
    await browser.resize(DESK);
  });

  test('which, a quick look, the asked price: the ceiling falls with what is found, and says why', async () => {
    await open('/fair');
    await browser.type('Which is it? Name, number, or what is stamped on it', 'harbour jack');
    await browser.says('Brackenholt');
    await browser.keys(Key.ENTER);
    const ceiling = async () => Number((await textOf('.ceiling .most')).replace(/[^\d.]/g, ''));
    await browser.driver.wait(async () => (await ceiling()) > 0, 15_000, 'there is no ceiling');
    const clean = await ceiling();
    await browser.click('button', 'Cracked handle');
    await browser.driver.wait(async () => (await ceiling()) < clean, 15_000, 'a crack lowers no ceiling');
    await browser.type('They ask', '40');
    await browser.says('Below the ceiling');
    await browser.type('They ask', '900');
    await browser.says('Leave it');
    await browser.click('button', 'Why?');
    await browser.says('Kept as profit');
  });

  test('without a connection a purchase is kept on the phone, and taken in once when it is back', async () => {
    const noted = async () =>
      (await browser.fetchJson<{ items: { pieceId: string | null }[] }>('/api/v1/fair/notes')).items;
    const before = (await noted()).length;
    await browser.type('They ask', '38.50');
    await browser.says('Below the ceiling');
    await offline(true);
    await browser.click('button', 'Bought');
    await browser.says('One note waits for a connection');
    await offline(false);
    // the phone notices by itself that the connection is back
    await browser.says('Kept.');
    const after = await noted();
    expect(after).toHaveLength(before + 1);
    const piece = await browser.fetchJson<{ intake: { price: { amount: string } } }>(
      `/api/v1/pieces/${after[0]?.pieceId ?? ''}`,
    );
    expect(piece.intake.price.amount).toBe('38.50');
  });

  test('what nobody can name is photographed and noted without a connection, its picture with it', async () => {
    await open('/fair');
    await photographTable(browser);
    await browser.says('Photographed');
    await browser.find('.which img');
    await browser.type('Working name', 'Brass jack, wet table');
    await browser.type('They ask', '25');
    await offline(true);
    await browser.click('button', 'Bought');
    await browser.says('One note waits for a connection');
    await offline(false);
    await browser.says('Kept.');
    const { items } = await browser.fetchJson<{ items: { title: string; picture: string | null }[] }>(
      '/api/v1/pieces?limit=200',
    );
    const taken = items.find((p) => p.title === 'Brass jack, wet table');
    expect(taken?.picture).toMatch(/^[0-9a-f]{64}$/);
  });
});

test('a lot is taken in in a run by keyboard, and its cost is spread to the cent', async () => {
  await open('/lots');
  await browser.type('Name of the lot', 'Chest from Pell Harbour');
  await browser.type('What it cost', '100');
  await browser.keys(Key.ENTER);
  await browser.find('.runline');
  const run = [
    ['Ferry pen knife', '40'],
    ['Orchard pruner', '50'],
    ['Harbour jack', '60'],
  ] as const;
  // nobody waits for one to be saved before the next is typed
  for (const [title, worth] of run) {
    await browser.type('Next piece', title);
    await browser.type('Worth about', worth);
    await browser.keys(Key.ENTER);
  }
  for (const [title] of run)
    await browser.driver.wait(
      async () => (await browser.driver.findElements(By.xpath(`//td/a[.='${title}']`))).length === 1,
      15_000,
      `${title} was not taken in`,
    );
  const shares = await browser.driver.executeScript<string[]>(
    "return [...document.querySelectorAll('table.grid tbody tr')].map((r) => r.querySelector('td b').textContent)",
  );
  // by hand: 100·40/150 = 26.666…, ·50/150 = 33.333…, ·60/150 = 40; the odd cent goes to the largest remainder
  expect(shares).toEqual(['€26.67', '€33.33', '€40.00']);
  await browser.type('Worth of Harbour jack', '110');
  await browser.keys(Key.ENTER);
  await browser.says('€55.00');
  // 100·40/150 and 100·110/150 once the pruner turns out not to belong
  await browser.click('button', 'take out Orchard pruner');
  await browser.says('€73.33');
  await browser.says('€26.67');
});

describe('what the shop goes by', () => {
  test('a wrong figure is told beside its field and stays; a right one is worked through and kept', async () => {
    await open('/pricing-settings');
    await browser.type('Commission', 'much');
    await browser.says('“much” is not a number');
    await browser.click('button', 'Keep');
    expect(await (await browser.field('Commission')).getAttribute('value')).toBe('much');
    expect(await (await browser.field('Commission')).getAttribute('value')).toBe('much');
    await browser.type('Commission', '10');
    await browser.type('Sold for', '200');
    await browser.type('Had cost', '100');
    // 200 − 20 − (5 + 0.30) − 21/121 of the 100 gained = 157.34
    await browser.says('€157.34');
    await browser.click('button', 'Keep');
    await browser.says('Kept.');
    const kept = await browser.fetchJson<{
      settings: { channels: { channel: { commissionPct: number } }[] };
    }>('/api/v1/pricing-settings');
    expect(kept.settings.channels[0]?.channel.commissionPct).toBe(10);
  });

  test('rates are fetched, and read from a list with each error at its place', async () => {
    await open('/rates');
    await browser.click('button', 'Fetch up to today');
    await browser.says('Harbour Exchange (simulated):');
    const path = join(browser.downloads, 'rates.csv');
    writeFileSync(path, 'date,currency,rate\n2020-01-02,NOK,9.85\n2020-01-03,NOK,none\n');
    await browser.driver.findElement(By.css("input[aria-label='Choose a list of rates']")).sendKeys(path);
    await browser.says('would bring 1 new rates');
    await browser.says('Line 3, rate “none”');
    await browser.click('button', 'Take in the good ones');
    await browser.says('brought 1 new rates');
  });

  test('the stock is valued as a task: its ages, what to re-price, how prices moved', async () => {
    await open('/stock');
    await browser.says('as valued on');
    await browser.click('button', 'Value it now');
    await browser.driver.wait(
      async () =>
        (await browser.fetchJson<{ valuation: { history: unknown[] } }>('/api/v1/stock')).valuation.history
          .length === 2,
      60_000,
      'the stock was not valued',
    );
    await browser.find('.stockcourse svg');
    for (const words of ['How long it has stood', 'To re-price', 'Better ask', 'The market'])
      await browser.says(words);
  });

  test('a sealed piece: keep it so or open it, with the money of either', async () => {
    const { items } = await browser.fetchJson<{ items: { id: string; title: string }[] }>(
      '/api/v1/pieces?limit=200',
    );
    const sealed = items.find((p) => p.title.startsWith('Sealed Petrel'));
    await open(`/pieces/${sealed?.id ?? ''}/condition`);
    await browser.click('button', 'Leave it or treat it');
    await browser.says('Keep it sealed');
    await browser.says('Open the package');
    await browser.says('the seal, and what it brings');
  });
});

test('an estimate in several bases, an ask, an offer judged, countered and kept', async () => {
  const { items } = await browser.fetchJson<{ items: { id: string; ask: { amount: string } | null }[] }>(
    '/api/v1/pieces?stage=listed&limit=20',
  );
  const piece = items.find((p) => p.ask !== null);
  await open(`/pieces/${piece?.id ?? ''}/worth`);
  for (const basis of ['Market', 'Retail ask', 'Insurance replacement', 'Quick sale', 'Most to pay'])
    await browser.says(basis);
  await browser.says('may need a licensed appraiser');
  await browser.click('button', 'As a table');
  await browser.says('Weeks it may stand');
  await browser.type('Somebody offers', '5');
  await browser.click('button', 'Judge it');
  await browser.says('far below what waiting is worth');
  await browser.click('button', 'Refused');
  await browser.says('advice was: wait');
  await browser.driver.wait(
    async () => {
      const own = await browser.fetchJson<{ items: { price: { amount: string } }[] }>(
        '/api/v1/comparables?priceKind=offer&limit=20',
      );
      return own.items.some((item) => item.price.amount === '5.00');
    },
    15_000,
    'the refused offer is no comparable',
  );
});

test('a line of the grid is challenged with a reason, and the figure with it stands beside the engine’s', async () => {
  const { items } = await browser.fetchJson<{ items: { id: string; ask: { amount: string } | null }[] }>(
    '/api/v1/pieces?stage=listed&limit=20',
  );
  const piece = items.find((p) => p.ask !== null);
  await open(`/pieces/${piece?.id ?? ''}/worth`);
  await browser.click('button', 'challenge');
  await browser.type('Should be', 'a lot');
  await browser.type('Your reason', 'its box was a later one');
  await browser.says('“a lot” is not a number');
  await browser.type('Should be', '-20');
  await browser.click('button', 'Correct it');
  await browser.says('with your corrections');
  await browser.says('its box was a later one');
  await browser.click('button', 'Take back');
  await browser.says('taken back');
});

describe('lists of prices', () => {
  const choose = async (name: string, content: string | Buffer) => {
    const path = join(browser.downloads, name);
    writeFileSync(path, content);
    await open('/comparables');
    await browser.click('button', 'Take in a list');
    await browser.driver.findElement(By.css('input[type=file]')).sendKeys(path);
  };

  test('somebody else’s columns are named, tried, taken in and undone', async () => {
    const before = await total();
    await choose(
      'their list.csv',
      'Datum;Hammer;Pattern;House\n30.10.2026;182,50;harbour-jack;Quay Hall\n31.10.2026;x;harbour-jack;Quay Hall',
    );
    await browser.says('parted by semicolons');
    // what a hammer price lets expect stands there already: sold, at an auction
    await browser.type('Currency of every row', 'EUR');
    await browser.click('button', 'Try it');
    await browser.says('would add 1');
    await browser.says('Line 3, price “x”');
    await browser.click('button', 'Import the good rows');
    await browser.says('added 1');
    expect(await total()).toBe(before + 1);
    await browser.click('link', 'Tray');
    await open('/comparables');
    await browser.click('button', 'Take in a list');
    await (await browser.find('.askbox details summary')).click();
    await browser.clickAt("//tr[contains(., 'their list.csv')]//button[contains(., 'Undo')]");
    await browser.driver.wait(async () => (await total()) === before, 15_000, 'the import was not undone');
  });

  test('their names of patterns are guessed, corrected, and mean ours', async () => {
    const before = await total();
    await choose(
      'named.csv',
      'date,price,currency,price kind,venue kind,model\n2026-10-30,91,EUR,sold,fair,Brackenholt HARBOUR JACK\n2026-10-29,40,EUR,sold,fair,a pen for ferries\n',
    );
    await browser.says('1 of 2 mean nothing yet');
    await browser.says('would add 1');
    await browser.choose('What “a pen for ferries” means', 'Ferry pen knife');
    await browser.click('button', 'Try it');
    await browser.says('would add 2');
    await browser.click('button', 'Import the good rows');
    await browser.says('added 2');
    expect(await total()).toBe(before + 2);
  });

  test.each([
    ['binary junk', Buffer.from([0, 1, 2, 0xff, 0xfe, 0, 0, 9])],
    ['nothing at all', ''],
    ['a header without rows', 'sale_date,price,currency,price_kind,venue_kind,pattern\n'],
    [
      'every row broken',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n"open,1,EUR\n2026-13-01,1,EUR,sold,fair,harbour-jack',
    ],
  ])('%s leaves nothing half in', async (_, content) => {
    const before = await total();
    await choose('bad.csv', content);
    await browser.driver.wait(
      async () =>
        (
          await browser.driver.findElements(
            By.css('.askbox [role=status], .askbox [role=alert], .askbox [role=combobox]'),
          )
        ).length > 0,
      15_000,
      'nothing was said of it',
    );
    expect(await total()).toBe(before);
  });

  test('a price is set aside with its reason, and taken back', async () => {
    await open('/comparables');
    const before = await total();
    await (await browser.find('table.grid input[type=checkbox]')).click();
    await browser.click('button', 'Set aside');
    await browser.says('say why');
    await browser.type('Why', 'a pair, not one piece');
    await browser.click('button', 'Set aside');
    await browser.driver.wait(async () => (await total()) === before - 1, 15_000, 'it still counts');
    await browser.choose('Counted', 'Set aside');
    await browser.says('a pair, not one piece');
    await (await browser.find('table.grid input[type=checkbox]')).click();
    await browser.click('button', 'Take back');
    await browser.driver.wait(async () => (await total()) === before, 15_000, 'it was not taken back');
  });
});
