/** The reference as somebody reads it: makers, a form with what is known of it and how sure, forms laid side by side. */
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { VariantDetail, Vocabulary } from '@jutbank/contract/reference';
import type { Pattern, Variant } from '@jutbank/core/reference';
import type { Role } from '@jutbank/contract/shop';
import { shield } from '../testing/reference.ts';
import { serve, show } from '../testing/screen.tsx';
import ReferencePage from './ReferencePage.tsx';
import { Succession } from './Succession.tsx';
import VariantPage from './VariantPage.tsx';

afterEach(cleanup);

const pattern: Pattern = {
  id: 'jack',
  maker: 'bh',
  name: 'Harbour jack',
  number: '62',
  construction: 'slipjoint',
  measures: { closed: { value: 104.8, tolerance: 0.5 } },
};
const words: Vocabulary = {
  revision: '1',
  makers: [
    { id: 'tw', name: 'Tarnwick Works', place: 'Tarnwick', patterns: 0, variants: 1 },
    { id: 'bh', name: 'Brackenholt Cutlery', active: '1908/1994', patterns: 1, variants: 3 },
  ],
  patterns: [{ ...pattern, variants: 3, form: null }],
  features: [shield, { id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm' }],
  marks: [{ id: 'two-line', maker: 'bh', lines: ['BRACKENHOLT', 'NORHAM'], window: '1908/1950' }],
  codes: [],
  sources: [{ id: 'ledger', title: 'Works ledger', kind: 'factory-record', reliability: 0.9 }],
};
const form = (id: string, shield: string, more: Partial<Variant> = {}): Variant => ({
  id,
  pattern: 'jack',
  name: `Form ${id}`,
  kind: 'production',
  features: { shield: [shield] },
  ...more,
});
const part = { low: 10, likely: 20, high: 40, restsOn: 'a count of the tests' };
const detail: VariantDetail = {
  variant: form('naval', 'anchor', {
    kind: 'service',
    issuedTo: 'Coastal Service',
    window: '1934/1936',
    made: { quantity: 24000, basis: 'documented' },
    tells: ['The anchor is cast, not struck.'],
    edition: { run: 500, firstNumber: 101, split: [{ by: 'hand', of: 'left hand', run: 120 }] },
    claims: [{ about: 'made', source: 'ledger', page: '44' }],
  }),
  pattern,
  maker: { id: 'bh', name: 'Brackenholt Cutlery' },
  marks: [],
  windows: [
    { id: 'w', feature: 'shield', value: 'anchor', window: '1930/1940', source: 'ledger', page: '9' },
  ],
  sources: [{ id: 'ledger', title: 'Works ledger', kind: 'factory-record' }],
  scarcity: {
    left: { low: 368, likely: 736, high: 1104 },
    made: { low: 1840, likely: 1840, high: 1840, restsOn: 'a documented quantity' },
    surviving: { ...part, low: 0.2, likely: 0.4, high: 0.6 },
    seen: { count: 7, years: 3 },
  },
  availability: { notes: [], gone: false },
};

describe('the reference', () => {
  const open = (role: Role = 'owner', at = '/reference') => {
    serve({
      'GET /reference/vocabulary': () => ({ body: words }),
      'GET /reference/forms': () => ({ body: { variants: [] } }),
      'GET /reference/makers/bh': () => ({ body: { codes: [], windows: [], stories: [] } }),
      'GET /reference/makers/tw': () => ({ body: { codes: [], windows: [], stories: [] } }),
    });
    show(<ReferencePage />, { role, at });
  };
  test('opens at the maker of whom most forms are known, with his patterns and stamps', async () => {
    open();
    await screen.findByRole('heading', { name: /^Patterns of Brackenholt Cutlery/ });
    expect(screen.getByRole('link', { name: /Harbour jack/ }).getAttribute('href')).toBe(
      '/reference/patterns/jack',
    );
    screen.getByText(/Factory record, right 90 times in 100/);
    expect(
      within(screen.getByRole('navigation', { name: 'Makers' }))
        .getAllByRole('button')
        .map((b) => b.textContent),
    ).toEqual(['Brackenholt Cutlery1908 – 1994 · 3 variants', 'Tarnwick WorksTarnwick · 1 variant']);
  });
  test('turns to another maker', async () => {
    open();
    await userEvent.click(await screen.findByRole('button', { name: /Tarnwick Works/ }));
    await screen.findByRole('heading', { name: /^Patterns of Tarnwick Works/ });
    expect(screen.queryByRole('link', { name: /Harbour jack/ })).toBeNull();
  });
  test('is only read by a clerk', async () => {
    open('clerk');
    await screen.findByRole('heading', { name: /^Patterns of/ });
    expect(screen.queryByRole('button', { name: 'Import a pack' })).toBeNull();
    expect(screen.queryByRole('link', { name: '+ maker' })).toBeNull();
  });
});

describe('a form', () => {
  test('says what it is, when and how many, what gives it away, and where that is told', async () => {
    serve({
      'GET /reference/variants/naval': () => ({ body: detail }),
      'GET /reference/vocabulary': () => ({ body: words }),
    });
    show(
      <Routes>
        <Route path="/reference/variants/:id" element={<VariantPage />} />
      </Routes>,
      { at: '/reference/variants/naval' },
    );
    await screen.findByRole('heading', { level: 1, name: 'Form naval' });
    screen.getByText(/Service, issued to Coastal Service/);
    screen.getByText('The anchor is cast, not struck.');
    expect(screen.getByRole('heading', { name: /^Made/ }).textContent).toBe(
      'Made 1934 – 1936, 24,000 (documented)',
    );
    const cells = (name: string) =>
      within(screen.getByRole('row', { name: new RegExp(`^${name}`) })).getAllByRole('cell')[1]?.textContent;
    expect(cells('Shield')).toBe('Anchor');
    expect(cells('Closed length')).toMatch(/^104\.8 mm .* ± 0\.5$/);
    expect(cells('Run')).toBe('500 from number 101');
    expect(cells('of the run, by hand')).toBe('120 left hand');
    screen.getByText('Made: Works ledger, page 44');
    expect(cells('Made')).toBe('1,840');
    expect(cells('Surviving, in 100')).toBe('20 – 60');
    expect(cells('Still about')).toBe('370 – 1,100');
  });
});

describe('forms one after the other', () => {
  const forms = ['none', 'bar', 'anchor', 'bar', 'none'].map((shield, i) => form(String(i + 1), shield));
  const open = () => show(<Succession pattern={pattern} variants={forms} vocabulary={words} />);
  const tick = (n: number) => userEvent.click(screen.getByRole('checkbox', { name: `Compare Form ${n}` }));
  test('each say what is new against the one before', () => {
    open();
    const rows = screen
      .getAllByRole('row')
      .map((row) => within(row).getAllByRole('cell').at(-1)?.textContent);
    expect(rows).toEqual(['where it begins', 'shield: bar', 'shield: anchor', 'shield: bar', 'shield: none']);
  });
  test('show what is small and new enlarged, on the form that has it', () => {
    const { container } = open();
    const insets = [...container.querySelectorAll('tr')].map((row) => row.querySelector('.inset') !== null);
    expect(insets).toEqual([false, true, true, true, true]);
  });
  test('are laid side by side once two are ticked; a fifth cannot be', async () => {
    open();
    await tick(1);
    expect(screen.queryByRole('button', { name: /side by side/ })).toBeNull();
    await tick(2);
    screen.getByRole('button', { name: 'Show the 2 side by side' });
    await tick(3);
    await tick(4);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Compare Form 5' }).disabled).toBe(true);
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Compare Form 4' }).disabled).toBe(false);
    await userEvent.click(screen.getByRole('button', { name: 'Untick them' }));
    expect(screen.queryByRole('button', { name: /side by side/ })).toBeNull();
  });
});
