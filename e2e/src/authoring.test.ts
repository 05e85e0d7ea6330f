/** A maker nobody knows is written from the screen, and then dates a piece rightly. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startApplication, type Application } from './support/application.ts';
import { openBrowser, signIn, type Browser } from './support/browser.ts';
import { faults } from './support/intakeToSale.ts';
import { add, fill, save, told, write } from './support/writing.ts';

const OWNER = { name: 'Sanna Merrow', email: 'sanna@lanternrow.example', password: 'a long enough one' };
let app: Application;
let browser: Browser;

beforeAll(async () => {
  app = await startApplication(false);
  await fetch(`${app.address}/api/v1/setup`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.address },
    body: JSON.stringify({ shopName: 'Lantern Row', baseCurrency: 'EUR', owner: OWNER }),
  });
  browser = await openBrowser({ width: 1280, height: 800 });
  await signIn(browser, app.address, OWNER);
}, 120_000);
afterAll(async () => {
  await browser?.close();
  await app?.close();
});

const open = async (path: string) => {
  await browser.driver.get(app.address + path);
  await browser.settled();
};

test('the first maker is written on an empty shop', async () => {
  await open('/reference');
  await browser.click('link', 'Write the first maker');
  await browser.says('New maker');
  await fill(browser, 'Name', 'Lantern Forge');
  await fill(browser, 'Active', 'from 1900 to 1985');
  expect(await told(browser, 'Active')).toContain('Understood as');
  await save(browser);
  await browser.says('Lantern Forge');
  await write(browser, app.address, 'sources', [
    ['Title', 'Foreman’s notebook'],
    ['Kind', 'Factory record'],
    ['Reliability', '0.9'],
  ]);
});

test('what is wrong is told beside its field, and what was typed stays', async () => {
  await open('/reference/write/windows');
  await fill(browser, 'Used', '1956 to 1940');
  expect(await told(browser, 'Used')).toMatch(/before|not a date/);
  await browser.click('button', 'Save');
  await browser.says('Not saved');
  await open('/reference/write/windows');
  expect(await browser.driver.executeScript('return document.body.innerText')).toContain('kept here');
  await browser.driver.executeScript('sessionStorage.clear()');
});

test('five eras of a stamp, drawn while they are typed', async () => {
  const eras = [
    ['LANTERN', '1900 to 1914'],
    ['LANTERN & CO', '1915 to 1929'],
    ['LANTERN FORGE', '1930 to 1944'],
    ['LANTERN\nFORGE\nNORHAM', '1945 to 1964'],
    ['LANTERN FORGE LTD', '1965 to 1985'],
  ] as const;
  for (const [lines, used] of eras)
    await write(browser, app.address, 'marks', [
      ['Maker', 'Lantern Forge'],
      ['Lines', lines],
      ['Used', used],
      ['Source', 'Foreman’s notebook'],
      ['Page', '12'],
    ]);
  await browser.says('The maker’s other stamps');
  await open('/reference?maker=lantern-forge');
  const stamps = await browser.driver.executeScript<number>(
    "return document.querySelectorAll('.marks figure').length",
  );
  expect(stamps).toBe(5);
});

test('features, a pattern, and two change-overs with their sources', async () => {
  const feature = (label: string, values: readonly string[], swap: string) =>
    write(browser, app.address, 'features', [
      ['Label', label],
      ['Part', label.toLowerCase()],
      ['Kind', 'Category'],
      ...values.flatMap((v, i) => [
        ['+ value', ''] as const,
        [`Value ${i + 1}`, v, `Values ${i + 1}`] as const,
      ]),
      ['Exchanged', swap],
      ['Effort', 'Glance'],
    ]);
  await feature('Scales', ['Horn', 'Bone'], 'Easy');
  await feature('Spring', ['Plain', 'Fluted'], 'Hard');
  await feature('Pins', ['Iron', 'Brass'], 'Hard');
  await write(browser, app.address, 'patterns', [
    ['Maker', 'Lantern Forge'],
    ['Name', 'Dock knife'],
    ['Number', '41'],
    ['Construction', 'Slipjoint folder'],
  ]);
  const windows = [
    ['Spring', 'Plain', '1900 to 1955'],
    ['Spring', 'Fluted', '1956 to 1985'],
    ['Pins', 'Iron', '1900 to 1951'],
    ['Pins', 'Brass', '1952 to 1985'],
  ] as const;
  for (const [of, value, used] of windows)
    await write(browser, app.address, 'windows', [
      ['Maker', 'Lantern Forge'],
      ['Feature', of],
      ['Value', value],
      ['Used', used],
      ['Source', 'Foreman’s notebook'],
      ['Page', '31'],
    ]);
});

test('a year code that counts down in four arrangements, tried and looked through before it is kept', async () => {
  await open('/reference/write/codes');
  await fill(browser, 'Title', 'Notches');
  await fill(browser, 'Maker', 'Lantern Forge');
  await add(browser, '+ read', []);
  await fill(browser, 'Read 1', 'Notches', ['Reads 1']);
  await add(browser, '+ read', []);
  await fill(browser, 'Read 2', 'Place', ['Reads 2']);
  await fill(browser, 'Is', 'One of', ['Reads 2']);
  await fill(browser, 'Values', 'above, below, left, right', ['Reads 2']);
  const places = [
    ['above', '1954'],
    ['below', '1964'],
    ['left', '1974'],
  ] as const;
  for (const [i, [place, year]] of places.entries()) {
    await add(browser, '+ rule', []);
    const row = `Rules ${i + 1}`;
    await fill(browser, 'When place is', place, [row]);
    await fill(browser, 'The year is', 'A year minus a count', [row]);
    await fill(browser, 'Year', year, [row]);
  }
  await browser.says('Place right: no rule reads it');
  await add(browser, '+ rule', []);
  await fill(browser, 'When place is', 'right', ['Rules 4']);
  await fill(browser, 'The year is', 'A year minus a count', ['Rules 4']);
  await fill(browser, 'Year', '1974', ['Rules 4']);
  await fill(browser, 'When place is', 'below', ['Rules 4']);
  await browser.says('Two readings');
  await fill(browser, 'When place is', 'right', ['Rules 4']);
  await fill(browser, 'Year', '1984', ['Rules 4']);
  await browser.says('Every stamp has one reading');
  await browser.type('Notches', '8');
  await browser.says('1946');
  await save(browser);
});

test('a pattern-number grammar says what the stamp promises', async () => {
  await open('/reference/write/codes');
  await fill(browser, 'Title', 'Pattern stamp');
  await fill(browser, 'Maker', 'Lantern Forge');
  await fill(browser, 'Kind', 'Pattern number');
  await add(browser, '+ segment', []);
  await fill(browser, 'Segment 1', 'handle', ['Segments 1']);
  for (const [i, [sign, means]] of [
    ['3', 'Scales: horn'],
    ['5', 'Scales: bone'],
  ].entries()) {
    await add(browser, '+ sign', ['Segments 1']);
    await fill(browser, `Sign ${i + 1}`, sign ?? '', ['Segments 1', `Signs ${i + 1}`]);
    await fill(browser, 'Means', means ?? '', ['Segments 1', `Signs ${i + 1}`]);
  }
  await add(browser, '+ segment', []);
  await fill(browser, 'Segment 2', 'pattern', ['Segments 2']);
  await fill(browser, 'Is read by', 'Digits', ['Segments 2']);
  await fill(browser, 'How many', '2', ['Segments 2']);
  await fill(browser, 'They mean', 'The pattern', ['Segments 2']);
  await browser.type('Stamp', '341');
  await browser.says('Scales: horn; Pattern Dock knife');
  await save(browser);
});

test('a variant, and the next form copied from it with what changed', async () => {
  await open('/reference/write/variants?pattern=dock-knife');
  await fill(browser, 'Name', 'First form');
  await fill(browser, 'Made', '1930 to 1955');
  await fill(browser, 'Scales', 'Horn');
  await save(browser);
  await browser.click('link', 'Copy as next form');
  await fill(browser, 'Name', 'Second form');
  await fill(browser, 'Made', '1956 to 1970');
  await fill(browser, 'Scales', 'Horn');
  await fill(browser, 'Scales', 'Bone');
  await browser.says('Changed against the form it was copied from');
  await save(browser);
  await open('/reference/patterns/dock-knife');
  await browser.says('scales: bone');
  expect(await faults(browser)).toEqual([]);
});

test('a piece is dated by it: the code, and the change-over that binds', async () => {
  const piece = await browser.driver.executeAsyncScript<string>(
    `const done = arguments[0];
     fetch('/api/v1/pieces', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(
       { title: 'Dock knife of the estate', construction: 'slipjoint', sourceKind: null, sourceName: '', sourcePlace: '',
         acquired: null, price: null, sellerStatement: '', cameWith: '', asFound: null }) })
       .then((r) => r.json()).then((p) => done(p.id))`,
  );
  await open(`/pieces/${piece}/bench`);
  await browser.clickAt("//button[contains(@class,'look')][span[normalize-space(.)='Spring']]");
  await browser.clickAt("//button[contains(@class,'chip')][contains(., 'Fluted')]");
  await browser.says('Not before 1956');
  await browser.says('Foreman’s notebook 31');
  const inHand = await browser.driver.executeScript<string>(
    "return document.querySelector('.askbox .big')?.textContent ?? ''",
  );
  if (inHand !== 'Notches')
    await browser.clickAt("//button[contains(@class,'look')][span[normalize-space(.)='Notches']]");
  await browser.clickAt("//*[@role='group'][@aria-label='Place']//button[normalize-space(.)='left']");
  await browser.clickAt("//*[@role='group'][@aria-label='Notches']//button[normalize-space(.)='8']");
  await browser.driver.wait(
    async () =>
      (await browser.driver.executeScript<string>(
        "return document.querySelector('[aria-label^=\"Made \"]')?.getAttribute('aria-label') ?? ''",
      )) === 'Made 1966, at the outside 1966',
    15_000,
    'it is not dated to 1966',
  );
  await browser.says('Second form');
  expect(await faults(browser)).toEqual([]);
});
