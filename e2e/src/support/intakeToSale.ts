/** One piece from intake to sale, by hand in the browser: the same steps on any shop that knows the demo's reference. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import type { Browser } from './browser.ts';

export interface Shop {
  readonly browser: Browser;
  readonly address: string;
  /** a folder with picture.png in it */
  readonly folder: string;
  /** how this shop's stock numbers begin */
  readonly stock: string;
}

export async function upload(browser: Browser, folder: string, label: string, file: string): Promise<void> {
  const field = await browser.driver.findElement(By.css(`input[type='file'][aria-label='${label}']`));
  await field.sendKeys(join(folder, file));
}

/** What the browser itself reports of refused input is expected in these steps; scripts must not fail. */
export const faults = async (browser: Browser): Promise<string[]> =>
  (await browser.complaints()).filter((c) => !/status of 4\d\d/.test(c));

/** Registers the steps as tests; the shop is there once they run. */
export function intakeToSale(shop: () => Shop): void {
  test('intake: wrong input keeps what was typed; a date as people say it; a picture', async () => {
    const { browser } = shop();
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
    await browser.says(shop().stock);
    await upload(shop().browser, shop().folder, 'Choose pictures', 'picture.png');
    await browser.find('.pictures figure img');
    expect(await faults(shop().browser)).toEqual([]);
  });

  test('bench: features, a measure as people type it, a drawn mark; then the decision', async () => {
    const { browser } = shop();
    await browser.click('link', 'Bench');
    const answer = async (label: string, choice: string) => {
      await browser.clickAt(`//button[contains(@class,'look')][span[normalize-space(.)='${label}']]`);
      await browser.clickAt(
        `//div[@class='askbox'][div[normalize-space(.)='${label}']]//button[contains(@class,'chip')][contains(normalize-space(.), '${choice}')]`,
      );
      await browser.settled();
    };
    await answer('Scales', 'Horn');
    await answer('Lanyard fitting', 'Bar');
    await answer('Bolsters', 'Grooved');
    await answer('Shield', 'Anchor');
    await answer('Half stop on the pen blade', 'Yes');
    await browser.clickAt("//button[contains(@class,'look')][span[normalize-space(.)='Closed length']]");
    await browser.type('Closed length', '4 1/8');
    await (await browser.field('Closed length')).sendKeys(Key.ENTER);
    await browser.says('4 1/8 in');
    await browser.clickAt("//button[contains(@class,'look')][span[normalize-space(.)='Stamp']]");
    await browser.click('button', 'BRACKENHOLT CUTLERY NORHAM, slanted block · tang front · 1919 – 1940');
    await browser.says('Type-consistent');
    await browser.says('a commercial twin shares every observed feature');
    await browser.says('Not before Sep 1934 because of lanyard fitting: bar');
    await browser.click('button', 'Decide');
    await browser.click('button', 'Keep this');
    await browser.says('Decided: type-consistent');
    expect(await faults(shop().browser)).toEqual([]);
  });

  test('condition, worth, trail', async () => {
    const { browser } = shop();
    await browser.click('link', 'Condition');
    await browser.says('Marks: tang');
    await browser.keys('g');
    await browser.says('Handle: scales');
    await browser.keys('g');
    await browser.says('Look along the edge with the loupe');
    await browser.keys('1');
    await browser.says('Sharpened: how bad?');
    await browser.keys('2');
    await browser.says('Blade 1: sharpened, light');
    await browser.says('A sharpened blade is at most excellent');
    await browser.click('button', 'The inspection is finished');
    await browser.says('Open the inspection again');
    await browser.click('link', 'Worth');
    await browser.says('The grid');
    await browser.type('Asking price', '180 XXXX');
    await browser.says('Write an amount');
    await browser.type('Asking price', '180');
    await browser.says('Saved');
    await browser.click('link', 'Trail');
    await browser.click('button', 'Add');
    await browser.says('Who had it?');
    await browser.type('Who', 'Family of the seller');
    await browser.type('When', '1988 to 2026');
    await browser.click('button', 'Add');
    await browser.says('Private collection, 1988 – 2026');
    await browser.says('Custody recorded');
    expect(await faults(shop().browser)).toEqual([]);
  });

  test('listing: a dropped disclosure stops it; put up, it is answered with a question and an offer', async () => {
    const { browser } = shop();
    await browser.click('link', 'Listing');
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
    const { browser } = shop();
    await browser.says('Invoice and certificate are made with it');
    await browser.click('button', 'Accept €');
    await browser.says('Confirm the buyer’s age');
    await browser.clickAt("//label[contains(., 'age has been checked')]");
    await browser.click('button', 'Accept €');
    await browser.says('Margin');
    await browser.clickAt("//a[normalize-space(.)='Certificate']");
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
    await browser.says('What stands here is as it was issued.');
    await browser.says('It is signed by the shop, and nothing in it was changed.');
    await browser.says('Private collection, 1988 – 2026');
    expect(await browser.driver.findElement(By.css('body')).getText()).not.toContain('Family of the seller');
    await browser.driver.get(`${shop().address}/comparables`);
    await browser.says('own sale');
    expect(await faults(shop().browser)).toEqual([]);
  });
}
