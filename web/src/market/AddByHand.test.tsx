import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useVocabulary } from '../reference/vocabulary.ts';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show } from '../testing/screen.tsx';
import { AddByHand } from './AddByHand.tsx';

afterEach(cleanup);

function Shown() {
  return <AddByHand vocabulary={useVocabulary().data} />;
}
const pick = async (label: string, option: string) => {
  await userEvent.click(await screen.findByRole('combobox', { name: label }));
  await userEvent.click(await within(screen.getByRole('listbox')).findByRole('option', { name: option }));
};
const type = (label: string, text: string) => userEvent.type(screen.getByLabelText(label), text);

test('a price is written down; what holds for the next one stays, price and condition do not', async () => {
  const came = serve({ ...referenceAnswers, 'POST /comparables': () => ({ status: 201, body: {} }) });
  show(<Shown />);
  await pick('Pattern', 'Harbour jack');
  await pick('Form', 'Service issue');
  await type('Date', '2026-11');
  await type('Price', '95');
  await type('Index 0–100', '80');
  await userEvent.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByText(/Added/);
  expect(came.find((r) => r.method === 'POST')?.body).toEqual({
    sale_date: '2026-11',
    price: '95',
    currency: 'EUR',
    price_kind: 'sold',
    venue_kind: 'auction',
    pattern: 'harbour-jack',
    variant: 'hj-second',
    condition_index: '80',
  });
  expect(screen.getByLabelText<HTMLInputElement>('Date').value).toBe('2026-11');
  expect(screen.getByLabelText<HTMLInputElement>('Price').value).toBe('');
  expect(document.activeElement).toBe(screen.getByLabelText('Price'));
});
test('another pattern has other forms: the one that was chosen goes', async () => {
  const came = serve({ ...referenceAnswers, 'POST /comparables': () => ({ status: 201, body: {} }) });
  show(<Shown />);
  await pick('Pattern', 'Harbour jack');
  await pick('Form', 'Service issue');
  await pick('Pattern', 'Deck knife');
  await type('Price', '200');
  await userEvent.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByText(/Added/);
  expect(came.find((r) => r.method === 'POST')?.body).not.toHaveProperty('variant');
});
test('what is wrong stands beside its field, and nothing typed is lost', async () => {
  serve({
    ...referenceAnswers,
    'POST /comparables': () =>
      problem(422, 'Please check', [
        { pointer: '/price', message: '“much” is not a number' },
        { pointer: '/pattern', message: 'which pattern?' },
      ]),
  });
  show(<Shown />);
  await type('Price', 'much');
  await userEvent.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByText('“much” is not a number');
  screen.getByText('which pattern?');
  expect(screen.getByLabelText<HTMLInputElement>('Price').value).toBe('much');
});
