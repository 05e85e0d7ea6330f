/** A shop moves in: its list is understood, taken in, and its pictures find their pieces. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { By } from 'selenium-webdriver';
import sharp from 'sharp';
import { Client } from '../../demo/src/client.ts';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, signIn, type Browser } from './support/browser.ts';
import { faults } from './support/intakeToSale.ts';

const OWNER = { name: 'Sanna Merrow', email: 'sanna@lanternrow.example', password: 'a long enough one' };
let app: Application;
let browser: Browser;
const folder = mkdtempSync(join(tmpdir(), 'jutbank-moving-in-'));

beforeAll(async () => {
  app = await startApplication(false);
  await new Client(app.address).call('POST', '/setup', {
    shopName: 'Lantern Row',
    baseCurrency: 'EUR',
    owner: OWNER,
  });
  browser = await openBrowser({ width: 1280, height: 800 });
  await signIn(browser, app.address, OWNER);
}, 120_000);
afterAll(async () => {
  expect(await faults(browser)).toEqual([]);
  await browser?.close();
  await app?.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Files are given to the chooser itself, as the browser's own window would. */
const choose = async (label: string, files: readonly string[]) => {
  await browser.settled();
  await browser.driver.findElement(By.css(`input[aria-label='${label}']`)).sendKeys(files.join('\n'));
};

describe('moving in', () => {
  test('a word is put right, the pieces come in, their pictures find them', async () => {
    const list = join(folder, 'bestand.csv');
    writeFileSync(
      list,
      [
        'Inv.-Nr.;Bezeichnung;Bauart;EK;Lagerort;Status;Fotos',
        'A-1;Jagdmesser;Jagdnicker;95,00 €;Regal;da;',
        'A-2;Taschenmesser;Taschenmesser;80,50 €;Lade;da;zwei.png',
        'A-3;Verkauftes;Taschenmesser;12,00 €;;verkauft;',
      ].join('\r\n'),
    );
    await browser.driver.get(`${app.address}/pieces/from-list`);
    await choose('Choose your list', [list]);
    await browser.says('1 would come in, 2 would stay out.');
    await browser.choose('What “Jagdnicker” means', 'Fixed blade');
    await browser.click('button', 'Try it');
    await browser.click('button', 'Take in 2 pieces');
    const pictures = ['a1 blade.png', 'zwei.png', 'strange.png'].map((name) => join(folder, name));
    for (const [i, path] of pictures.entries())
      await sharp({
        create: { width: 60, height: 40, channels: 3, background: { r: 60 * i, g: 80, b: 90 } },
      }).toFile(path);
    await choose('Choose all pictures', pictures);
    await browser.says('2 of 3 pictures find their piece.');
    await browser.click('button', 'Add 2 pictures');
    await browser.says('all with pictures');
    const { items } = await browser.fetchJson<{ items: { stockNumber: string; picture: string | null }[] }>(
      '/api/v1/pieces',
    );
    expect(items.map((p) => [p.stockNumber, p.picture !== null]).sort()).toEqual([
      ['A-1', true],
      ['A-2', true],
    ]);
  }, 120_000);
});
