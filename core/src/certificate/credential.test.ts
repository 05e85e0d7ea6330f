import { describe, expect, test } from '@jest/globals';
import { createHash, createPublicKey, verify } from 'node:crypto';
import canonicalize from 'canonicalize';
import fc from 'fast-check';
import { base58 } from '@scure/base';
import {
  didOf,
  issueCredential,
  newSecretKey,
  publicKeyFrom,
  publicKeyOf,
  verifyCredential,
} from './credential.ts';

const secret = newSecretKey();
const credential = issueCredential(
  {
    id: 'https://hollinquay.example/c/ABCDEF',
    shop: 'Hollin Quay Cutlery',
    issuedAt: '2026-11-02T10:00:00Z',
    subject: { stockNumber: 'HQ-0001', claim: 'This is Harbour jack.', findings: ['Scales: crack, light'] },
  },
  secret,
);

describe('a certificate that signs itself', () => {
  test('is intact as issued, in whatever order its parts stand, also after a journey through text', () => {
    expect(verifyCredential(credential)).toEqual({
      intact: true,
      issuer: didOf(publicKeyFrom(secret)),
      issuedAt: '2026-11-02T10:00:00Z',
    });
    const turned = Object.fromEntries(Object.entries(credential).reverse());
    expect(verifyCredential(JSON.parse(JSON.stringify(turned, null, 4))).intact).toBe(true);
  });
  test('any changed sign of its text is told', () => {
    const text = JSON.stringify(credential);
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.constantFrom('A', '0', 'z', ' '), (at, sign) => {
        const changed = text.slice(0, at) + sign + text.slice(at + 1);
        let file: unknown;
        try {
          file = JSON.parse(changed);
        } catch {
          return;
        }
        // a blank between signs says nothing; what says something else must be found
        if (canonicalize(file as object) === canonicalize(credential as object)) return;
        expect(verifyCredential(file).intact).toBe(false);
      }),
      { numRuns: 400 },
    );
  });
  test('what was added or taken away is told', () => {
    expect(verifyCredential({ ...credential, note: 'and genuine' }).intact).toBe(false);
    const { validFrom: _, ...without } = credential;
    expect(verifyCredential(without).intact).toBe(false);
    const findings = { ...credential.credentialSubject, findings: [] };
    expect(verifyCredential({ ...credential, credentialSubject: findings }).intact).toBe(false);
  });
  test('a stranger who signs in the shop’s name is found: the key is the issuer', () => {
    const other = issueCredential(
      {
        id: credential.id,
        shop: 'Hollin Quay Cutlery',
        issuedAt: credential.validFrom,
        subject: credential.credentialSubject,
      },
      newSecretKey(),
    );
    expect(other.issuer.id).not.toBe(credential.issuer.id);
    expect(verifyCredential({ ...other, issuer: credential.issuer }).intact).toBe(false);
    expect(verifyCredential({ ...credential, proof: other.proof }).intact).toBe(false);
  });
  test.each([
    null,
    7,
    'x',
    [],
    {},
    { proof: {} },
    { ...credential, proof: { ...credential.proof, proofValue: 'z0OIl' } },
  ])('what is no certificate is said to be none, never thrown: %j', (file) =>
    expect(verifyCredential(file)).toMatchObject({ intact: false }),
  );
  test('another program comes to the same: Ed25519 over two SHA-256 of canonical JSON', () => {
    const { proof, ...unsigned } = credential;
    const { proofValue, ...options } = proof;
    const hash = (value: object) =>
      createHash('sha256')
        .update(canonicalize(value) ?? '')
        .digest();
    const signed = Buffer.concat([hash({ '@context': unsigned['@context'], ...options }), hash(unsigned)]);
    const key = createPublicKey({
      key: {
        kty: 'OKP',
        crv: 'Ed25519',
        x: Buffer.from(publicKeyOf(credential.issuer.id) ?? []).toString('base64url'),
      },
      format: 'jwk',
    });
    expect(verify(null, signed, key, base58.decode(proofValue.slice(1)))).toBe(true);
  });
});
