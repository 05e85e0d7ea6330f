/**
 * A certificate as a W3C Verifiable Credential 2.0 with a Data Integrity proof (cryptosuite `eddsa-jcs-2022`): JSON in
 * its canonical form (RFC 8785), hashed with SHA-256, signed with Ed25519. The issuer is a `did:key`, which holds the
 * public key itself, so that anybody can check the file without asking the shop.
 */
import { ed25519 } from '@noble/curves/ed25519.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { base58 } from '@scure/base';
import canonicalize from 'canonicalize';

export interface Proof {
  readonly type: 'DataIntegrityProof';
  readonly cryptosuite: 'eddsa-jcs-2022';
  readonly created: string;
  readonly verificationMethod: string;
  readonly proofPurpose: 'assertionMethod';
  readonly proofValue: string;
}
export interface Credential {
  readonly '@context': readonly unknown[];
  readonly id: string;
  readonly type: readonly string[];
  readonly issuer: { readonly id: string; readonly name: string };
  readonly validFrom: string;
  readonly credentialSubject: Readonly<Record<string, unknown>>;
  readonly proof: Proof;
}

const CONTEXT = [
  'https://www.w3.org/ns/credentials/v2',
  // terms of our own that the context above does not name
  { '@vocab': 'urn:jutbank:certificate:1#' },
] as const;

/** Multicodec prefix of an Ed25519 public key. */
const ED25519_PUBLIC = Uint8Array.of(0xed, 0x01);
const multibase = (bytes: Uint8Array) => `z${base58.encode(bytes)}`;
const joined = (a: Uint8Array, b: Uint8Array) => Uint8Array.of(...a, ...b);

/** @param publicKey 32 bytes */
export const didOf = (publicKey: Uint8Array): string =>
  `did:key:${multibase(joined(ED25519_PUBLIC, publicKey))}`;

/** The public key that a did:key is. @returns undefined where it is none of Ed25519 */
export function publicKeyOf(did: string): Uint8Array | undefined {
  const encoded = /^did:key:z([1-9A-HJ-NP-Za-km-z]+)$/.exec(did)?.[1];
  if (encoded === undefined || encoded.length > 100) return undefined;
  const bytes = base58.decode(encoded);
  return bytes.length === 34 && bytes[0] === 0xed && bytes[1] === 0x01 ? bytes.slice(2) : undefined;
}

export const newSecretKey = (): Uint8Array => ed25519.utils.randomSecretKey();
export const publicKeyFrom = (secretKey: Uint8Array): Uint8Array => ed25519.getPublicKey(secretKey);

export interface ToIssue {
  /** where it can be looked at: the public check page */
  readonly id: string;
  readonly shop: string;
  /** an instant, ISO 8601 */
  readonly issuedAt: string;
  readonly subject: Readonly<Record<string, unknown>>;
}

export function issueCredential(told: ToIssue, secretKey: Uint8Array): Credential {
  const did = didOf(publicKeyFrom(secretKey));
  const unsigned = {
    '@context': CONTEXT,
    id: told.id,
    type: ['VerifiableCredential', 'ExaminationCertificate'],
    issuer: { id: did, name: told.shop },
    validFrom: told.issuedAt,
    credentialSubject: told.subject,
  };
  const options = {
    type: 'DataIntegrityProof',
    cryptosuite: 'eddsa-jcs-2022',
    created: told.issuedAt,
    verificationMethod: `${did}#${did.slice('did:key:'.length)}`,
    proofPurpose: 'assertionMethod',
  } as const;
  const signature = ed25519.sign(signedBytes(unsigned, options), secretKey);
  return { ...unsigned, proof: { ...options, proofValue: multibase(signature) } };
}

/** What is signed: the hash of the proof's options, then the hash of the document (Data Integrity EdDSA, 3.3). */
function signedBytes(unsigned: { readonly '@context': readonly unknown[] }, options: object): Uint8Array {
  const hash = (value: object) => sha256(new TextEncoder().encode(canonicalize(value) ?? ''));
  return joined(hash({ '@context': unsigned['@context'], ...options }), hash(unsigned));
}

export type Verdict =
  | { readonly intact: true; readonly issuer: string; readonly issuedAt: string }
  | { readonly intact: false; readonly why: string };

/**
 * Whether a credential is as it was issued by the key it names. Whose key that is, and whether the certificate was
 * withdrawn since, only the shop's check page can tell.
 * @param file anything: what is no credential is told as such, never thrown
 */
export function verifyCredential(file: unknown): Verdict {
  const no = (why: string): Verdict => ({ intact: false, why });
  if (!isRecord(file) || !isRecord(file.proof)) return no('This is not a signed certificate.');
  const { proof, ...unsigned } = file;
  const { proofValue, ...options } = proof;
  if (options.type !== 'DataIntegrityProof' || options.cryptosuite !== 'eddsa-jcs-2022')
    return no('It is signed in a way that is not known here.');
  if (options.proofPurpose !== 'assertionMethod') return no('Its signature was made for something else.');
  const issuer = isRecord(unsigned.issuer) ? unsigned.issuer.id : unsigned.issuer;
  const method = options.verificationMethod;
  if (
    typeof issuer !== 'string' ||
    typeof method !== 'string' ||
    method !== `${issuer}#${issuer.slice('did:key:'.length)}`
  )
    return no('It is not signed by the issuer it names.');
  try {
    const key = publicKeyOf(issuer);
    if (!key || typeof proofValue !== 'string' || !proofValue.startsWith('z'))
      return no('Its key cannot be read.');
    const context = Array.isArray(unsigned['@context']) ? (unsigned['@context'] as unknown[]) : [];
    const bytes = signedBytes({ ...unsigned, '@context': context }, options);
    const issuedAt = typeof unsigned.validFrom === 'string' ? unsigned.validFrom : '';
    return ed25519.verify(base58.decode(proofValue.slice(1)), bytes, key)
      ? { intact: true, issuer, issuedAt }
      : no('It is not as it was issued: something in it was changed.');
  } catch {
    return no('Its signature cannot be read.');
  }
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
