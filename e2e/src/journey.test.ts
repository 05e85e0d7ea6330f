/** One piece from intake to sale on a shop that begins empty, by hand in the browser. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { demoPack } from '../../demo/src/world/reference.ts';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, type Browser } from './support/browser.ts';
import { faults, intakeToSale, upload } from './support/intakeToSale.ts';

let app: Application;
let browser: Browser;
let folder: string;

beforeAll(async () => {
  app = await startApplication(false);
  browser = await openBrowser({ width: 1280, height: 800 });
  folder = mkdtempSync(join(tmpdir(), 'jutbank-files-'));
  writeFileSync(join(folder, 'pack.json'), JSON.stringify(demoPack));
  const rows = Array.from(
    { length: 12 },
    (_, i) =>
      `2026-0${1 + (i % 9)}-11,${120 + 5 * i},EUR,sold,retail,harbour-jack,${i % 3 ? 'hj-naval-2' : 'hj-twin'},${70 + i}`,
  );
  writeFileSync(
    join(folder, 'sales.csv'),
    [
      'sale_date,price,currency,price_kind,venue_kind,pattern,variant,condition_index',
      ...rows,
      '2026-02-30,9,EUR,sold,fair,harbour-jack,,',
    ].join('\n'),
  );
  writeFileSync(
    join(folder, 'picture.png'),
    await sharp({ create: { width: 900, height: 600, channels: 3, background: '#c9b99a' } })
      .png()
      .toBuffer(),
  );
  writeFileSync(join(folder, 'broken.json'), '{"format": "jutbank.reference/1", "id": "x"}');
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await app?.close();
  rmSync(folder, { recursive: true, force: true });
});

test('a first run names the shop, with a message beside each field that is wrong', async () => {
  await browser.driver.get(app.address);
  await browser.says('A new shop');
  await browser.type('E-mail', 'nonsense');
  await browser.click('button', 'Open the shop');
  await browser.says('What is the shop called?');
  await browser.says('this is not an e-mail address');
  expect(await (await browser.field('E-mail')).getAttribute('value')).toBe('nonsense');
  await browser.type('Name of the shop', 'Lantern Row');
  await browser.type('Your name', 'Sanna Merrow');
  await browser.type('E-mail', 'sanna@lanternrow.example');
  await browser.type('Password', 'a long enough one');
  await browser.click('button', 'Open the shop');
  await browser.says('The tray is empty');
  expect(await faults(browser)).toEqual([]);
});

test('a reference pack is imported, a broken one is refused in words', async () => {
  await browser.click('link', 'Reference');
  await browser.says('The reference is empty');
  await upload(browser, folder, 'Choose a reference pack', 'broken.json');
  await browser.says('Nothing was imported.');
  await upload(browser, folder, 'Choose a reference pack', 'pack.json');
  await browser.click('button', 'Take it in');
  await browser.says('Brackenholt Cutlery');
  await browser.clickAt(
    "//nav[@aria-label='Makers']//button[.//b[normalize-space(.)='Brackenholt Cutlery']]",
  );
  await browser.click('link', 'Harbour jack');
  await browser.says('Forms along the years');
  await browser.click('link', 'Service issue, second form');
  await browser.says('issued to the Coastal Service');
});

test('comparables by CSV: the bad row is told with its line, the good ones go in; one by hand', async () => {
  await browser.click('link', 'Comparables');
  await browser.says('No price is known yet');
  await upload(browser, folder, 'Choose a CSV file', 'sales.csv');
  await browser.says('13 rows: would add 12');
  await browser.says('Line 14, sale date');
  await browser.click('button', 'Import the good rows');
  await browser.says('13 rows: added 12');
  await browser.click('button', 'Write one down');
  await browser.type('Date', '2026-05');
  await browser.type('Price', 'much');
  await browser.choose('Pattern', 'Harbour jack');
  await browser.click('button', 'Add');
  await browser.says('is not a number');
  expect(await (await browser.field('Price')).getAttribute('value')).toBe('much');
  // what is not kept yet is asked about before it is left
  await browser.click('link', 'Lots');
  await browser.says('Something here is not kept yet');
  await browser.click('button', 'Leave without it');
  await browser.says('One price for many pieces');
});

intakeToSale(() => ({ browser, address: app.address, folder, stock: 'LR-0001' }));
