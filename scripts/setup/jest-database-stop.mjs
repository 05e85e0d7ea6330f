import { rmSync } from 'node:fs';

export default async function teardown() {
  const { database, folder } = /** @type {any} */ (globalThis).__jutbankDatabase ?? {};
  await database?.stop();
  if (folder) rmSync(folder, { recursive: true, force: true });
}
