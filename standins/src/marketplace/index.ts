/**
 * A marketplace that does not exist: it takes listings over HTTP and, like a real one, answers with questions and
 * offers. What it says follows from the listing alone, so that tests and demonstrations repeat.
 */
import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import type { AddressInfo } from 'node:net';
import express from 'express';

interface Listing {
  ref: string;
  /** under which it was told: told again it is the same listing */
  key?: string;
  title: string;
  body: string;
  price: { amount: string; currency: string };
  /** the last day on which it is up */
  until?: string;
  translations?: { language: string; title: string; body: string }[];
  state: 'up' | 'ended';
  answers: Record<string, string>;
  /** prices the shop named to those who had offered, by their message */
  counters?: Record<string, Listing['price']>;
}
interface Message {
  id: string;
  kind: 'question' | 'offer';
  from: string;
  text: string;
  amount: { amount: string; currency: string } | null;
}

const BUYERS = [
  'Maren Tolleth',
  'Oskar Wynde',
  'Philippa Dunmere',
  'Ruben Askel',
  'Greta Sundholm',
  'Anselm Corrie',
];
const QUESTIONS = [
  'Is there any play in the blade when it is open?',
  'Has the blade been sharpened, and if so how often would you say?',
  'Could you tell me what is stamped on the back of the tang?',
  'Would you post it abroad, and what would that cost?',
  'Is the handle sound around the pins?',
];

const isUp = ({ state, until }: Listing): boolean =>
  state === 'up' && (until === undefined || until >= new Date().toISOString().slice(0, 10));

/** What comes in for a listing: one question and one offer a little below the price. */
function messagesFor(listing: Listing): Message[] {
  const seed = createHash('sha256').update(`${listing.ref} ${listing.title}`).digest();
  const pick = <T>(list: readonly T[], at: number): T => list[(seed[at] ?? 0) % list.length] as T;
  const share = 0.86 + ((seed[3] ?? 0) / 255) * 0.1;
  const cents = /\./.test(listing.price.amount);
  const offered = Number(listing.price.amount) * share;
  const amount = cents ? (Math.round(offered * 2) / 2).toFixed(2) : String(Math.round(offered));
  return [
    {
      id: `${listing.ref}-q`,
      kind: 'question',
      from: pick(BUYERS, 0),
      text: pick(QUESTIONS, 1),
      amount: null,
    },
    {
      id: `${listing.ref}-o`,
      kind: 'offer',
      from: pick(BUYERS, 2),
      text: 'I would take it at this price and pay today.',
      amount: { amount, currency: listing.price.currency },
    },
    // whoever is named another price takes it: the tests and the demonstration need one way it goes
    ...Object.entries(listing.counters ?? {}).map(([message, counter]): Message => ({
      id: `${message}-agreed`,
      kind: 'offer',
      from: pick(BUYERS, 2),
      text: 'Agreed, at the price you named.',
      amount: counter,
    })),
  ];
}

export interface RunningMarketplace {
  readonly url: string;
  close(): Promise<void>;
}

/** @param folder where it keeps its listings; @param port 0 for any free one */
export async function startMarketplace(folder: string, port = 0): Promise<RunningMarketplace> {
  const path = join(folder, 'marketplace.json');
  await mkdir(folder, { recursive: true });
  const listings = new Map<string, Listing>(
    await readFile(path, 'utf8').then(
      (text) => (JSON.parse(text) as Listing[]).map((l) => [l.ref, l]),
      () => [],
    ),
  );
  let saving = Promise.resolve();
  const save = () => {
    saving = saving.then(async () => {
      await writeFile(`${path}.new`, JSON.stringify([...listings.values()]));
      await rename(`${path}.new`, path);
    });
    return saving;
  };

  const app = express();
  app.use(express.json());
  app.post('/listings', async (request, response) => {
    const { stockNumber, title, body, price, until, translations } = request.body as {
      stockNumber: string;
      title: string;
      body: string;
      price: Listing['price'];
      until?: string;
      translations?: Listing['translations'];
    };
    const key = request.get('Idempotency-Key');
    const before = [...listings.values()].find((l) => key !== undefined && l.key === key);
    if (before) {
      response.status(201).json({ ref: before.ref });
      return;
    }
    const ref = `M${createHash('sha256').update(`${stockNumber} ${title} ${listings.size}`).digest('hex').slice(0, 10)}`;
    listings.set(ref, {
      ref,
      ...(key === undefined ? {} : { key }),
      title,
      body,
      price,
      ...(until === undefined ? {} : { until }),
      ...(translations === undefined ? {} : { translations }),
      state: 'up',
      answers: {},
    });
    await save();
    response.status(201).json({ ref });
  });
  app.get('/listings/:ref/messages', (request, response) => {
    const listing = listings.get(request.params.ref);
    if (!listing) response.status(404).json({});
    else response.json({ items: isUp(listing) ? messagesFor(listing) : [] });
  });
  app.post('/listings/:ref/price', async (request, response) => {
    const listing = listings.get(request.params.ref);
    if (listing) listing.price = (request.body as { price: Listing['price'] }).price;
    await save();
    response.status(listing ? 200 : 404).json({});
  });
  app.post('/listings/:ref/messages/:id/answer', async (request, response) => {
    const listing = listings.get(request.params.ref);
    const { text, counter } = request.body as { text?: unknown; counter?: Listing['price'] };
    if (listing) listing.answers[request.params.id] = typeof text === 'string' ? text : '';
    if (listing && counter) listing.counters = { ...listing.counters, [request.params.id]: counter };
    await save();
    response.status(listing ? 200 : 404).json({});
  });
  app.post('/listings/:ref/end', async (request, response) => {
    const listing = listings.get(request.params.ref);
    if (listing) listing.state = 'ended';
    await save();
    response.status(listing ? 200 : 404).json({});
  });

  const server: Server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const { port: got } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${got}`,
    close: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await saving;
    },
  };
}
