/** A whole piece without a mouse, from signing in to the published listing; the keys are counted. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { type Application, DEMO, FILLING_MS, startApplication } from './support/application.ts';
import { openBrowser, type Browser } from './support/browser.ts';

let app: Application;
let browser: Browser;
beforeAll(async () => {
  app = await startApplication(true);
  browser = await openBrowser({ width: 1280, height: 800 });
}, FILLING_MS);
afterAll(async () => {
  await browser?.close();
  await app?.close();
});

const counted = { keys: 0, tabs: 0, typed: 0 };
/** Keys that act; a Tab is one of them. */
async function press(...keys: string[]): Promise<void> {
  for (const key of keys) {
    counted.keys++;
    if (key === Key.TAB) counted.tabs++;
    await browser.keys(key);
    await browser.settled();
  }
}
/** Words and figures that somebody has to write in any case. */
async function write(text: string): Promise<void> {
  counted.typed += text.length;
  await browser.keys(...text);
}
const act = async () => {
  counted.keys++;
  await browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
};
/** A picture in the clipboard, and Ctrl+V: a driver cannot fill the system's clipboard, so the page hears what it would. */
async function paste(): Promise<void> {
  counted.keys++;
  await browser.driver.executeAsyncScript(`
    const done = arguments[0];
    const canvas = document.createElement('canvas');
    canvas.width = 640; canvas.height = 400;
    canvas.getContext('2d').fillRect(80, 180, 480, 40);
    canvas.toBlob((blob) => {
      const clipboardData = new DataTransfer();
      clipboardData.items.add(new File([blob], 'picture.png', { type: 'image/png' }));
      dispatchEvent(new ClipboardEvent('paste', { clipboardData }));
      done();
    });`);
}
const asked = () =>
  browser.driver.executeScript<string>("return document.querySelector('.askbox .big')?.textContent ?? ''");
const focused = () =>
  browser.driver.executeScript<string>(
    "const at = document.activeElement; return at?.labels?.[0]?.textContent ?? at?.getAttribute('aria-label') ?? at?.tagName ?? ''",
  );

/** The focus comes where the next thing is written. */
const focusOn = (label: string) =>
  browser.driver.wait(
    async () => (await focused()).includes(label),
    15_000,
    `the focus does not come to “${label}”`,
  );
/** A button that can be pressed: what it waits for is done. */
const ready = (words: string) =>
  browser.driver.wait(
    async () =>
      browser.driver.executeScript<boolean>(
        'return [...document.querySelectorAll("button")].some((b) => b.textContent.startsWith(arguments[0]) && !b.disabled)',
        words,
      ),
    15_000,
    `“${words}” cannot be pressed`,
  );

test('a piece is taken in, looked at, graded, priced and put up by keys alone; no more than a third of them are Tabs', async () => {
  await browser.driver.get(app.address);
  await browser.settled();
  if (!/mail/i.test(await focused())) await press(Key.TAB);
  await write(DEMO.email);
  await press(Key.TAB);
  await write(DEMO.password);
  await press(Key.ENTER);
  await browser.says('in work');

  await press('n');
  await focusOn('Working name');
  await write('Harbour jack by hand');
  await press(Key.ENTER);
  await browser.says('As it came in');
  await paste();
  await browser.find('.pictures figure img');

  await press('b');
  await browser.says('Look at next');
  for (let n = 0; n < 12; n++) {
    await browser.driver.wait(async () => (await asked()) !== '', 15_000, 'nothing is asked');
    const label = await asked();
    if (label.endsWith('ength') || label === 'Weight') {
      await press(Key.ESCAPE, Key.ARROW_DOWN);
      continue;
    }
    await press(label === 'Stamp' || /stamp|number|tick|letter/i.test(label) ? Key.ESCAPE : '1');
    if ((await asked()) === label) await press(Key.ARROW_DOWN);
  }
  await press(Key.ESCAPE);
  await ready('Decide');
  await act();
  await browser.says('How sure');
  await act();
  await browser.driver.wait(
    async () =>
      (await browser.driver.executeScript<string>('return document.body.innerText')).includes('Decided:'),
    15_000,
    'nothing was decided',
  );

  await press('c');
  await browser.says('What was found');
  // sections are good as a whole; what came with it is said one by one
  for (let n = 0; n < 24 && (await asked()) !== ''; n++) {
    const label = await asked();
    await press('g');
    if ((await asked()) === label) await press('1');
  }
  await ready('The inspection is finished');
  await act();
  await browser.says('Open the inspection again');

  await press('w');
  await browser.says('What we ask');
  await press('a');
  await focusOn('Asking price');
  await write('140');
  await browser.says('Saved');
  await press(Key.ESCAPE, 'l');
  await browser.says('Put it up on');
  await ready('Put it up on');
  await act();
  await browser.says('Take it down');

  console.info(`keys ${counted.keys}, of them Tabs ${counted.tabs}; written ${counted.typed} letters`);
  expect(counted.tabs * 3).toBeLessThanOrEqual(counted.keys);
});
