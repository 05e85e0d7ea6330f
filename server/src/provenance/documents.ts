/** Documents of pieces: what they are, what they say of each piece, and whether that holds; bodies and their names. */
import { ulid } from 'ulid';
import { checkClaim, claimInWords, type DocumentClaim, type DocumentKind } from '@jutbank/core/provenance';
import {
  documentRoutes,
  type BodyNames,
  type BodyRecord,
  type DocumentBody,
  type DocumentRecord,
} from '@jutbank/contract/provenance';
import { instant, raiseRevision, type Queries, type Transaction } from '../db/index.ts';
import { answer, checkVersion, invalid, notFound, type Answered, type Mount } from '../http/index.ts';
import { changePiece, lockPiece, pieceRecord, seenOf, type Readers } from '../pieces/index.ts';
import { uploadedDocument, type DocumentStore } from './documentStore.ts';

interface DocumentRow {
  id: string;
  version: number;
  kind: DocumentKind;
  title: string;
  dated: string | null;
  author: string;
  kept_at: string;
  page: string;
  transcription: string;
  file_hash: string | null;
  file_name: string | null;
  file_type: string | null;
  file_size: number | null;
  noted_by: string;
  noted_at: string;
}

/** Documents of a piece, each claim set against what was seen of it. */
export async function documentsOf(db: Queries, readers: Readers, pieceId: string): Promise<DocumentRecord[]> {
  const rows = await db.rows<DocumentRow>(
    'SELECT d.* FROM document d JOIN document_piece l ON l.document_id = d.id WHERE l.piece_id = ? ORDER BY d.id',
    [pieceId],
  );
  if (rows.length === 0) return [];
  const claims = await db.rows<{ document_id: string; body: DocumentClaim }>(
    'SELECT document_id, body FROM document_claim WHERE piece_id = ? ORDER BY document_id, position',
    [pieceId],
  );
  const ids = rows.map((row) => row.id);
  const elsewhere = await db.rows<{ document_id: string; id: string; stock_number: string; title: string }>(
    `SELECT l.document_id, p.id, p.stock_number, p.title FROM document_piece l JOIN piece p ON p.id = l.piece_id
     WHERE l.piece_id <> ? AND l.document_id IN (${ids.map(() => '?').join(',')}) ORDER BY p.id`,
    [pieceId, ...ids],
  );
  const record = await pieceRecord(db, pieceId);
  const { index, made } = await readers.assess(record);
  const seen = seenOf(index, record, made);
  return rows.map((row): DocumentRecord => {
    const own = claims.filter((c) => c.document_id === row.id).map((c) => c.body);
    return {
      id: row.id,
      version: Number(row.version),
      kind: row.kind,
      title: row.title,
      dated: row.dated,
      author: row.author,
      keptAt: row.kept_at,
      page: row.page,
      transcription: row.transcription,
      claims: own as DocumentRecord['claims'],
      checked: own.map((claim) => ({
        says: claimInWords(claim, seen.featureInWords),
        ...checkClaim(claim, seen),
      })),
      file:
        row.file_hash === null
          ? null
          : {
              name: row.file_name ?? '',
              type: row.file_type ?? '',
              size: Number(row.file_size ?? 0),
              fingerprint: row.file_hash,
            },
      elsewhere: elsewhere
        .filter((e) => e.document_id === row.id)
        .map((e) => ({ id: e.id, stockNumber: e.stock_number, title: e.title })),
      notedBy: row.noted_by,
      notedAt: instant(row.noted_at),
    };
  });
}

const columnsOf = (body: DocumentBody) => [
  body.kind,
  body.title,
  body.dated,
  body.author,
  body.keptAt,
  body.page,
  body.transcription,
];

async function writeClaims(
  tx: Transaction,
  document: string,
  piece: string,
  claims: DocumentBody['claims'],
): Promise<void> {
  await tx.run('DELETE FROM document_claim WHERE document_id = ? AND piece_id = ?', [document, piece]);
  if (claims.length > 0)
    await tx.insertMany('INSERT INTO document_claim (document_id, piece_id, position, body) VALUES ?', [
      ...claims.map((claim, i) => [document, piece, i, JSON.stringify(claim)]),
    ]);
}

/** @throws 422 at the claim that names a feature the reference does not know */
async function checkFeatures(
  readers: Readers,
  tx: Transaction,
  claims: DocumentBody['claims'],
): Promise<void> {
  const index = await readers.library.atHand(tx);
  const unknown = claims.flatMap((claim, i) =>
    claim.kind === 'feature' && !index.features.has(claim.feature)
      ? [{ pointer: `/claims/${i}/feature`, message: 'the reference has no such feature' }]
      : [],
  );
  if (unknown.length > 0) throw invalid(unknown);
}

async function documentOf(db: Queries, piece: string, id: string): Promise<DocumentRow> {
  const row = await db.row<DocumentRow>(
    'SELECT d.* FROM document d JOIN document_piece l ON l.document_id = d.id WHERE d.id = ? AND l.piece_id = ?',
    [id, piece],
  );
  if (!row) throw notFound('document');
  return row;
}

export function mountDocuments(mount: Mount, readers: Readers, store: DocumentStore): void {
  const { database } = mount;
  const tell = async ({
    piece,
    document,
  }: {
    piece: string;
    document: string;
  }): Promise<Answered<DocumentRecord>> => {
    const found = (await documentsOf(database, readers, piece)).find((d) => d.id === document);
    if (!found) throw notFound('document');
    return answer(found, { etag: `"v${found.version}"` });
  };
  /** Also of sold pieces papers may turn up: what is noted of them changes nothing that was sold. */
  const note = (
    tx: Transaction,
    pieceId: string,
    person: Parameters<typeof changePiece>[1]['person'],
    kind: string,
    body: object,
    work: () => Promise<void>,
  ) =>
    changePiece(
      tx,
      { pieceId, person, ifMatch: undefined, anyVersion: true, evenSold: true, kind, body },
      work,
    );

  mount.handle(documentRoutes.documents, async ({ params }) => {
    await pieceRecord(database, params.id);
    return answer({ items: await documentsOf(database, readers, params.id) });
  });

  mount.handlePrepared(
    documentRoutes.addDocument,
    readers.ready,
    async (tx, { params, body, person }) => {
      const document = ulid();
      await checkFeatures(readers, tx, body.claims);
      await note(tx, params.id, person, 'document-noted', { document, ...body }, async () => {
        await tx.run(
          'INSERT INTO document (id, kind, title, dated, author, kept_at, page, transcription, noted_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
          [document, ...columnsOf(body), person.name],
        );
        await tx.run('INSERT INTO document_piece (document_id, piece_id) VALUES (?, ?)', [
          document,
          params.id,
        ]);
        await writeClaims(tx, document, params.id, body.claims);
      });
      return { piece: params.id, document };
    },
    tell,
  );

  mount.handlePrepared(
    documentRoutes.putDocument,
    readers.ready,
    async (tx, { params, body, person, ifMatch }) => {
      await lockPiece(tx, params.id);
      const { version } = await documentOf(tx, params.id, params.document);
      checkVersion(ifMatch, Number(version), 'this document');
      await checkFeatures(readers, tx, body.claims);
      await note(
        tx,
        params.id,
        person,
        'document-changed',
        { document: params.document, ...body },
        async () => {
          await tx.run(
            'UPDATE document SET version = version + 1, kind = ?, title = ?, dated = ?, author = ?, kept_at = ?, page = ?, transcription = ? WHERE id = ?',
            [...columnsOf(body), params.document],
          );
          await writeClaims(tx, params.document, params.id, body.claims);
        },
      );
      return { piece: params.id, document: params.document };
    },
    tell,
  );

  mount.handleInTransaction(
    documentRoutes.linkDocument,
    async (tx, { params, person }) => {
      if (!(await tx.row('SELECT id FROM document WHERE id = ?', [params.document])))
        throw notFound('document');
      await note(tx, params.id, person, 'document-linked', { document: params.document }, async () => {
        await tx.run('INSERT IGNORE INTO document_piece (document_id, piece_id) VALUES (?, ?)', [
          params.document,
          params.id,
        ]);
      });
      return { piece: params.id, document: params.document };
    },
    tell,
  );

  mount.handleInTransaction(documentRoutes.unlinkDocument, async (tx, { params, person }) => {
    await documentOf(tx, params.id, params.document);
    let removed = false;
    await note(tx, params.id, person, 'document-removed', { document: params.document }, async () => {
      for (const table of ['document_claim', 'document_piece'])
        await tx.run(`DELETE FROM ${table} WHERE document_id = ? AND piece_id = ?`, [
          params.document,
          params.id,
        ]);
      if (
        !(await tx.row('SELECT piece_id FROM document_piece WHERE document_id = ? LIMIT 1', [
          params.document,
        ]))
      ) {
        await tx.run('DELETE FROM document WHERE id = ?', [params.document]);
        removed = true;
      }
    });
    return answer({ removed });
  });

  mount.handlePrepared(
    documentRoutes.addFile,
    async ({ params, request, response }) => {
      await documentOf(database, params.id, params.document);
      const uploaded = await uploadedDocument(request, response);
      return { scan: await store.keep(uploaded), name: uploaded.name, print: uploaded.print };
    },
    async (tx, { params, person }, { scan, name }) => {
      await note(
        tx,
        params.id,
        person,
        'document-scanned',
        { document: params.document, ...scan },
        async () => {
          await tx.run(
            'UPDATE document SET version = version + 1, file_hash = ?, file_name = ?, file_type = ?, file_size = ? WHERE id = ?',
            [scan.hash, name.slice(0, 200), scan.type, scan.size, params.document],
          );
        },
      );
      return { piece: params.id, document: params.document };
    },
    tell,
  );

  mount.handle(documentRoutes.file, async ({ params, response }) => {
    const row = await database.row<Pick<DocumentRow, 'file_hash' | 'file_type' | 'file_name'>>(
      'SELECT file_hash, file_type, file_name FROM document WHERE id = ?',
      [params.id],
    );
    const bytes = row?.file_hash == null ? undefined : await store.read(row.file_hash);
    if (!bytes) throw notFound('scan');
    response
      .type(row?.file_type ?? 'application/octet-stream')
      .setHeader(
        'Content-Disposition',
        `inline; filename*=UTF-8''${encodeURIComponent(row?.file_name ?? 'document')}`,
      )
      .send(bytes);
    return undefined;
  });

  mountBodies(mount);
}

function mountBodies(mount: Mount): void {
  const { database } = mount;
  const bodyById = async (db: Queries, id: string): Promise<BodyRecord> => {
    const row = await db.row<BodyRecord>('SELECT id, version, names, note FROM body_names WHERE id = ?', [
      id,
    ]);
    if (!row) throw notFound('body');
    return { ...row, version: Number(row.version) };
  };
  const keep = async (
    tx: Transaction,
    id: string,
    { names, note }: BodyNames,
  ): Promise<Answered<BodyRecord>> => {
    await tx.run(
      'INSERT INTO body_names (id, names, note) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE version = version + 1, names = VALUES(names), note = VALUES(note)',
      [id, JSON.stringify(names), note],
    );
    await raiseRevision(tx, 'trail');
    const body = await bodyById(tx, id);
    return answer(body, { etag: `"v${body.version}"` });
  };
  mount.handle(documentRoutes.bodies, async () => {
    const items = await database.rows<BodyRecord>(
      'SELECT id, version, names, note FROM body_names ORDER BY id',
    );
    return answer({ items: items.map((body) => ({ ...body, version: Number(body.version) })) });
  });
  mount.handleInTransaction(documentRoutes.addBody, (tx, { body }) => keep(tx, ulid(), body));
  mount.handleInTransaction(documentRoutes.putBody, async (tx, { params, body, ifMatch }) => {
    await tx.row('SELECT id FROM body_names WHERE id = ? FOR UPDATE', [params.id]);
    const { version } = await bodyById(tx, params.id);
    checkVersion(ifMatch, version, 'this body');
    return keep(tx, params.id, body);
  });
  mount.handleInTransaction(documentRoutes.removeBody, async (tx, { params }) => {
    await bodyById(tx, params.id);
    await tx.run('DELETE FROM body_names WHERE id = ?', [params.id]);
    await raiseRevision(tx, 'trail');
    return answer({ removed: params.id });
  });
}
