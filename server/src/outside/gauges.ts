/** Gauges at the bench: lines of text over a stream, passed on to whoever sits there. */
import { connect, type Socket } from 'node:net';
import type { Response } from 'express';
import type { GaugeKey, GaugeLine } from '@jutbank/contract/bench';

export interface GaugeAddress {
  readonly id: string;
  readonly kind: 'caliper' | 'scales';
  /** host:port */
  readonly address: string;
  readonly simulated: boolean;
}

const AGAIN_MS = 5000;
/** A gauge says a few words at a time; more without an end of line is noise. */
const LONGEST_LINE = 200;

export class Gauges {
  readonly #sockets = new Map<string, Socket>();
  readonly #listeners = new Set<Response>();
  #closed = false;

  constructor(readonly addresses: readonly GaugeAddress[]) {
    for (const gauge of addresses) this.#plugIn(gauge);
  }

  #plugIn(gauge: GaugeAddress): void {
    if (this.#closed) return;
    const [host, port] = gauge.address.split(':');
    const socket = connect(Number(port), host);
    this.#sockets.set(gauge.id, socket);
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = (lines.pop() ?? '').slice(0, LONGEST_LINE);
      for (const line of lines) if (line.trim() !== '') this.#pass({ gauge: gauge.id, line: line.trim() });
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      if (!this.#closed) setTimeout(() => this.#plugIn(gauge), AGAIN_MS).unref();
    });
  }

  #pass(line: GaugeLine): void {
    for (const listener of this.#listeners) listener.write(`data: ${JSON.stringify(line)}\n\n`);
  }

  /** Presses a key of the gauge; false when it is not plugged in. */
  press(id: string, key: GaugeKey, jaws: number | undefined): boolean {
    const socket = this.#sockets.get(id);
    if (!socket?.writable) return false;
    if (jaws !== undefined) socket.write(`jaws ${jaws}\n`);
    socket.write(`${key}\n`);
    return true;
  }

  /** Every line from now on, as server-sent events, until the reader goes away. */
  follow(response: Response): void {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
    });
    response.write(': listening\n\n');
    this.#listeners.add(response);
    response.on('close', () => this.#listeners.delete(response));
  }

  close(): void {
    this.#closed = true;
    for (const socket of this.#sockets.values()) socket.destroy();
    for (const listener of this.#listeners) listener.end();
  }
}
