import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { USUAL_SETTINGS, type PricingSettings } from '@jutbank/contract/shop';
import { problem, serve, show, type Reply, type Request, take } from '../testing/screen.tsx';
import PricingSettingsPage from './PricingSettingsPage.tsx';

afterEach(cleanup);

/** A shop whose settings are kept under their version. */
function shop(first: PricingSettings = USUAL_SETTINGS, put?: (request: Request) => Reply) {
  let kept = { settings: first, version: 3 };
  return serve({
    'GET /pricing-settings': () => ({ body: kept }),
    'PUT /pricing-settings': (request) => {
      if (put) return put(request);
      kept = { settings: request.body as PricingSettings, version: kept.version + 1 };
      return { body: kept };
    },
  });
}
const retype = async (label: string | RegExp, text: string) => {
  const field = await screen.findByRole('textbox', { name: label });
  await userEvent.clear(field);
  await userEvent.type(field, text);
};
const worked = () => within(screen.getByText('A sale worked through').closest('aside') ?? document.body);
const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep' }));

describe('a sale worked through', () => {
  test('by hand: 150 less 8 %, less 2.5 % and 0.30', async () => {
    shop();
    show(<PricingSettingsPage />);
    await screen.findByText('Pricing settings');
    // 12.00 commission, 3.75 + 0.30 payment: 133.95 left, 53.95 over what it cost
    worked().getByText('-€12.00');
    worked().getByText('-€4.05');
    worked().getByText('€133.95');
    worked().getByText('€53.95');
  });
  test('follows the form before it is kept; tax on the margin is what 70 of margin hold', async () => {
    shop();
    show(<PricingSettingsPage />);
    await take('Falls', 'on the margin only');
    await retype('Rate', '21');
    // (150 − 80) · 21/121 = 12.15
    worked().getByText('Tax on the margin');
    worked().getByText('-€12.15');
    screen.getByText('not kept yet');
  });
  test('what is no number yet is said, not guessed', async () => {
    shop();
    show(<PricingSettingsPage />);
    await retype('Sold for', 'some');
    worked().getByText(/is no number yet/);
    await retype('Sold for', '200,50');
    worked().getByText('-€16.04');
  });
  test('each channel has its own', async () => {
    shop();
    show(<PricingSettingsPage />);
    await userEvent.click(await screen.findByRole('tab', { name: 'Over the counter' }));
    worked().getByText('€150.00');
    worked().getByText('€70.00');
  });
});

describe('keeping it', () => {
  test('sends the whole under the version seen, and says that it is kept', async () => {
    const came = shop();
    show(<PricingSettingsPage />);
    await retype('Commission', '9,5');
    await keep();
    await screen.findByText('Kept.');
    const sent = came.find((r) => r.method === 'PUT');
    expect(sent?.headers['if-match']).toBe('"v3"');
    expect((sent?.body as PricingSettings).channels[0]?.channel.commissionPct).toBe(9.5);
  });
  test('what is wrong stands beside its field before anything is sent, and what was typed stays', async () => {
    const came = shop();
    show(<PricingSettingsPage />);
    await retype('Packing', 'much');
    await keep();
    expect(await screen.findAllByText(/amount|number/)).not.toHaveLength(0);
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Packing' }).value).toBe('much');
  });
  test('what only the server refuses stands beside its field too', async () => {
    shop(USUAL_SETTINGS, () =>
      problem(422, 'Please check', [{ pointer: '/channels/0/channel/packing', message: 'not so much' }]),
    );
    show(<PricingSettingsPage />);
    await retype('Packing', '1.20');
    await keep();
    await screen.findByText('not so much');
    screen.getByText(/see what stands in red/);
  });
  test('what is no number is told at once; it is not taken for nothing, and its channel is brought into sight', async () => {
    const came = shop();
    show(<PricingSettingsPage />);
    await retype('Commission', 'much');
    screen.getByText('“much” is not a number');
    await userEvent.click(screen.getByRole('tab', { name: 'Over the counter' }));
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Called' }).value).toBe('Over the counter');
    await keep();
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Called' }).value).toBe('Quayside market');
    await retype('Commission', '9');
    await keep();
    await screen.findByText('Kept.');
    expect(
      (came.find((r) => r.method === 'PUT')?.body as PricingSettings).channels[0]?.channel.commissionPct,
    ).toBe(9);
  });
  test('changed by somebody else meanwhile: it is said, and nothing typed is lost', async () => {
    shop(USUAL_SETTINGS, () => problem(412, 'Changed meanwhile'));
    show(<PricingSettingsPage />);
    await retype('Packing', '1.20');
    await keep();
    await screen.findByText(/Somebody changed these meanwhile/);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Packing' }).value).toBe('1.20');
  });
  test('a further channel gets a free id, can be reckoned with, and the old one be taken off', async () => {
    const came = shop();
    show(<PricingSettingsPage />);
    await userEvent.click(await screen.findByRole('tab', { name: '+ another' }));
    await retype('Called', 'Norham blade fair');
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with this one' }));
    await userEvent.click(screen.getByRole('tab', { name: 'Over the counter' }));
    await userEvent.click(screen.getByRole('button', { name: 'Take it off the list' }));
    await keep();
    const { channels, usualChannel } = came.find((r) => r.method === 'PUT')?.body as PricingSettings;
    expect(channels.map((c) => [c.id, c.name])).toEqual([
      ['quayside', 'Quayside market'],
      ['channel-1', 'Norham blade fair'],
    ]);
    expect(usualChannel).toBe('channel-1');
  });
  test('another kind of target starts with a figure of its own', async () => {
    const came = shop();
    show(<PricingSettingsPage />);
    await take('As a', 'sum');
    await retype('At least', '35');
    await keep();
    expect((came.find((r) => r.method === 'PUT')?.body as PricingSettings).target).toEqual({ profit: '35' });
  });
  test('a clerk reads it and changes nothing', async () => {
    shop();
    show(<PricingSettingsPage />, { role: 'clerk' });
    expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'Commission' })).disabled).toBe(
      true,
    );
    expect(screen.queryByRole('button', { name: 'Keep' })).toBeNull();
  });
});
