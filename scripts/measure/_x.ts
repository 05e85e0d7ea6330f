import { writeFileSync } from 'node:fs';
import { openBrowser, signIn } from '../../e2e/src/support/browser.ts';
const address='http://127.0.0.1:4180';
const [W='1280',H='800',...paths]=process.argv.slice(2);
const b = await openBrowser({ width: Number(W), height: Number(H) });
try {
  await signIn(b, address, { email: 'ines@hollinquay.example', password: 'harbour light 12' });
  const pieces = (await b.fetchJson<{items:{id:string,title:string}[]}>('/api/v1/pieces?limit=200')).items;
  const lots = (await b.fetchJson<{items:{id:string}[]}>('/api/v1/lots')).items;
  for (const [n, p] of paths.entries()) {
    const [path='', js] = p.split('§');
    const real = path.replace(/\{([^}]*)\}/, (_, t) => pieces.find((x) => x.title.startsWith(t))?.id ?? 'none').replace('LOT', lots[0]?.id ?? '');
    await b.driver.get(address + real); await b.settled(); await new Promise(r=>setTimeout(r,500));
    if (js) { await b.driver.executeScript(js); await new Promise(r=>setTimeout(r,700)); }
    writeFileSync(`/tmp/x${n}.png`, Buffer.from(await b.driver.takeScreenshot(), 'base64'));
  }
} finally { await b.close(); }
