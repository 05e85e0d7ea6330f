/** Papers behind pieces: letters and packages with what they say, some of it wrong; bodies that changed their names. */
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { DocumentBody, DocumentRecord } from '@jutbank/contract/provenance';
import type { Client } from './client.ts';

const BODIES = [
  {
    names: [
      { name: 'Coastal Service', period: '1921/1958' },
      { name: 'Harbour and Coast Authority', period: '1959/..' },
    ],
    note: 'Renamed by the act of 1958; its stores kept the old stencils for years.',
  },
  { names: [{ name: 'Museum of the Slipway', period: '1964/..' }], note: '' },
];

const LETTER: DocumentBody = {
  kind: 'letter',
  title: 'Letter of the storekeeper at Skerry Bay',
  dated: '1937-03-12',
  author: 'Storekeeper, Coastal Service',
  keptAt: 'with the piece',
  page: '',
  transcription:
    'Sir, of the forty knives drawn in September last, thirty-eight are on charge and two were lost overboard. They are of the new form with the bar.',
  claims: [
    { kind: 'other', says: 'Of forty drawn in September 1936 two were lost.' },
    { kind: 'owner', holder: 'Coastal Service', period: '1936/1937' },
  ],
};
const PACKAGE: DocumentBody = {
  kind: 'package',
  title: 'Its box, with the maker’s label',
  dated: null,
  author: '',
  keptAt: 'with the piece',
  page: '',
  transcription: 'PETREL · stainless · Made in 2009',
  claims: [{ kind: 'made', period: '2009' }],
};

export async function fillTrail(client: Client): Promise<void> {
  for (const body of BODIES) await client.call('POST', '/bodies', body);
  const { items } = await client.call<{ items: PieceSheet[] }>('GET', '/pieces?limit=200');
  const unsold = items.filter((p) => p.stage !== 'sold');
  const service = unsold.find((p) => /service issue/i.test(p.title));
  if (service) {
    const letter = await client.call<DocumentRecord>('POST', `/pieces/${service.id}/documents`, LETTER);
    const scan = new FormData();
    scan.set('file', new Blob([LETTER.transcription], { type: 'text/plain' }), 'letter-1937.txt');
    await client.call('POST', `/pieces/${service.id}/documents/${letter.id}/file`, scan);
    const second = unsold.find((p) => p.id !== service.id && /harbour jack/i.test(p.title));
    if (second) await client.call('POST', `/pieces/${second.id}/documents/${letter.id}/link`);
  }
  // a package that tells another year than the piece: what does not match is told until it is settled
  const petrel = unsold.find((p) => /petrel/i.test(p.title) && p.readings.when !== null);
  if (petrel) await client.call('POST', `/pieces/${petrel.id}/documents`, PACKAGE);
}
