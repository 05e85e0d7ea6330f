/**
 * A caliper and a pair of scales that do not exist. Like many real ones they speak lines of text over a stream:
 * `97.62 mm` when the data key is pressed, `! hold on` when their state changes; they take `send`, `hold`, `zero`,
 * `unit`, and, being simulated, `jaws 97.6`: what lies between them, in mm or g.
 */
import { createServer, type AddressInfo, type Socket } from 'node:net';

export type GaugeKind = 'caliper' | 'scales';
export interface SimulatedGauge {
  /** host:port of its stream */
  readonly address: string;
  close(): Promise<void>;
}

interface Unit {
  readonly name: string;
  /** mm or g in one of it */
  readonly size: number;
  readonly decimals: number;
}
const UNITS: Record<GaugeKind, readonly [Unit, Unit]> = {
  caliper: [
    { name: 'mm', size: 1, decimals: 2 },
    { name: 'in', size: 25.4, decimals: 4 },
  ],
  scales: [
    { name: 'g', size: 1, decimals: 1 },
    { name: 'oz', size: 28.349523125, decimals: 2 },
  ],
};

export async function startGauge(kind: GaugeKind): Promise<SimulatedGauge> {
  const units = UNITS[kind];
  const hands = new Set<Socket>();
  let unit = units[0];
  let between = 0;
  let offset = 0;
  let held: number | undefined;
  const tell = (line: string) => {
    for (const hand of hands) hand.write(`${line}\r\n`);
  };
  const shown = () => ((held ?? between - offset) / unit.size).toFixed(unit.decimals);
  const take = (line: string) => {
    const [word = '', number] = line.trim().toLowerCase().split(/\s+/);
    if (word === 'send') tell(`${shown()} ${unit.name}`);
    else if (word === 'hold') {
      held = held === undefined ? between - offset : undefined;
      tell(`! hold ${held === undefined ? 'off' : 'on'}`);
    } else if (word === 'zero') {
      offset = between;
      held = undefined;
      tell('! zero');
    } else if (word === 'unit') {
      unit = unit === units[0] ? units[1] : units[0];
      tell(`! unit ${unit.name}`);
    } else if (word === 'jaws' && Number.isFinite(Number(number))) between = Number(number);
    else tell('! ?');
  };
  const server = createServer((hand) => {
    hands.add(hand);
    let rest = '';
    hand.setEncoding('utf8');
    hand.on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = lines.pop() ?? '';
      lines.filter((l) => l.trim() !== '').forEach(take);
    });
    hand.on('close', () => hands.delete(hand));
    hand.on('error', () => hand.destroy());
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    address: `127.0.0.1:${port}`,
    close: () =>
      new Promise((resolve) => {
        for (const hand of hands) hand.destroy();
        server.close(() => resolve());
      }),
  };
}
