/** One screen on a page of its own, with a server that says what the test wants. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen as page, waitFor, within, type RenderResult } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import type { Role } from '@jutbank/contract/shop';
import { SessionContext } from '../base/session.ts';

export interface Request {
  readonly method: string;
  /** below /api/v1, with its query */
  readonly path: string;
  readonly body: unknown;
  readonly headers: Readonly<Record<string, string>>;
}
/** What is answered: a body, or a status with one. */
export type Reply = { readonly status: number; readonly body: unknown } | { readonly body: unknown } | 'away';
export type Answers = Readonly<Record<string, (request: Request) => Reply | Promise<Reply>>>;

/**
 * Answers `fetch`. @param answers by `GET /stock`, the query left out; what is not there is a 404
 * @returns every request that came, in order
 */
export function serve(answers: Answers): Request[] {
  const came: Request[] = [];
  globalThis.fetch = (async (input: string, init: RequestInit = {}) => {
    const path = String(input).replace('/api/v1', '');
    const request: Request = {
      method: init.method ?? 'GET',
      path,
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : init.body,
      headers: (init.headers ?? {}) as Record<string, string>,
    };
    came.push(request);
    const found = await answers[`${request.method} ${path.split('?')[0] ?? ''}`]?.(request);
    if (found === 'away') throw new TypeError('Failed to fetch');
    const status = found === undefined ? 404 : 'status' in found ? found.status : 200;
    const text = JSON.stringify(found?.body ?? { title: 'There is no such route.' });
    return Promise.resolve({ ok: status < 400, status, text: () => Promise.resolve(text) });
  }) as unknown as typeof fetch;
  return came;
}

/** A problem as the server tells it. */
export const problem = (
  status: number,
  title: string,
  errors: readonly { pointer: string; message: string }[] = [],
): Reply => ({ status, body: { type: 'about:blank', title, status, errors } });

/** Shows a screen as somebody of a role would see it. @param at its address */
export function show(
  screen: ReactNode,
  { role = 'owner', at = '/', dayFirst = true }: { role?: Role; at?: string; dayFirst?: boolean } = {},
): RenderResult {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  });
  const router = createMemoryRouter([{ path: '*', element: screen }], { initialEntries: [at] });
  return render(
    <QueryClientProvider client={queries}>
      <SessionContext
        value={{
          person: {
            id: '01ARZ3NDEKTSV4RRFFQ69G5FAV',
            name: 'Ines Vadder',
            email: 'ines@hollinquay.example',
            role,
          },
          shop: {
            name: 'Hollin Quay Edge Room',
            baseCurrency: 'EUR',
            stockScheme: 'HQ-{0000}',
            channelName: 'Quayside market',
            demo: false,
            readerSees: [],
            dayFirst,
          },
        }}
      >
        <RouterProvider router={router} />
      </SessionContext>
    </QueryClientProvider>,
  );
}

/** Takes an option of a choice, both by their words. */
export async function take(label: string, option: string): Promise<void> {
  await userEvent.click(await page.findByRole('combobox', { name: new RegExp(`^${escaped(label)}`) }));
  await userEvent.click(await within(page.getByRole('listbox')).findByRole('option', { name: option }));
  await waitFor(() => {
    if (page.queryByRole('listbox')) throw new Error('the list is still open');
  });
}
const escaped = (text: string) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&');
