/**
 * Two carriers that do not exist, behind one address: rate tables by weight, size, insured value and zone, what they do
 * not take named as topics, and labels. What they answer follows from what is asked alone, so that tests repeat.
 */
import { createHash } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';

export const ZONES = ['home', 'near', 'far', 'overseas'] as const;
export type Zone = (typeof ZONES)[number];

export interface ParcelAsked {
  readonly zone: Zone;
  readonly grams: number;
  /** millimetres */
  readonly size: readonly [number, number, number];
  /** to be insured for, in the currency of the rates */
  readonly value: number;
  /** such as `blade` */
  readonly content: string;
}
export interface Quote {
  readonly carrier: string;
  readonly service: string;
  readonly price: string;
  readonly currency: 'EUR';
  readonly tracked: boolean;
  readonly insuredUpTo: number;
  readonly days: readonly [number, number];
  /** topics to look up before it is sent */
  readonly topics: readonly string[];
}

interface Service {
  readonly carrier: string;
  readonly service: string;
  readonly tracked: boolean;
  /** price of the first step by zone; null where it does not go */
  readonly from: Readonly<Record<Zone, number | null>>;
  readonly perHundredGrams: number;
  readonly mostGrams: number;
  /** length and girth together, mm */
  readonly mostSize: number;
  readonly insuredUpTo: number;
  /** percent of the value that is insured */
  readonly insurance: number;
  readonly days: Readonly<Record<Zone, readonly [number, number]>>;
}
const SERVICES: readonly Service[] = [
  {
    carrier: 'Coast carrier',
    service: 'Letter parcel',
    tracked: false,
    from: { home: 3.2, near: 5.9, far: 7.8, overseas: null },
    perHundredGrams: 0.25,
    mostGrams: 1000,
    mostSize: 900,
    insuredUpTo: 0,
    insurance: 0,
    days: { home: [1, 3], near: [3, 6], far: [5, 10], overseas: [0, 0] },
  },
  {
    carrier: 'Coast carrier',
    service: 'Tracked parcel',
    tracked: true,
    from: { home: 6.4, near: 11.5, far: 16.8, overseas: 27.5 },
    perHundredGrams: 0.3,
    mostGrams: 20_000,
    mostSize: 3000,
    insuredUpTo: 500,
    insurance: 0.6,
    days: { home: [1, 2], near: [2, 5], far: [4, 8], overseas: [7, 16] },
  },
  {
    carrier: 'Harbour express',
    service: 'Valuables',
    tracked: true,
    from: { home: 14.9, near: 26, far: 38, overseas: 64 },
    perHundredGrams: 0.55,
    mostGrams: 10_000,
    mostSize: 2400,
    insuredUpTo: 5000,
    insurance: 0.9,
    days: { home: [1, 1], near: [1, 2], far: [2, 3], overseas: [3, 6] },
  },
];
const TOPICS: Readonly<Record<Zone, readonly string[]>> = {
  home: ['age of whoever takes it in'],
  near: ['age of whoever takes it in', 'import of blades at the destination'],
  far: ['age of whoever takes it in', 'import of blades at the destination', 'customs declaration'],
  overseas: [
    'age of whoever takes it in',
    'import of blades at the destination',
    'customs declaration',
    'ways of opening that are restricted at the destination',
  ],
};

export function quotesFor({ zone, grams, size, value }: ParcelAsked): Quote[] {
  const [longest = 0, ...rest] = [...size].sort((a, b) => b - a);
  const girth = longest + 2 * rest.reduce((sum, side) => sum + side, 0);
  return SERVICES.flatMap((s): Quote[] => {
    const base = s.from[zone];
    if (base === null || grams > s.mostGrams || girth > s.mostSize) return [];
    if (value > s.insuredUpTo && s.insuredUpTo > 0) return [];
    const price = base + Math.ceil(grams / 100) * s.perHundredGrams + (value * s.insurance) / 100;
    return [
      {
        carrier: s.carrier,
        service: s.service,
        price: (Math.round(price * 10) / 10).toFixed(2),
        currency: 'EUR',
        tracked: s.tracked,
        insuredUpTo: s.insuredUpTo,
        days: s.days[zone],
        topics: TOPICS[zone],
      },
    ];
  });
}

const isParcel = (body: unknown): body is ParcelAsked => {
  const asked = body as Partial<ParcelAsked> | null;
  return (
    typeof asked === 'object' &&
    asked !== null &&
    ZONES.some((zone) => zone === asked.zone) &&
    typeof asked.grams === 'number' &&
    asked.grams > 0 &&
    Array.isArray(asked.size) &&
    asked.size.length === 3 &&
    typeof asked.value === 'number'
  );
};

/** `POST /quotes` a parcel → `{ items }`; `POST /labels` with `carrier`, `service`, `to` → `{ tracking }`. */
export async function startCarriers(): Promise<{ url: string; close: () => Promise<void> }> {
  const app = express();
  app.use(express.json());
  app.post('/quotes', (request, response) => {
    if (!isParcel(request.body))
      response.status(400).json({ error: 'zone, grams, size and value are wanted' });
    else response.json({ items: quotesFor(request.body) });
  });
  app.post('/labels', (request, response) => {
    const { carrier, service, to } = request.body as Record<string, unknown>;
    const known = SERVICES.find((s) => s.carrier === carrier && s.service === service);
    if (!known || typeof to !== 'string' || to.trim() === '') {
      response.status(400).json({ error: 'a service and an address are wanted' });
      return;
    }
    // told again with its key it is the same parcel
    const print = createHash('sha256')
      .update(request.get('Idempotency-Key') ?? to)
      .digest('hex');
    response.status(201).json({
      tracking: known.tracked
        ? `${known.carrier.slice(0, 2).toUpperCase()} ${parseInt(print.slice(0, 8), 16)}`
        : '',
    });
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}`,
    close: () =>
      new Promise((resolve, reject) => {
        server.close((error) => (error ? reject(error) : resolve()));
        server.closeAllConnections();
      }),
  };
}
