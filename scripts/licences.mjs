/** `npm run licences`: what ships, and under which licence, into docs/licences.md. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './setup/packages.mjs';

const FIT =
  /^(MIT|ISC|BSD|Apache-2\.0|0BSD|Unlicense|CC0|BlueOak|OFL|Python-2\.0|Zlib|\(MIT|MIT-0|CC-BY-4\.0|WTFPL|LGPL-3\.0-or-later|Bitstream)/;

/**
 * Read by a person, because the manifest does not say it.
 * @type {Record<string, string>}
 */
const READ = {
  'dejavu-fonts-ttf': 'Bitstream Vera (its LICENSE: may be embedded and shipped with software)',
  'png-js': 'MIT (its LICENSE file)',
};

/** @type {{ packages: Record<string, { version?: string, dev?: boolean, link?: boolean, optional?: boolean }> }} */
const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
const rows = [];
const unfit = [];
for (const [path, entry] of Object.entries(lock.packages)) {
  if (!path.includes('node_modules/') || entry.dev || entry.link) continue;
  const manifest = join(root, path, 'package.json');
  if (!existsSync(manifest)) continue;
  const { name, version, license, licenses } = JSON.parse(readFileSync(manifest, 'utf8'));
  const stated = typeof license === 'string' ? license : license?.type;
  const listed = licenses?.map((/** @type {{ type: string }} */ l) => l.type).join(' or ');
  const text = READ[name] ?? stated ?? listed ?? 'not stated';
  rows.push(`| ${name} | ${version} | ${text} |`);
  if (!FIT.test(text)) unfit.push(`${name} ${version}: ${text}`);
}
const list = [...new Set(rows)].sort();
writeFileSync(
  join(root, 'docs', 'licences.md'),
  `# Licences of what ships\n\n| package | version | licence |\n| --- | --- | --- |\n${list.join('\n')}\n`,
);
process.stdout.write(`${list.length} packages listed in docs/licences.md\n`);
if (unfit.length > 0) {
  process.stderr.write(`To be looked at:\n${unfit.join('\n')}\n`);
  process.exit(1);
}
