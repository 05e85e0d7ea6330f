/** A newcomer, a strange reference of more than five hundred variants, ten pieces, and only the keyboard. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { Variant } from '@jutbank/core/reference';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, PATIENCE_MS, signIn, type Browser } from './support/browser.ts';
import { faults, upload } from './support/intakeToSale.ts';
import { strangePack } from './support/strangePack.ts';

const OWNER = { name: 'Sanna Merrow', email: 'sanna@lanternrow.example', password: 'a long enough one' };
const pack = strangePack();
const variants = pack.variants ?? [];
let app: Application;
let browser: Browser;
let folder: string;

beforeAll(async () => {
  app = await startApplication(false);
  await fetch(`${app.address}/api/v1/setup`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.address },
    body: JSON.stringify({ shopName: 'Lantern Row', baseCurrency: 'EUR', owner: OWNER }),
  });
  folder = mkdtempSync(join(tmpdir(), 'jutbank-pack-'));
  writeFileSync(join(folder, 'strange.json'), JSON.stringify(pack));
  browser = await openBrowser({ width: 1280, height: 800 });
  await signIn(browser, app.address, OWNER);
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await app?.close();
  rmSync(folder, { recursive: true, force: true });
});

test('it is looked through and taken in', async () => {
  expect(variants.length).toBeGreaterThan(500);
  await browser.driver.get(`${app.address}/reference`);
  await browser.settled();
  await upload(browser, folder, 'Choose a reference pack', 'strange.json');
  await browser.says(`${variants.length + (pack.patterns?.length ?? 0) + 24} new`);
  await browser.click('button', 'Take it in');
  await browser.says('Tamsin Gate');
});

interface Asked {
  readonly label: string;
  readonly leads: string;
  readonly word: string;
}
const asked = async (): Promise<Asked> => {
  await browser.driver.wait(
    async () => (await browser.driver.findElements(By.css('.askbox[aria-busy]'))).length === 0,
    PATIENCE_MS,
  );
  return browser.driver.executeScript<Asked>(
    `return { label: document.querySelector('.askbox .big')?.textContent ?? '',
       leads: document.querySelector('.cand b')?.textContent ?? '',
       word: document.querySelector('.cand .num')?.textContent ?? '' }`,
  );
};

/** Answers what is asked by its number key, a stamp by its letters, from what can be seen on the piece. */
async function answer(variant: Variant, label: string): Promise<void> {
  if (label === 'Stamp') {
    // its box has the focus and filters
    const mark = pack.marks?.find((m) => m.id === variant.marks?.[0]);
    await browser.keys(...(mark?.lines.join(' ') ?? ''), Key.ENTER);
    return;
  }
  const feature = pack.features?.find((f) => f.label === label);
  const value = variant.features?.[feature?.id ?? '']?.[0];
  const at = feature?.values?.findIndex((v) => v.id === value) ?? -1;
  await browser.keys(at < 0 ? '-' : String(at + 1));
}

const MOST_ANSWERS = 14;
const STEP = 53;

test.each(Array.from({ length: 10 }, (_, i) => (i * STEP + 7) % variants.length))(
  'piece %i is resolved by its keys alone',
  async (at) => {
    const variant = variants[at];
    if (!variant) throw new Error('no such variant');
    const pattern = pack.patterns?.find((p) => p.id === variant.pattern);
    const id = await browser.driver.executeAsyncScript<string>(
      `const done = arguments[0];
       fetch('/api/v1/pieces', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(
         { title: 'Something from a box', construction: 'fixed', sourceKind: null, sourceName: '', sourcePlace: '',
           acquired: null, price: null, sellerStatement: '', cameWith: '', asFound: null }) })
         .then((r) => r.json()).then((p) => done(p.id))`,
    );
    await browser.driver.get(`${app.address}/pieces/${id}/bench`);
    await browser.settled();
    const wanted = `${pattern?.name}, ${variant.name}`;
    for (let n = 0; n < MOST_ANSWERS; n++) {
      const before = await asked();
      if (before.label === '') break;
      await answer(variant, before.label);
      await browser.driver.wait(
        async () => (await asked()).label !== before.label,
        PATIENCE_MS,
        `“${before.label}” was not taken`,
      );
      const now = await asked();
      if (now.leads === wanted && /^(8|9)\d in 100/.test(now.word)) break;
    }
    await browser.driver.wait(
      async () => (await asked()).leads === wanted,
      PATIENCE_MS,
      `it leads to ${(await asked()).leads}, not ${wanted}`,
    );
    expect(await faults(browser)).toEqual([]);
  },
);
