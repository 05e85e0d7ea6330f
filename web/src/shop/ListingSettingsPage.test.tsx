import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { USUAL_PAPERS, type PaperSettings } from '@jutbank/contract/shop';
import { problem, serve, show, take, type Request } from '../testing/screen.tsx';
import ListingSettingsPage from './ListingSettingsPage.tsx';

afterEach(cleanup);

function shop(first: PaperSettings = USUAL_PAPERS, refuse?: ReturnType<typeof problem>): Request[] {
  let kept = { settings: first, version: 2 };
  const came = serve({
    'GET /paper-settings': () => ({ body: kept }),
    'PUT /paper-settings': (request) => {
      if (refuse) return refuse;
      kept = { settings: request.body as PaperSettings, version: kept.version + 1 };
      return { body: kept };
    },
  });
  show(<ListingSettingsPage />);
  return came;
}
const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep' }));
const sent = (came: readonly Request[]) =>
  came.find((r) => r.method === 'PUT')?.body as PaperSettings | undefined;

describe('what all listings say', () => {
  test('in English alone until a second language is chosen; its words are kept beside the English ones', async () => {
    const came = shop({ ...USUAL_PAPERS, address: '1 Chandlers’ Steps' });
    await screen.findByText('In English');
    expect(screen.getAllByRole('textbox', { name: 'Why things are sold' })).toHaveLength(1);
    await take('Language', 'Deutsch');
    const [, german] = screen.getAllByRole('textbox', { name: 'Why things are sold' });
    if (!german) throw new Error('no words in the second language');
    await userEvent.type(german, 'Aus einer Sammlung.');
    await keep();
    await waitFor(() =>
      expect(sent(came)?.listing.second).toMatchObject({ language: 'de', reason: 'Aus einer Sammlung.' }),
    );
    expect(sent(came)?.listing.reason).toBe('');
    // what the other page of the same document holds stays
    expect(sent(came)?.address).toBe('1 Chandlers’ Steps');
  });
  test('an age, a length, and a caution of its own with where it holds', async () => {
    const came = shop();
    await userEvent.type(await screen.findByRole('textbox', { name: 'Sold from the age of' }), '21');
    await userEvent.click(screen.getByRole('button', { name: '+ another caution' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Says' }), 'Shown at the counter only.');
    await take('Where it is sold', 'at the counter');
    await keep();
    await waitFor(() =>
      expect(sent(came)?.cautions).toEqual({
        minimumAge: 21,
        longBlade: null,
        own: [{ text: 'Shown at the counter only.', second: '', construction: null, place: 'counter' }],
      }),
    );
  });
  test('what is no number is told at its field and not sent', async () => {
    const came = shop();
    await userEvent.type(await screen.findByRole('textbox', { name: 'A listing runs for' }), 'long');
    await keep();
    screen.getByText('“long” is not a number');
    expect(sent(came)).toBeUndefined();
  });
  test('sections move by one', async () => {
    const came = shop();
    await userEvent.click(await screen.findByRole('button', { name: 'Cautions one up' }));
    await keep();
    await waitFor(() => expect(sent(came)?.listing.order.slice(-2)).toEqual(['cautions', 'terms']));
  });
});
