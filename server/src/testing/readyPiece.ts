/** A piece of the test pack that went through every stage up to the desk. */
import sharp from 'sharp';
import { intake } from './pack.ts';
import type { Visitor } from './visitor.ts';

const jpeg = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#999' } })
    .jpeg()
    .toBuffer();

/** @param more of its intake; the reference holds the test pack already */
export async function readyToSell({ owner }: { readonly owner: Visitor }, more: object = {}): Promise<any> {
  const put = async (piece: any, path: string, body: unknown) =>
    (await owner.call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` }))
      .body;
  let piece = (await owner.call('POST', '/pieces', { ...intake, ...more })).body;
  const form = new FormData();
  form.set('file', new Blob([new Uint8Array(await jpeg())]), 'p.jpg');
  piece = (await owner.call('POST', `/pieces/${piece.id}/pictures`, form)).body;
  piece = await put(piece, 'observations', { observations: [{ feature: 'lanyard', value: 'bar' }] });
  piece = await put(piece, 'attribution', {
    attribution: { variant: 'second', pattern: 'jack', tier: 'probable', reason: 'Compared.' },
  });
  piece = await put(piece, 'condition', {
    findings: [{ part: 'blade', defect: 'reground', severity: 'light' }],
    completeness: {},
    inspected: true,
  });
  return put(piece, 'pricing', {
    ask: { amount: '120.00', currency: 'EUR' },
    floor: { amount: '90.00', currency: 'EUR' },
    note: 'Seen at the fair for 130.',
  });
}
