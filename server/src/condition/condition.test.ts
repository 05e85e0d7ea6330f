import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { checkRules, documentOf, SHIPPED_RULES, type ScaleRules } from '@jutbank/core/condition';
import sharp from 'sharp';
import {
  intake,
  serverForTest,
  testPack,
  type Reply,
  type TestServer,
  type Visitor,
} from '../testing/index.ts';

let server: TestServer;
let clerk: Visitor;
beforeAll(async () => {
  server = await serverForTest();
  const features = testPack.features.map((f) =>
    f.id === 'scales'
      ? { ...f, values: [...(f.values ?? []), { id: 'celluloid', label: 'Celluloid', vapour: true }] }
      : f,
  );
  await server.owner.call('POST', '/reference-packs', { ...testPack, features });
  await server.owner.call('POST', '/people', {
    name: 'Jonas Aker',
    email: 'jonas@hollinquay.example',
    password: 'grey morning tide 7',
    role: 'appraiser',
  });
  clerk = server.nobody();
  await clerk.call('POST', '/session', {
    email: 'jonas@hollinquay.example',
    password: 'grey morning tide 7',
  });
});
afterAll(() => server.close());

const stain = { part: 'blade', defect: 'stain', severity: 'light' };
const rust = { part: 'blade', defect: 'rust', severity: 'moderate' };
interface Piece {
  id: string;
  version: number;
}
let piece: Piece;
const write = async (path: string, body: unknown, method = 'PUT'): Promise<Reply<any>> => {
  const reply = await server.owner.call<any>(method, `/pieces/${piece.id}/${path}`, body, {
    'if-match': `"v${piece.version}"`,
  });
  if (reply.etag !== null) piece = { ...piece, version: Number(reply.etag.slice(2, -1)) };
  return reply;
};
const inspect = (findings: unknown[], inspected = true, more: object = {}) =>
  write('condition', { findings, completeness: { box: 'none' }, inspected, ...more });
const file = async (id = piece.id) => (await server.owner.call<any>('GET', `/pieces/${id}/condition`)).body;
const treatment = {
  kind: 'remove-rust',
  product: 'light oil and bronze wool',
  grit: '0000',
  doneOn: '2026-11-02',
  doneBy: 'Ines Vadder',
  reason: 'it was spreading',
  reversible: false,
  cost: { amount: '12.00', currency: 'EUR' },
  removes: [1],
  adds: [{ part: 'blade', defect: 'pitting', severity: 'trace' }],
};
const pointers = (reply: Reply<any>) => reply.body.errors.map((e: { pointer: string }) => e.pointer);

beforeEach(async () => {
  piece = (await server.owner.call<any>('POST', '/pieces', intake)).body as Piece;
});

describe('the condition as found', () => {
  test('is kept when the inspection is finished, with its grade and the rules it was made by', async () => {
    const inspection = { blades: 2, tools: 0, steps: { stamp: 'good', 'edge:2': 'not-examined' } };
    const pinned = { ...stain, pin: { x: 0.25, y: 0.5 } };
    expect((await inspect([pinned, rust], false, { inspection })).status).toBe(200);
    expect((await file()).states).toEqual([]);
    const sheet = (await inspect([pinned, rust], true)).body;
    expect(sheet.condition.inspection).toEqual(inspection);
    expect(sheet.condition.findings[0].pin).toEqual({ x: 0.25, y: 0.5 });
    const [state, ...others] = (await file()).states;
    expect(others).toEqual([]);
    expect(state).toMatchObject({ why: 'as-found', notedBy: 'Ines Vadder', inspection });
    expect(state.findings).toHaveLength(2);
    expect(state.grade.grades[0].rules).toBe('collector/2');
  });
  test('cannot be changed under a finished inspection, only by a new look', async () => {
    await inspect([stain]);
    expect((await inspect([])).status).toBe(409);
    expect((await inspect([stain])).status).toBe(200);
    await inspect([stain], false);
    await inspect([stain, rust]);
    const { states } = await file();
    expect(states.map((s: { why: string }) => s.why)).toEqual(['as-found', 'inspected-again']);
    expect(states[0].findings).toHaveLength(1);
  });
  test('wrong counts and steps are named', async () => {
    const wrong = { blades: 0, tools: 0, steps: { stamp: 'perfect' } };
    expect(pointers(await inspect([], false, { inspection: wrong })).sort()).toEqual([
      '/inspection/blades',
      '/inspection/steps/stamp',
    ]);
    expect(pointers(await inspect([{ ...stain, pin: { x: 2, y: 0 } }], false))).toEqual([
      '/findings/0/pin/x',
    ]);
  });
});

describe('treatment', () => {
  test('comes only after the piece was recorded as found', async () => {
    expect((await write('treatments', treatment, 'POST')).status).toBe(409);
  });
  test('changes what stands today, never what was found, and is disclosed', async () => {
    await inspect([stain, rust]);
    const reply = await write('treatments', treatment, 'POST');
    expect(reply.status).toBe(201);
    expect(reply.body).toMatchObject({
      removed: [rust],
      added: [treatment.adds[0]],
      product: treatment.product,
    });
    const { states, treatments } = await file();
    expect(states.map((s: { why: string }) => s.why)).toEqual(['as-found', 'treated']);
    expect(states[0].findings.map((f: { defect: string }) => f.defect)).toEqual(['stain', 'rust']);
    expect(states[1].findings.map((f: { defect: string }) => f.defect)).toEqual(['stain', 'pitting']);
    expect(treatments).toHaveLength(1);
    const sheet = (await server.owner.call<any>('GET', `/pieces/${piece.id}`)).body;
    expect(sheet.condition.findings).toHaveLength(2);
    const draft = (await server.owner.call<any>('GET', `/pieces/${piece.id}/listing/draft`)).body;
    expect(draft.written.body).toContain(
      'Treated: rust taken off, 2 Nov 2026 (light oil and bronze wool, 0000 grit); cannot be undone',
    );
  });
  test('in words of one’s own is said in these words, with what it left behind', async () => {
    await inspect([stain, rust]);
    const own = { ...treatment, kind: 'other', title: 'soaked in oil', removes: [0], grit: '' };
    expect((await write('treatments', own, 'POST')).body).toMatchObject({
      title: 'soaked in oil',
      removed: [stain],
      added: treatment.adds,
    });
    const draft = (await server.owner.call<any>('GET', `/pieces/${piece.id}/listing/draft`)).body;
    expect(draft.written.body).toContain(
      'Treated: soaked in oil, 2 Nov 2026 (light oil and bronze wool); cannot be undone',
    );
  });
  test('that cannot be is refused whole, with the place named', async () => {
    await inspect([stain]);
    const refused = async (more: object) =>
      pointers(await write('treatments', { ...treatment, ...more }, 'POST'));
    expect(await refused({ removes: [0, 7] })).toEqual(['/removes/1']);
    expect(await refused({ removes: [], doneOn: '2099-01-01' })).toEqual(['/doneOn']);
    expect(await refused({ removes: [], reason: '', doneOn: 'yesterday' })).toEqual(['/doneOn', '/reason']);
    expect(await refused({ removes: [], pictures: { before: [piece.id], after: [] } })).toEqual([
      '/pictures/before/0',
    ]);
    expect((await file()).states).toHaveLength(1);
  });
  test('is weighed against leaving it, in grades and in what may go wrong', async () => {
    await inspect([stain, rust]);
    const { items } = (await server.owner.call<any>('GET', `/pieces/${piece.id}/treatment-options`)).body;
    expect(items[0]).toMatchObject({ plan: null, failed: null });
    const kinds = items.slice(1).map((o: { plan: { kind: string } }) => o.plan.kind);
    expect(kinds).toEqual(['remove-rust', 'polish']);
    expect(items[1].failed.index).toBeLessThan(items[1].done.index);
    expect(items[1].plan.cautions.join(' ')).toMatch(/Goggles/);
    expect(items[1].plan.cautions.join(' ')).not.toMatch(/vapour/);
    await write('observations', { observations: [{ feature: 'scales', value: 'celluloid' }] });
    const celluloid = await server.owner.call<any>('GET', `/pieces/${piece.id}/treatment-options`);
    expect(celluloid.body.items[1].plan.cautions.join(' ')).toMatch(/no solvent/);
  });
});

describe('quarantine', () => {
  test('holds a piece that gives off vapour until it is let out, and the tray says so', async () => {
    await write('observations', { observations: [{ feature: 'scales', value: 'celluloid' }] });
    expect((await file()).vapour).toEqual(['Scales: celluloid']);
    const kept = { since: '2026-10-01', reviewOn: '2026-10-20', reason: 'smells of vinegar' };
    expect(pointers(await write('quarantine', { ...kept, reviewOn: '2026-09-01' }, 'POST'))).toEqual([
      '/reviewOn',
    ]);
    const reply = await write('quarantine', kept, 'POST');
    expect(reply.status).toBe(201);
    expect(pointers(await write('quarantine', kept, 'POST'))).toEqual(['/since']);
    const sheet = (await server.owner.call<any>('GET', `/pieces/${piece.id}`)).body;
    expect(sheet.attention).toContain('Its quarantine is to be reviewed');
    const all = (await server.owner.call<any>('GET', '/quarantine')).body.items;
    expect(all.map((q: { piece: { id: string } }) => q.piece.id)).toEqual([piece.id]);
    const out = (endedOn: string) =>
      server.owner.call<any>('PUT', `/quarantine/${reply.body.id}`, {
        endedOn,
        outcome: 'no smell any more',
      });
    expect((await out('2026-09-01')).status).toBe(422);
    expect((await out('2026-11-01')).body.endedOn).toBe('2026-11-01');
    expect((await out('2026-11-01')).status).toBe(404);
    expect((await server.owner.call<any>('GET', '/quarantine')).body.items).toEqual([]);
  });
});

describe('a part that moved', () => {
  test('stands on both pieces, missing on one and replaced on the other', async () => {
    const donor = piece;
    const taker = (await server.owner.call<any>('POST', '/pieces', intake)).body as Piece;
    await inspect([]);
    const move = {
      part: 'clip',
      from: { piece: donor.id },
      to: { piece: taker.id },
      movedOn: '2026-10',
      why: 'exchanged',
      note: 'clip of the parts knife',
    };
    expect(
      (await server.owner.call('POST', '/part-moves', { ...move, to: { piece: donor.id } })).status,
    ).toBe(422);
    expect((await server.owner.call('POST', '/part-moves', move)).status).toBe(201);
    const defects = async (id: string) =>
      (await server.owner.call<any>('GET', `/pieces/${id}`)).body.condition.findings.map(
        (f: { part: string; defect: string }) => `${f.part} ${f.defect}`,
      );
    expect(await defects(donor.id)).toEqual(['clip missing']);
    expect(await defects(taker.id)).toEqual(['clip replaced']);
    const [own, others] = [await file(donor.id), await file(taker.id)];
    expect(own.moves).toEqual(others.moves);
    expect(own.states.map((s: { why: string }) => s.why)).toEqual(['as-found', 'part-moved']);
  });
});

describe('rule documents', () => {
  const collector = documentOf(SHIPPED_RULES, 'collector') as ScaleRules;
  const strict = {
    ...collector,
    grades: collector.grades.map((g) => (g.grade === 'mint' ? { ...g, from: 99.9 } : g)),
  };
  test('a changed scale is tried on the recorded pieces first, then kept, graded by, and left again', async () => {
    await inspect([{ part: 'blade', defect: 'patina', severity: 'trace' }]);
    const trial = (await server.owner.call<any>('POST', '/condition-rules/trial', { document: strict })).body;
    const own = trial.changes.filter((c: { piece: Piece }) => c.piece.id === piece.id);
    expect(own).toEqual([
      expect.objectContaining({ scale: 'collector', before: 'mint', after: 'near-mint' }),
    ]);
    const grade = async () =>
      (await server.owner.call<any>('GET', `/pieces/${piece.id}`)).body.grade.grades[0] as object;
    expect(await grade()).toMatchObject({ grade: 'mint', rules: 'collector/2' });
    const kept = await server.owner.call<any>('POST', '/condition-rules', {
      document: strict,
      note: 'mint means mint',
    });
    expect(kept.status).toBe(201);
    expect(await grade()).toMatchObject({ grade: 'near-mint', rules: `collector/${kept.body.version}` });
    expect((await file()).states[0].grade.grades[0]).toMatchObject({ grade: 'mint', rules: 'collector/2' });
    const versions = (await server.owner.call<any>('GET', '/condition-rules')).body.items.find(
      (i: { id: string }) => i.id === 'collector',
    ).versions;
    expect(versions.map((v: { inUse: boolean }) => v.inUse)).toEqual([false, true]);
    const back = (version: string) =>
      server.owner.call('PUT', '/condition-rules/collector/in-use', { version });
    expect((await back('shop-99')).status).toBe(404);
    expect((await back('2')).status).toBe(200);
    expect(await grade()).toMatchObject({ grade: 'mint' });
  });
  test('that would reward a finding is refused with the rule named, and nothing is kept', async () => {
    const index = documentOf(SHIPPED_RULES, 'condition-index');
    if (index?.format !== 'jutbank.condition-index/1') throw new Error('no index');
    const broken = {
      ...index,
      deductions: index.deductions.map((d) =>
        d.defect === 'rust' ? { ...d, bySeverity: { ...d.bySeverity, heavy: 0 } } : d,
      ),
    };
    const reply = await server.owner.call<any>('POST', '/condition-rules', { document: broken, note: 'x' });
    expect(reply.status).toBe(422);
    expect(reply.body.errors[0].message).toContain('the rule for “rust” heavy (0) would cost less');
    expect(checkRules(index)).toEqual([]);
    const now = (await server.owner.call<any>('GET', '/condition-rules/condition-index')).body;
    expect(now.version).toBe('2');
  });
  test('only the owner changes them; their shape is told as JSON Schema', async () => {
    expect((await clerk.call('POST', '/condition-rules', { document: strict, note: 'x' })).status).toBe(403);
    const schema = (await clerk.call<any>('GET', '/condition-rules/schema')).body;
    expect(JSON.stringify(schema)).toContain('jutbank.grade-scale/1');
  });
});

describe('a blind second grading', () => {
  test('shows nothing of the first until it is done, and tells where the two differ', async () => {
    await inspect([stain, rust]);
    const other = (await server.owner.call<any>('POST', '/pieces', intake)).body as Piece;
    const set = (pieces: string[]) =>
      server.owner.call<any>('POST', '/gradings', { title: 'November', pieces });
    expect(pointers(await set([piece.id, other.id]))).toEqual(['/pieces/1']);
    const grading = (await set([piece.id])).body;
    expect(grading.items[0].looked).toBeNull();
    expect(JSON.stringify(grading)).not.toContain('rust');
    const path = `/gradings/${grading.id}/pieces/${piece.id}`;
    expect((await server.owner.call('PUT', path, { findings: [] })).status).toBe(409);
    const looked = await clerk.call<any>('PUT', path, { findings: [stain] });
    expect(looked.status).toBe(200);
    expect(looked.body.items[0].looked).toMatchObject({ by: 'Jonas Aker', scale: 'collector' });
    expect(looked.body.differ).toEqual([
      { part: 'blade', defect: 'rust', onlyFirst: 1, onlySecond: 0, both: 0 },
    ]);
    expect((await clerk.call('PUT', path, { findings: [] })).status).toBe(409);
  });
});

test('the condition report is a PDF with the pinned picture', async () => {
  const form = new FormData();
  const jpeg = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#999' } })
    .jpeg()
    .toBuffer();
  form.set('file', new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }), 'p.jpg');
  form.set('caption', 'Mark side');
  const picture = await server.owner.call<any>('POST', `/pieces/${piece.id}/pictures`, form, {
    'if-match': `"v${piece.version}"`,
  });
  piece = { ...piece, version: picture.body.version };
  const pin = { picture: picture.body.pictures[0].id, x: 0.4, y: 0.4 };
  expect((await inspect([{ ...stain, pin }])).status).toBe(200);
  const report = await server.owner.call('GET', `/pieces/${piece.id}/condition-report.pdf`);
  expect(report.status).toBe(200);
  expect(report.headers.get('content-type')).toBe('application/pdf');
  expect(String(report.body).slice(0, 5)).toBe('%PDF-');
});
