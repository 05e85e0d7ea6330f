/** One address in front of several copies of a server: connections go to one that takes them, by turns. */
import { connect, createServer } from 'node:net';

/**
 * @param {string} host
 * @param {number} port
 * @param {readonly number[]} copies ports on this machine
 * @returns {Promise<{ close(): Promise<void> }>}
 */
export async function balance(host, port, copies) {
  let turn = 0;
  /** @type {Set<import('node:net').Socket>} */
  const open = new Set();
  /**
   * @param {import('node:net').Socket} client
   * @param {number} tries
   */
  const lead = (client, tries) => {
    const to = connect(copies[turn++ % copies.length] ?? 0, '127.0.0.1');
    const refused = () => {
      if (tries < copies.length) lead(client, tries + 1);
      else client.destroy();
    };
    to.once('error', refused);
    to.once('connect', () => {
      to.off('error', refused);
      for (const [one, other] of [
        [client, to],
        [to, client],
      ]) {
        one?.on('error', () => other?.destroy());
        one?.on('close', () => other?.destroy());
      }
      client.pipe(to).pipe(client);
    });
  };
  const server = createServer({ pauseOnConnect: true }, (client) => {
    open.add(client);
    client.once('close', () => open.delete(client));
    client.on('error', () => client.destroy());
    lead(client, 1);
  });
  await new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve(undefined));
  });
  return {
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        for (const client of open) client.destroy();
      }),
  };
}
