/** The demo shop in a real browser: every main view whole, accessible, at a phone's width, and the bench by keyboard. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import axe from 'axe-core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { edtfInWords } from '@jutbank/core/dates';
import { type Application, DEMO, FILLING_MS, startApplication } from './support/application.ts';
import { openBrowser, signIn, type Browser } from './support/browser.ts';
import { layoutOf } from './support/layout.ts';
import { intakeToSale } from './support/intakeToSale.ts';

let app: Application;
let browser: Browser;
let pieces: { id: string; stockNumber: string }[];
let lots: { id: string }[];
let series: { id: string }[];
const DESK = { width: 1280, height: 800 };
const TABLET = { width: 768, height: 1024 };
/** a desk's window when everything in it is twice as large */
const TWICE_THE_SIZE = { width: 640, height: 400 };
const PHONE = { width: 360, height: 780 };
/** px, of what is touched: anywhere, and standing at a fair's table */
const LEAST_TARGET = 24;
const THUMB = 44;

beforeAll(async () => {
  app = await startApplication(true);
  browser = await openBrowser(DESK);
  await signIn(browser, app.address, DEMO);
  lots = (await browser.fetchJson<{ items: typeof lots }>('/api/v1/lots')).items;
  series = (await browser.fetchJson<{ items: typeof series }>('/api/v1/series')).items;
  pieces = (await browser.fetchJson<{ items: typeof pieces }>('/api/v1/pieces?limit=100')).items;
}, FILLING_MS);
afterAll(async () => {
  await browser?.close();
  await app?.close();
});

const piece = (number: string) => pieces.find((p) => p.stockNumber === number)?.id ?? '';
const open = async (path: string) => {
  await browser.driver.get(app.address + path);
  await browser.settled();
};

const views: [string, () => string][] = [
  ['the tray', () => '/'],
  ['a new piece', () => '/pieces/new'],
  ['intake', () => `/pieces/${piece('HQ-0001')}/intake`],
  ['the bench', () => `/pieces/${piece('HQ-0003')}/bench`],
  ['condition', () => `/pieces/${piece('HQ-0001')}/condition`],
  ['worth', () => `/pieces/${piece('HQ-0001')}/worth`],
  ['the trail', () => `/pieces/${piece('HQ-0020')}/trail`],
  ['a listing', () => `/pieces/${piece('HQ-0022')}/listing`],
  ['a draft', () => `/pieces/${piece('HQ-0009')}/listing`],
  ['a sale', () => `/pieces/${piece('HQ-0015')}/sale`],
  ['sales', () => '/sales'],
  ['the reference', () => '/reference'],
  ['a pattern', () => '/reference/patterns/harbour-jack'],
  ['a variant', () => '/reference/variants/hj-naval-2'],
  ['the code editor', () => '/reference/write/codes/bh-ticks'],
  ['a pattern stamp', () => '/reference/write/codes/bh-pattern'],
  ['writing a stamp', () => '/reference/write/marks/bh-three-line'],
  ['writing the next form', () => '/reference/write/variants?from=hj-naval-2'],
  ['open questions', () => '/questions'],
  ['how often things turn up', () => '/frequency'],
  ['the rules of grading', () => '/condition-rules'],
  ['the condition index', () => '/condition-rules?scale=condition-index'],
  ['second gradings', () => '/gradings'],
  ['comparables', () => '/comparables'],
  ['the fair', () => '/fair'],
  ['the fair with a pattern', () => '/fair?pattern=harbour-jack'],
  ['lots', () => '/lots'],
  ['a lot', () => `/lots/${lots[0]?.id ?? ''}`],
  ['the stock', () => '/stock'],
  ['appraising', () => `/pieces/${piece('HQ-0001')}/appraise`],
  ['how well the shop has done', () => '/track-record'],
  ['how the shop reckons', () => '/pricing-settings'],
  ['exchange rates', () => '/rates'],
  ['the shop', () => '/shop'],
  ['all pieces', () => '/pieces'],
  ['writing a pattern', () => '/reference/write/patterns/harbour-jack'],
  ['the listing desk', () => '/listing-desk'],
  ['bodies and their names', () => '/bodies'],
  ['contacts', () => '/contacts'],
  ['how listings are written', () => '/listing-settings'],
  ['what papers carry', () => '/paper-settings'],
  ['one’s own account', () => '/account'],
  ['who did what', () => '/audit'],
  ['series', () => '/series'],
  ['a series', () => `/series/${series[0]?.id ?? ''}`],
  ['from-list', () => '/pieces/from-list'],
  ['drills', () => '/drills'],
  ['backups', () => '/backups'],
  ['an address with nothing', () => '/nowhere'],
];

describe.each(['light', 'dark'])('in the %s theme', (mode) => {
  beforeAll(async () => {
    await browser.driver.executeScript(`localStorage.setItem('jutbank.mode', '${mode}')`);
  });
  test.each(views)('%s has no accessibility fault and no complaint on the console', async (_, path) => {
    await open(path());
    await browser.driver.executeScript(axe.source);
    const faults = await browser.driver.executeAsyncScript<string[]>(
      "const done = arguments[0]; axe.run({ resultTypes: ['violations'] }).then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160) + ' ' + (n.any[0]?.message ?? '')).join(' | '))))",
    );
    expect(faults).toEqual([]);
    expect(await browser.complaints()).toEqual([]);
  });
});

describe('at every width', () => {
  const WHOLE = { tooWide: 0, smallWords: [], smallTargets: [], cutOff: [] };
  afterAll(() => browser.resize(DESK));
  test.each(views)('%s is whole: on a tablet, at twice the size, on a phone', async (_, path) => {
    await browser.resize(DESK);
    await open(path());
    for (const [size, target] of [
      [DESK, 0],
      [TABLET, 0],
      [TWICE_THE_SIZE, LEAST_TARGET],
      [PHONE, LEAST_TARGET],
    ] as const) {
      await browser.resize(size);
      await browser.settled();
      const { tooWide, ...layout } = await layoutOf(browser, target);
      expect({ ...size, ...layout, tooWide: Math.max(0, tooWide) }).toEqual({ ...size, ...WHOLE });
    }
  });
  test('at the fair everything is as large as a thumb', async () => {
    await browser.resize(PHONE);
    for (const path of ['/fair', '/fair?pattern=harbour-jack']) {
      await open(path);
      expect((await layoutOf(browser, THUMB, '.fair')).smallTargets).toEqual([]);
    }
  });
  test('every window has a name of its own', async () => {
    const names = new Map<string, string>();
    for (const [view, path] of views) {
      await open(path());
      names.set(view, await browser.driver.getTitle());
    }
    expect([...names].filter(([, name]) => !/^.+ · Jutbank$/.test(name))).toEqual([]);
  }, 120_000);
});

test('the first load of the tray is under 250 kB of compressed script', async () => {
  await open('/');
  const scripts = await browser.driver.executeScript<{ name: string; bytes: number }[]>(
    `return performance.getEntriesByType('resource')
       .filter((entry) => entry.name.endsWith('.js'))
       .map((entry) => ({ name: entry.name, bytes: entry.encodedBodySize }))`,
  );
  const kilobytes = scripts.reduce((sum, { bytes }) => sum + bytes, 0) / 1000;
  console.info(`the tray: ${scripts.length} scripts, ${kilobytes.toFixed(1)} kB compressed`);
  expect(scripts.length).toBeGreaterThan(5);
  expect(kilobytes).toBeLessThan(250);
});

test('the bench by keyboard alone: number keys answer, cannot tell and not there are keys, undo goes back', async () => {
  const id = piece('HQ-0024');
  await open(`/pieces/${id}/bench`);
  const stored = async () =>
    (await browser.fetchJson<{ observations: unknown[] }>(`/api/v1/pieces/${id}`)).observations;
  const saved = (count: number) =>
    browser.driver.wait(
      async () => (await stored()).length === count,
      10_000,
      `${count} observations were not saved`,
    );
  const asked = async () => (await browser.find('.askbox .big')).getText();
  // down to a feature with choices, away from lines that are typed into
  const goTo = async (label: string) => {
    for (let i = 0; i < 60 && (await asked()) !== label; i++) {
      await browser.driver.executeScript('document.activeElement?.blur()');
      await browser.keys(Key.ARROW_DOWN);
    }
    expect(await asked()).toBe(label);
  };
  await goTo('Scales');
  await browser.keys('1');
  await saved(1);
  await goTo('Lanyard fitting');
  await browser.keys('2');
  await saved(2);
  await goTo('Shield');
  await browser.keys('-');
  await saved(3);
  await goTo('Bolsters');
  await browser.keys('0');
  await saved(4);
  expect(await stored()).toEqual([
    { feature: 'scale-material', value: 'horn' },
    { feature: 'lanyard-fitting', value: 'bar' },
    { feature: 'shield', state: 'cannot-tell' },
    { feature: 'bolster-form', state: 'not-there' },
  ]);
  await browser.driver.executeScript('document.activeElement?.blur()');
  await browser.keys('z');
  await saved(3);
  await browser.says('Not before');
  await browser.driver.executeScript('document.activeElement?.blur()');
  await browser.keys('c');
  await browser.says('What was found');
  await browser.keys('/');
  await browser.find('#hits');
  await browser.keys('yearly');
  await browser.says('Yearly knife 1990');
  await browser.keys(Key.ENTER);
  await browser.driver.wait(async () => /pieces|reference/.test(await browser.driver.getCurrentUrl()), 5000);
  expect(await browser.complaints()).toEqual([]);
});

test('two people on one piece: the second is told, nothing is overwritten, what was typed stays', async () => {
  const id = piece('HQ-0017');
  await open(`/pieces/${id}/intake`);
  const sheet = await browser.fetchJson<{ version: number; intake: object }>(`/api/v1/pieces/${id}`);
  await browser.driver.executeAsyncScript(
    "const [path, body, version, done] = arguments; fetch(path, { method: 'PUT', headers: { 'content-type': 'application/json', 'if-match': `\"v${version}\"` }, body }).then(done)",
    `/api/v1/pieces/${id}/intake`,
    JSON.stringify({ ...sheet.intake, sourceName: 'Tom was here' }),
    sheet.version,
  );
  await browser.type('From whom', 'Ines was here');
  await browser.says('Somebody changed this piece meanwhile');
  const stored = await browser.fetchJson<{ intake: { sourceName: string } }>(`/api/v1/pieces/${id}`);
  expect(stored.intake.sourceName).toBe('Tom was here');
  expect(await (await browser.field('From whom')).getAttribute('value')).toBe('Ines was here');
  await browser.click('button', 'Keep mine for this stage');
  await browser.driver.wait(
    async () =>
      (await browser.fetchJson<{ intake: { sourceName: string } }>(`/api/v1/pieces/${id}`)).intake
        .sourceName === 'Ines was here',
    10_000,
  );
  // the refused write is on the console, as it should be; nothing else is
  expect((await browser.complaints()).filter((c) => !c.includes('412'))).toEqual([]);
});

describe('from sign-in through all eight steps to the papers', () => {
  let folder: string;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'jutbank-files-'));
    const picture = sharp({ create: { width: 900, height: 600, channels: 3, background: '#c9b99a' } });
    writeFileSync(join(folder, 'picture.png'), await picture.png().toBuffer());
    await browser.driver.get(app.address);
    await browser.driver.get(`${app.address}/account`);
    await browser.click('button', 'Sign out');
    await browser.says('Sign in to the shop');
    await browser.click('button', 'Sign in');
    await browser.says('Your e-mail address');
    await browser.type('E-mail', DEMO.email);
    await browser.type('Password', 'not the password');
    await browser.click('button', 'Sign in');
    await browser.says('E-mail and password do not match');
    await signIn(browser, app.address, DEMO);
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  intakeToSale(() => ({ browser, address: app.address, folder, stock: 'HQ-0045' }));
});

describe('the bench, more closely', () => {
  beforeAll(() => open(`/pieces/${piece('HQ-0001')}/bench`));

  test('evidence opens in words, with its source', async () => {
    await browser.clickAt("//button[contains(@class, 'evi')][.//span[normalize-space(.)='Lanyard fitting']]");
    await browser.says('Dated by Brackenholt works ledger');
  });

  test('two candidates stand beside the piece', async () => {
    await browser.click('button', 'side by side');
    await browser.says('This piece');
    expect(
      await browser.driver.executeScript<number>(
        "return document.querySelectorAll('.beside tbody tr').length",
      ),
    ).toBeGreaterThan(0);
  });

  test('a doubt shows what it would change, and changes nothing', async () => {
    await browser.click('button', 'what if');
    await browser.clickAt(
      "//*[@aria-label='What if I misread']//button[normalize-space(.)='lanyard fitting']",
    );
    await browser.says('Without it');
    const before = (
      await browser.fetchJson<{ observations: unknown[] }>(`/api/v1/pieces/${piece('HQ-0001')}`)
    ).observations.length;
    await browser.driver.navigate().refresh();
    await browser.settled();
    const after = (await browser.fetchJson<{ observations: unknown[] }>(`/api/v1/pieces/${piece('HQ-0001')}`))
      .observations.length;
    expect(after).toBe(before);
  });

  test('the decision is shown as it stood', async () => {
    await browser.clickAt('//summary');
    await browser.says('reference revision');
  });

  test('a caliper fills the size in hand, and the bench moves on', async () => {
    await browser.clickAt("//button[contains(@class,'look')][span[normalize-space(.)='Closed length']]");
    await browser.type('Between the jaws, mm', '104.83');
    await browser.click('button', 'Take');
    await browser.driver.wait(
      async () =>
        (
          await browser.fetchJson<{
            observations: { feature?: string; measure?: number; resolution?: number }[];
          }>(`/api/v1/pieces/${piece('HQ-0001')}`)
        ).observations.some(
          (o) => o.feature === 'closed-length' && o.measure === 104.83 && o.resolution === 0.01,
        ),
      15_000,
      'the reading was not taken',
    );
  });

  test('what nobody can explain is kept as a question and listed in one place', async () => {
    await browser.type('Something nobody can explain', 'A notch below the shield, filed by hand');
    await browser.click('button', 'Keep as question');
    await browser.says('A notch below the shield');
    await open('/questions');
    await browser.says('A notch below the shield, filed by hand');
    expect(await browser.complaints()).toEqual([]);
  });
});

interface Walked {
  id: string;
  stockNumber: string;
  title: string;
  readings: { which: { tier: string; label: string }; when: { core: string } | null };
}

test('sheet, tray, bench, stock list, listing and certificate of every piece agree on which, when and how sure', async () => {
  const json = <T>(path: string) => browser.fetchJson<T>(`/api/v1${path}`);
  const { items } = await json<{ items: Walked[] }>('/pieces?limit=100');
  const sales = await json<{ items: { pieceId: string; certificateCode: string }[] }>('/sales?limit=100');
  // the stock as it is now: a valuation keeps what each piece was taken for on its day
  const stock = async () =>
    (
      await json<{
        valuation: { at: string; pieces: { id: string; which: unknown; when: unknown }[] };
      }>('/stock')
    ).valuation;
  const valuedAt = (await stock()).at;
  await open('/stock');
  await browser.click('button', 'Value it now');
  await browser.driver.wait(async () => (await stock()).at !== valuedAt, 60_000, 'the stock was not valued');
  const valuation = await stock();
  expect(items.length).toBeGreaterThan(20);
  const apart: string[] = [];
  for (const slip of items) {
    const differs = (what: string, a: unknown, b: unknown) => {
      if (JSON.stringify(a) !== JSON.stringify(b))
        apart.push(`${slip.stockNumber} ${what}: ${JSON.stringify(a)} against ${JSON.stringify(b)}`);
    };
    const sheet = await json<
      Walked & {
        date: { core: string; by: string } | null;
        attribution: { tier: string } | null;
        overruled: boolean;
      }
    >(`/pieces/${slip.id}`);
    const answer = await json<{
      attribution: { tier: string };
      dating: { made: { core: string } | null };
    }>(`/pieces/${slip.id}/identification`);
    const { written } = await json<{ written: { body: string } }>(`/pieces/${slip.id}/listing/draft`);
    differs('the tray', slip.readings, sheet.readings);
    differs('the header', sheet.readings.when?.core ?? null, sheet.date?.core ?? null);
    if (sheet.attribution) differs('the decision', sheet.readings.which.tier, sheet.attribution.tier);
    else if (sheet.date) differs('the bench, which', sheet.readings.which.tier, answer.attribution.tier);
    if (sheet.date && sheet.date.by !== 'decision')
      differs('the bench, when', sheet.date.core, answer.dating.made?.core);
    const said = sheet.date ? `Made: ${edtfInWords(sheet.date.core)}.` : 'When it was made is not known.';
    if (!written.body.includes(said)) apart.push(`${slip.stockNumber} the listing lacks “${said}”`);
    const kept = valuation.pieces.find((p) => p.id === slip.id);
    if (kept) {
      differs('the stock list, which', kept.which, sheet.readings.which);
      differs('the stock list, when', kept.when, sheet.readings.when);
    }
    const sale = sales.items.find((s) => s.pieceId === slip.id);
    if (sale && sheet.date)
      differs(
        'the certificate',
        (await json<{ made: string | null }>(`/certificates/${sale.certificateCode}`)).made,
        edtfInWords(sheet.date.core),
      );
  }
  expect(apart).toEqual([]);
});
