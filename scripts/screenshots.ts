/**
 * Pictures of every main view, from the demo data, into docs/screenshots (or another folder).
 *   npm run screenshots -- http://127.0.0.1:4180 [folder] [width] [height] [light|dark] [name …]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openBrowser, signIn } from '../e2e/src/support/browser.ts';
import { measureBlade } from '../e2e/src/support/measuring.ts';

const [
  address = 'http://127.0.0.1:4180',
  folder = 'docs/screenshots',
  width = '1280',
  height = '800',
  mode = 'light',
  ...only
] = process.argv.slice(2);
const DEMO = { email: 'ines@hollinquay.example', password: 'harbour light 12' };

const browser = await openBrowser({ width: Number(width), height: Number(height) });
try {
  await browser.driver.get(address);
  await browser.driver.executeScript(`localStorage.setItem('jutbank.mode', '${mode}')`);
  await signIn(browser, address, DEMO);
  const pieces = await browser.fetchJson<{ items: { id: string; title: string }[] }>(
    '/api/v1/pieces?limit=200',
  );
  const sales = await browser.fetchJson<{ items: { pieceId: string; certificateCode: string }[] }>(
    '/api/v1/sales',
  );
  const lots = await browser.fetchJson<{ items: { id: string }[] }>('/api/v1/lots');
  const piece = (title: string) => pieces.items.find((p) => p.title === title)?.id ?? '';
  const views: Record<string, string> = {
    measure: `/pieces/${piece('Orchard pruner, ebony')}/condition`,
    tray: '/',
    'new-piece': '/pieces/new',
    intake: `/pieces/${piece('Harbour jack, service issue?')}/intake`,
    bench: `/pieces/${piece('Harbour jack, service issue?')}/bench`,
    'bench-conflict': `/pieces/${piece('Harbour jack, horn, grooved, ring')}/bench`,
    condition: `/pieces/${piece('Three-hand whittler, first stamp')}/condition`,
    worth: `/pieces/${piece('Harbour jack, service issue?')}/worth`,
    trail: `/pieces/${piece('Harbour jack, service issue?')}/trail`,
    listing: `/pieces/${piece('Yearly knife 1990, number 88')}/listing`,
    draft: `/pieces/${piece('Bayonet, Pattern 1 long, blued')}/listing`,
    sale: `/pieces/${piece('Petrel, Quayside exclusive')}/sale`,
    desk: '/listing-desk',
    sales: '/sales',
    reference: '/reference',
    pattern: '/reference/patterns/harbour-jack',
    variant: '/reference/variants/hj-naval-2',
    'code-editor': '/reference/write/codes/bh-ticks',
    'pattern-stamp': '/reference/write/codes/bh-pattern',
    'write-mark': '/reference/write/marks/bh-three-line',
    'write-variant': '/reference/write/variants?from=hj-naval-2',
    frequency: '/frequency',
    rules: '/condition-rules',
    gradings: '/gradings',
    comparables: '/comparables',
    lots: '/lots',
    lot: `/lots/${lots.items.at(-1)?.id ?? ''}`,
    fair: '/fair?pattern=harbour-jack',
    shop: '/shop',
    pieces: '/pieces?stage=here&sort=dearest',
    stock: '/stock',
    'pricing-settings': '/pricing-settings',
    rates: '/rates',
    sealed: `/pieces/${pieces.items.find((p) => /sealed/i.test(p.title))?.id ?? ''}/condition`,
    // a piece that was looked at throughout
    certificate: `/c/${sales.items.find((s) => s.pieceId === piece('Petrel, Quayside exclusive'))?.certificateCode ?? ''}`,
  };
  mkdirSync(folder, { recursive: true });
  for (const [name, path] of Object.entries(views)) {
    if (only.length > 0 && !only.includes(name)) continue;
    await browser.driver.get(address + path);
    await browser.settled();
    if (name === 'measure') {
      await measureBlade(browser, 121);
      await browser.driver.executeScript(
        'for (const e of [document.scrollingElement, ...document.querySelectorAll("*")]) e.scrollTop = 0',
      );
    }
    writeFileSync(join(folder, `${name}.png`), Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
  }
} finally {
  await browser.close();
}
