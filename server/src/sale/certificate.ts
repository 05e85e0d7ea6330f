/** What a certificate says, frozen on the day of the sale; the key the shop signs with; and how it is checked since. */
import { randomInt } from 'node:crypto';
import { drawAsFound, recipeIn, type Drawing } from '@jutbank/core/drawing';
import { inFrame, pixelsOf } from '@jutbank/core/imaging';
import { findingInWords } from '@jutbank/core/condition';
import { didOf, issueCredential, newSecretKey, publicKeyFrom } from '@jutbank/core/certificate';
import type { StatementKind } from '@jutbank/core/pieces';
import { claimFor, type ListingFacts } from '@jutbank/core/listing';
import type { PublicCertificate } from '@jutbank/contract/sale';
import type { Queries, Transaction } from '../db/index.ts';
import { canonical, entryIntact, sha256 } from '../ledger/index.ts';
import type { Assessment, PieceRecord } from '../pieces/index.ts';
import type { StoredSale } from './queries.ts';

export type Snapshot = Omit<
  PublicCertificate,
  'fingerprint' | 'intact' | 'code' | 'issuedAt' | 'withdrawn' | 'signed' | 'issuer'
>;

const CODE_SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const CODE_LENGTH = 12;
export const newCode = () =>
  Array.from({ length: CODE_LENGTH }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('');

/** What is public of the piece. Private owners are named by town only, and nobody by what was paid. */
export function snapshotOf(record: PieceRecord, facts: ListingFacts, shop: string): Snapshot {
  const of = (kind: StatementKind) => facts.statements.filter((s) => s.kind === kind).map((s) => s.text);
  return {
    shop,
    stockNumber: record.stockNumber,
    title: record.intake.title,
    claim: claimFor(facts),
    made: facts.made ?? null,
    grade: facts.gradeLine?.replace(/^Condition: /, '') ?? null,
    inspected: facts.extent !== 'none',
    whole: facts.extent === 'whole',
    faultless: facts.extent === 'whole' && of('finding').length === 0,
    findings: facts.statements
      .filter((s) => s.disclose && s.kind !== 'not-examined' && s.kind !== 'not-excluded')
      .map((s) => s.text),
    provenance: facts.provenance ?? null,
    notProvedBecause: of('not-excluded'),
    examiner: record.attribution?.decidedBy ?? '',
    measures: of('measure'),
    marks: of('mark'),
    features: of('feature'),
    notExamined: of('not-examined'),
    pictures: record.pictures.map((picture) => {
      const { id, caption, frame } = picture;
      const { width, height } = pixelsOf(picture, frame);
      const pins = record.findings.flatMap((f) =>
        f.pin?.picture === id
          ? (inFrame({ x: f.pin.x, y: f.pin.y, says: findingInWords(f) }, frame) ?? [])
          : [],
      );
      return { hash: picture.shown, caption, width, height, ...(pins.length > 0 ? { pins } : {}) };
    }),
  };
}

/** The piece as it stands, drawn for a certificate that has no photograph of it; the paper stays as it was issued. */
export const drawnFor = (record: PieceRecord, { index }: Assessment): Drawing | null =>
  record.pictures.length > 0
    ? null
    : drawAsFound(
        recipeIn(index, { construction: record.intake.construction, ...record.attribution }),
        record.findings,
        'open',
      );

export const fingerprintOf = (snapshot: Snapshot): string => sha256(canonical(snapshot));

/** The shop's own key; made when it is first needed, and the same for ever after. */
export async function signingKey(tx: Transaction): Promise<Uint8Array> {
  const kept = await tx.row<{ secret_key: Buffer }>('SELECT secret_key FROM signing_key WHERE id = 1');
  if (kept) return new Uint8Array(kept.secret_key);
  const secret = newSecretKey();
  // of two who need it at once, one makes it
  await tx.run('INSERT IGNORE INTO signing_key (id, public_key, secret_key) VALUES (1, ?, ?)', [
    Buffer.from(publicKeyFrom(secret)),
    Buffer.from(secret),
  ]);
  const row = await tx.row<{ secret_key: Buffer }>(
    'SELECT secret_key FROM signing_key WHERE id = 1 FOR UPDATE',
  );
  if (!row) throw new Error('the signing key was not kept');
  return new Uint8Array(row.secret_key);
}

async function issuerOf(db: Queries): Promise<string | null> {
  const row = await db.row<{ public_key: Buffer }>('SELECT public_key FROM signing_key WHERE id = 1');
  return row ? didOf(new Uint8Array(row.public_key)) : null;
}

/** The file that anybody can check without the shop. @param address of the check page */
export const signedFile = (
  snapshot: Snapshot,
  code: string,
  address: string,
  issuedAt: string,
  secret: Uint8Array,
): string =>
  JSON.stringify(
    issueCredential({ id: address, shop: snapshot.shop, issuedAt, subject: { ...snapshot, code } }, secret),
    null,
    2,
  );

/** As issued; whether the record still has the hash it was given; and whether it was taken back. */
export async function certificateOf(db: Queries, sale: StoredSale): Promise<PublicCertificate> {
  const snapshot = JSON.parse(sale.certificate) as Snapshot;
  const { hash, intact, body } = await entryIntact(db, sale.ledgerSeq);
  // entries from before the certificate's own hash stood in them vouch for the sale alone
  const told = body?.['certificate'];
  return {
    ...snapshot,
    code: sale.certificateCode,
    issuedAt: sale.soldAt,
    fingerprint: hash,
    intact: intact && (told === undefined || told === fingerprintOf(snapshot)),
    withdrawn: sale.withdrawn,
    signed: sale.credential !== null,
    issuer: sale.credential === null ? null : await issuerOf(db),
  };
}
