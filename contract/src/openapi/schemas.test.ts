import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { schemaFiles } from './schemas.ts';

const place = (name: string) => new URL(`../../../docs/schemas/${name}.json`, import.meta.url);

/** `UPDATE_SCHEMAS=1 node scripts/test.mjs unit schemas` writes them anew. */
test.each(Object.entries(schemaFiles()))('docs/schemas/%s.json says what is checked', (name, schema) => {
  const text = `${JSON.stringify(schema, null, 2)}\n`;
  if (process.env.UPDATE_SCHEMAS === '1') writeFileSync(place(name), text);
  expect(JSON.parse(readFileSync(place(name), 'utf8'))).toEqual(JSON.parse(text));
});
