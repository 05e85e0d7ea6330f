import { writeFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { openBrowser, signIn } from '../../e2e/src/support/browser.ts';
const address = 'http://127.0.0.1:4180';
const browser = await openBrowser({ width: 1280, height: 800 });
const shot = async (n: string) => writeFileSync(`/tmp/k-${n}.png`, await browser.driver.takeScreenshot(), 'base64');
const asked = () => browser.driver.executeScript<string>("return document.querySelector('.askbox .big')?.textContent ?? ''");
const press = async (...ks: string[]) => { for (const k of ks) { await browser.keys(k); await browser.settled(); } };
const act = () => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const body = () => browser.driver.executeScript<string>('return document.body.innerText');
try {
  await browser.driver.get(address);
  await signIn(browser, address, { email: 'ines@hollinquay.example', password: 'harbour light 12' });
  await browser.settled();
  await press('n'); await new Promise((r) => setTimeout(r, 500));
  await browser.keys(...'Harbour jack by hand'); await press(Key.ENTER); await new Promise((r) => setTimeout(r, 1500));
  await press('b'); await browser.says('Look at next'); await new Promise((r) => setTimeout(r, 1500));
  for (let n = 0; n < 12; n++) {
    await browser.driver.wait(async () => (await asked()) !== '', 15_000, 'nothing');
    const label = await asked(); console.log(n, label);
    if (label.endsWith('ength') || label === 'Weight') { await press(Key.ESCAPE, Key.ARROW_DOWN); continue; }
    await press(/stamp|number|tick|letter/i.test(label) ? Key.ESCAPE : '1');
    if ((await asked()) === label) await press(Key.ARROW_DOWN);
  }
  await shot('2');
  await press(Key.ESCAPE); await new Promise((r) => setTimeout(r, 1500)); await act(); await new Promise((r) => setTimeout(r, 900)); await shot('3');
  await act(); await new Promise((r) => setTimeout(r, 1500)); await shot('4'); console.log(/Decided:/.test(await body()));
  await press('c'); await new Promise((r) => setTimeout(r, 1500));
  for (let n = 0; n < 14 && !/Everything was looked at/.test(await body()); n++) { await press('g'); console.log(await asked()); }
  await shot('5'); await act(); await new Promise((r) => setTimeout(r, 1500)); await shot('6');
  await press('w'); await new Promise((r) => setTimeout(r, 1800)); await press('a'); await browser.keys(...'140'); await new Promise((r) => setTimeout(r, 1800)); await shot('7');
  await press(Key.ESCAPE, 'l'); await new Promise((r) => setTimeout(r, 2500)); await shot('8'); await act(); await new Promise((r) => setTimeout(r, 2500)); await shot('9');
} finally { await browser.close(); }
