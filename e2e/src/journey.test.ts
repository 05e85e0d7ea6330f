/** One piece from intake to sale on a shop that begins empty, by hand in the browser. */
import { readFileSync, readdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { demoPack } from '@jutbank/demo/world';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, type Browser } from './support/browser.ts';

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

const upload = async (label: string, file: string) => {
  const field = await browser.driver.findElement(By.css(`input[type='file'][aria-label='${label}']`));
  await field.sendKeys(join(folder, file));
};
const stage = (name: string) => browser.click('link', name);
/** What the browser itself reports of refused input is expected in these steps; scripts must not fail. */
const faults = async () => (await browser.complaints()).filter((c) => !/status of 4\d\d/.test(c));

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
  expect(await faults()).toEqual([]);
});

test('a reference pack is imported, a broken one is refused in words', async () => {
  await browser.click('link', 'Reference');
  await browser.says('The reference is empty');
  await upload('Choose a reference pack', 'broken.json');
  await browser.says('Nothing was imported.');
  await upload('Choose a reference pack', 'pack.json');
  await browser.says('Brackenholt Cutlery');
  await browser.click('link', 'Harbour jack');
  await browser.says('Forms along the years');
  await browser.click('link', 'Service issue, second form');
  await browser.says('issued to the Coastal Service');
});

test('comparables by CSV: the bad row is told with its line, the good ones go in; one by hand', async () => {
  await browser.click('link', 'Comparables');
  await browser.says('No price is known yet');
  await upload('Choose a CSV file', 'sales.csv');
  await browser.says('13 rows: would add 12');
  await browser.says('Line 14, sale_date');
  await browser.click('button', 'Import the good rows');
  await browser.says('13 rows: added 12');
  await browser.type('Day, month or year', '2026-05');
  await browser.type('Price', 'much');
  await browser.choose('Pattern', 'Harbour jack');
  await browser.click('button', 'Add');
  await browser.says('is not a number');
  expect(await (await browser.field('Price')).getAttribute('value')).toBe('much');
});

test('intake: wrong input keeps what was typed; a date as people say it; a picture', async () => {
  await browser.click('link', 'Tray');
  await browser.click('link', 'Take in a piece');
  await browser.type('From whom', 'stall by the slipway');
  await browser.click('button', 'Take it in');
  await browser.says('Give it a working name');
  expect(await (await browser.field('From whom')).getAttribute('value')).toBe('stall by the slipway');
  await browser.type('Working name', 'Harbour jack, service issue?');
  await browser.choose('Where from', 'Fair');
  await browser.type('When', 'September 2026');
  await browser.says('Understood as Sep 2026');
  await browser.type('Price paid', '58');
  await browser.click('button', 'Take it in');
  await browser.says('LR-0001');
  await upload('Choose pictures', 'picture.png');
  await browser.find('.pictures figure img');
  expect(await faults()).toEqual([]);
});

test('bench: features, a measure as people type it, a drawn mark; then the decision', async () => {
  await stage('Bench');
  const answer = async (label: string, choice: string) => {
    const row = await browser.driver.wait(
      async () =>
        (
          await browser.driver.findElements(
            By.xpath(
              `//div[(@class='f' and ./button[normalize-space(.)='${label}']) or (@class='askbox' and ./div[normalize-space(.)='${label}'])]//button[contains(@class,'chip')][contains(normalize-space(.), '${choice}')]`,
            ),
          )
        )[0] ?? null,
      10_000,
      `${label}: ${choice}`,
    );
    if (!row) throw new Error(label);
    await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', row);
    await row.click();
    await browser.settled();
  };
  await answer('Scales', 'Horn');
  await answer('Lanyard fitting', 'Bar');
  await answer('Bolsters', 'Grooved');
  await answer('Shield', 'Anchor');
  await answer('Half stop on the pen blade', 'Yes');
  await browser.type('Closed length', '4 1/8');
  await (await browser.field('Closed length')).sendKeys(Key.ENTER);
  await browser.says('4 1/8 in');
  await browser.driver.executeScript(
    "[...document.querySelectorAll('.f button.fn')].find((b) => b.textContent === 'Stamp')?.click()",
  );
  await browser.click('button', 'BRACKENHOLT CUTLERY NORHAM');
  await browser.says('Type-consistent');
  await browser.says('a commercial twin shares every observed feature');
  await browser.says('Not before Sep 1934 because of lanyard fitting: bar');
  await browser.driver.wait(async () => await (await browser.named('button', 'Decide')).isEnabled(), 10_000);
  await browser.click('button', 'Decide');
  await browser.click('button', 'Keep this');
  await browser.says('Decided: type-consistent');
  expect(await faults()).toEqual([]);
});

test('condition, worth, trail', async () => {
  await stage('Condition');
  await browser.click('button', 'Add');
  await browser.says('What is wrong with it?');
  await browser.choose('Part', 'Blade');
  await browser.choose('Defect', 'Sharpened');
  await browser.click('button', 'Add');
  await browser.says('Blade: sharpened, light');
  await browser.says('A sharpened blade is at most excellent');
  await browser.click('button', 'The inspection is finished');
  await browser.says('Open the inspection again');
  await stage('Worth');
  await browser.says('The grid');
  await browser.type('Asking price', '180 XXXX');
  await browser.says('Write an amount');
  await browser.type('Asking price', '180');
  await browser.says('Saved');
  await stage('Trail');
  await browser.click('button', 'Add');
  await browser.says('Who had it?');
  await browser.type('Who', 'Family of the seller');
  await browser.type('When', '1988 to 2026');
  await browser.click('button', 'Add');
  await browser.says('Private collection, 1988 – 2026');
  await browser.says('Custody recorded');
  expect(await faults()).toEqual([]);
});

test('listing: a dropped disclosure stops it; put up, it is answered with a question and an offer', async () => {
  await stage('Listing');
  await browser.says('Everything known is told.');
  const text = await browser.field('Text');
  const written = await text.getAttribute('value');
  expect(written).toContain('cannot be proved for this piece');
  await text.sendKeys(Key.chord(Key.CONTROL, 'a'), 'A fine knife.');
  await browser.says('Something known is not told');
  await browser.click('button', 'Write it anew from the record');
  await browser.says('Everything known is told.');
  await browser.click('button', 'Put it up on');
  await browser.says('Offer of');
  await browser.type('Answer', 'No play, it snaps well.');
  await browser.click('button', 'Send');
  await browser.says('Answered: No play, it snaps well.');
  await browser.click('link', 'Accept');
});

test('sale: age first, then invoice, certificate, margin, and a public page that shows only what is public', async () => {
  await browser.says('A sale cannot be undone');
  await browser.click('button', 'Accept €');
  await browser.says('Confirm the buyer’s age');
  await browser.driver.findElement(By.css("input[type='checkbox']")).click();
  await browser.click('button', 'Accept €');
  await browser.says('Margin');
  await browser.click('link', 'Certificate');
  const pdf = await browser.driver.wait(
    async () => readdirSync(browser.downloads).find((f) => f.endsWith('.pdf')) ?? null,
    20_000,
    'no PDF came',
  );
  expect(
    readFileSync(join(browser.downloads, String(pdf)))
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  const tabs = await browser.driver.getAllWindowHandles();
  await browser.driver.switchTo().window(tabs[0] ?? '');
  await browser.click('link', 'Public check page');
  await browser.says('This certificate is as it was issued.');
  await browser.says('Private collection, 1988 – 2026');
  expect(await browser.driver.findElement(By.css('body')).getText()).not.toContain('Family of the seller');
  await browser.driver.get(`${app.address}/comparables`);
  await browser.says('own sale');
  expect(await faults()).toEqual([]);
});
