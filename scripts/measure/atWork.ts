/**
 * A shop at work, for tests in which what it runs on is killed: whatever was answered is remembered, and asked for in the
 * end. Each request is sent until it is answered, always with the same key, as the pages do.
 */
import { randomUUID } from 'node:crypto';
import { intake, testPack } from '../../server/src/testing/pack.ts';

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** What is read of answers here. */
interface Told {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly kind: string;
  readonly cost: string;
  readonly buyerName: string;
  readonly invoiceNumber: string;
  readonly items: readonly Told[];
  readonly list: readonly Told[];
  readonly nextCursor: string | null;
  readonly intact: boolean;
  readonly firstBroken: number | null;
  readonly entries: number;
}
interface Reply {
  readonly status: number;
  readonly body: Told;
  readonly etag: string;
}

export class ShopAtWork {
  readonly problems: string[] = [];
  readonly answered = {
    pieces: new Set<string>(),
    sales: new Map<string, string>(),
    offers: new Map<string, number>(),
    lots: new Map<string, number>(),
  };
  /** answers so far, and the longest that one of them took with all its repeats, in ms */
  told = 0;
  longest = 0;
  #cookie = '';
  #working = true;
  #writers: Promise<void>[] = [];

  /** @param patience ms after which a request that is not answered is a fault */
  constructor(
    readonly address: string,
    readonly patience: number,
  ) {}

  /** Sent until it is answered with something but 5xx; always with the same key. */
  async send(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Reply> {
    const key = randomUUID();
    const began = Date.now();
    let last = 'nothing';
    for (;;) {
      try {
        const form = body instanceof FormData;
        const response = await fetch(`${this.address}${path}`, {
          method,
          headers: {
            cookie: this.#cookie,
            'idempotency-key': key,
            ...(form || body === undefined ? {} : { 'content-type': 'application/json' }),
            ...headers,
          },
          ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
          signal: AbortSignal.timeout(20_000),
        });
        const text = await response.text();
        last = `${response.status} ${text.slice(0, 300)}`;
        if (response.status < 500) {
          this.told++;
          this.longest = Math.max(this.longest, Date.now() - began);
          const set = response.headers.getSetCookie()[0]?.split(';')[0];
          if (set !== undefined && set !== '') this.#cookie = set;
          return {
            status: response.status,
            body: JSON.parse(text === '' ? '{}' : text) as Told,
            etag: response.headers.get('etag') ?? '',
          };
        }
      } catch {
        // killed under us: sent again
      }
      if (Date.now() - began > this.patience)
        throw new Error(`${method} ${path} was not answered in ${this.patience / 1000} s; last ${last}`);
      await wait(150);
    }
  }

  async setUp(): Promise<void> {
    await this.send('POST', '/setup', {
      shopName: 'Hollin Quay Edge Room',
      baseCurrency: 'EUR',
      owner: { name: 'Ines Vadder', email: 'ines@hollinquay.example', password: 'harbour light 12' },
    });
    await this.send('POST', '/reference-packs', testPack);
  }

  /** So many people take in, decide, judge offers, sell, buy lots, until `rest`. */
  work(writers: number): void {
    this.#writers = Array.from({ length: writers }, (_, who) => this.#writer(who));
  }

  async rest(): Promise<void> {
    this.#working = false;
    await Promise.all(this.#writers);
  }

  /** @throws when nothing was answered for a minute */
  async goesOn(answers = 3): Promise<void> {
    const before = this.told;
    for (let waited = 0; this.told < before + answers; waited += 200) {
      if (waited > 60_000) throw new Error('nothing was answered for a minute');
      await wait(200);
    }
  }

  #need(reply: Reply, wanted: readonly number[], what: string): boolean {
    if (!wanted.includes(reply.status))
      this.problems.push(
        `${what} was answered ${reply.status}: ${JSON.stringify(reply.body)?.slice(0, 200)}`,
      );
    return wanted.includes(reply.status);
  }

  async #writer(who: number): Promise<void> {
    for (let n = 0; this.#working; n++) {
      const title = `Jack ${who}-${n}`;
      const made = await this.send('POST', '/pieces', { ...intake, title });
      if (!this.#need(made, [201], 'taking in')) continue;
      this.answered.pieces.add(title);
      const seen = await this.send('GET', `/pieces/${made.body.id}`);
      if (!this.#need(seen, [200], 'reading what was just taken in')) continue;
      const decided = await this.send(
        'PUT',
        `/pieces/${made.body.id}/attribution`,
        { attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' } },
        { 'if-match': made.etag === '' ? `"v${made.body.version}"` : made.etag },
      );
      // told twice after a lost answer, a version has moved on: the second is honest
      if (!this.#need(decided, [200, 412], 'deciding')) continue;
      const offer = await this.send('POST', `/pieces/${made.body.id}/offers`, {
        bidder: title,
        amount: { amount: '40.00', currency: 'EUR' },
        decision: 'taken',
        note: '',
      });
      if (offer.status === 201) this.answered.offers.set(made.body.id, 1);
      if (n % 2 === 0) {
        const sold = await this.send('POST', `/pieces/${made.body.id}/sale`, {
          ageChecked: true,
          buyerName: title,
          price: { amount: '80.00', currency: 'EUR' },
        });
        if (this.#need(sold, [201], 'selling')) this.answered.sales.set(title, sold.body.invoiceNumber);
      }
      if (n % 3 === 0) {
        const lot = await this.send('POST', '/lots', {
          name: `Lot ${title}`,
          sourceKind: 'fair',
          sourceName: '',
          acquired: null,
          currency: 'EUR',
          method: 'equal',
          costs: [{ label: 'Price', amount: '100.01' }],
          note: '',
        });
        if (!this.#need(lot, [201], 'a lot')) continue;
        const filled = await this.send('POST', `/lots/${lot.body.id}/pieces`, {
          pieces: ['a', 'b', 'c'].map((x) => ({
            title: `${title} ${x}`,
            construction: 'slipjoint',
            value: null,
            keep: false,
          })),
        });
        if (this.#need(filled, [201], 'filling a lot')) this.answered.lots.set(lot.body.id, 3);
      }
    }
  }
  async *#all(path: string): AsyncGenerator<Told> {
    let cursor: string | null = '';
    while (cursor !== null) {
      const page: Reply = await this.send(
        'GET',
        `${path}${path.includes('?') ? '&' : '?'}limit=200${cursor === '' ? '' : `&cursor=${cursor}`}`,
      );
      yield* page.body.items;
      cursor = page.body.nextCursor;
    }
  }
  /** What was answered is there, once, and whole. @returns what was done, in a line */
  async check(): Promise<string> {
    const titles = new Map<string, number>();
    for await (const piece of this.#all('/pieces'))
      titles.set(piece.title, (titles.get(piece.title) ?? 0) + 1);
    for (const title of this.answered.pieces)
      if (titles.get(title) !== 1) this.problems.push(`${title} is there ${titles.get(title) ?? 0} times`);
    for (const [title, n] of titles) if (n > 1) this.problems.push(`${title} is there ${n} times`);
    const invoices = new Map<string, string>();
    for await (const sale of this.#all('/sales')) {
      if (invoices.has(sale.invoiceNumber))
        this.problems.push(`invoice ${sale.invoiceNumber} was given twice`);
      invoices.set(sale.invoiceNumber, sale.buyerName);
    }
    for (const [buyer, number] of this.answered.sales)
      if (invoices.get(number) !== buyer) this.problems.push(`the sale ${number} to ${buyer} is lost`);
    for (const [piece, n] of this.answered.offers) {
      const { body } = await this.send('GET', `/pieces/${piece}/ledger?limit=200`);
      const offers = body.items.filter((e) => e.kind === 'offer-taken').length;
      if (offers !== n) this.problems.push(`${offers} offers for ${piece}, ${n} were answered`);
    }
    for (const [lot, n] of this.answered.lots) {
      const { body } = await this.send('GET', `/lots/${lot}`);
      const cents = body.list.reduce((sum, p) => sum + Math.round(Number(p.cost) * 100), 0);
      if (body.list.length !== n || cents !== 10_001)
        this.problems.push(`lot ${lot}: ${body.list.length} pieces, ${cents} cents`);
    }
    const ledger = await this.send('GET', '/ledger/verify');
    if (ledger.body.intact !== true)
      this.problems.push(`the ledger is broken at ${String(ledger.body.firstBroken)}`);
    const { pieces, sales, offers, lots } = this.answered;
    return `${this.told} answers, ${pieces.size} pieces, ${sales.size} sales, ${offers.size} offers, ${lots.size} lots, ledger of ${String(ledger.body.entries)}; longest wait ${(this.longest / 1000).toFixed(1)} s`;
  }
}
