/** A connection that can be cut: everything between the browser and the application goes through it, service workers too. */
import { createServer, connect, type Socket } from 'node:net';

export interface Gate {
  readonly address: string;
  /** drops what is under way and lets nothing through */
  cut(): Promise<void>;
  mend(): Promise<void>;
  close(): Promise<void>;
}

/** @param behind address of the application */
export async function openGate(behind: string): Promise<Gate> {
  const { hostname, port } = new URL(behind);
  const open = new Set<Socket>();
  const server = createServer((near) => {
    const far = connect(Number(port), hostname);
    for (const socket of [near, far]) {
      open.add(socket);
      socket.once('close', () => open.delete(socket));
      // either end may go at any time: that is what this is for
      socket.on('error', () => socket.destroy());
    }
    near.pipe(far).pipe(near);
  });
  const listen = (at: number) =>
    new Promise<number>((resolve) =>
      server.listen(at, '127.0.0.1', () => {
        const address = server.address();
        resolve(typeof address === 'object' && address ? address.port : 0);
      }),
    );
  const own = await listen(0);
  const cut = () =>
    new Promise<void>((resolve) => {
      server.close(() => resolve());
      for (const socket of open) socket.destroy();
    });
  return {
    address: `http://127.0.0.1:${own}`,
    cut,
    mend: async () => void (await listen(own)),
    close: async () => {
      if (server.listening) await cut();
    },
  };
}
