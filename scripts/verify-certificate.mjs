/**
 * Checks a certificate file without the shop and without Jutbank: node scripts/verify-certificate.mjs FILE
 * Ed25519 over SHA-256 of canonical JSON (RFC 8785), by what Node itself brings; see docs/formats.md, "Certificate".
 */
import { Buffer } from 'node:buffer';
import { createHash, createPublicKey, verify } from 'node:crypto';
import { readFileSync } from 'node:fs';

/**
 * RFC 8785: names sorted by UTF-16 code units, numbers and strings as JSON.stringify writes them.
 * @type {(value: any) => string}
 */
const canonical = (value) =>
  value === null || typeof value !== 'object'
    ? JSON.stringify(value)
    : Array.isArray(value)
      ? `[${value.map(canonical).join(',')}]`
      : `{${Object.keys(value)
          .sort()
          .map((name) => `${JSON.stringify(name)}:${canonical(value[name])}`)
          .join(',')}}`;

const SIGNS = '123456789ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnopqrstuvwxyz';
/** @param {string} text */
function base58(text) {
  let number = 0n;
  for (const sign of text) {
    const value = SIGNS.indexOf(sign);
    if (value < 0) throw new Error('not base58');
    number = number * 58n + BigInt(value);
  }
  const hex = number.toString(16);
  const leading = text.length - text.replace(/^1+/, '').length;
  return Buffer.concat([Buffer.alloc(leading), Buffer.from(hex.length % 2 ? `0${hex}` : hex, 'hex')]);
}

/** @param {any} file */
function check(file) {
  const { proof, ...unsigned } = file;
  const { proofValue, ...options } = proof;
  const did = unsigned.issuer.id;
  if (options.cryptosuite !== 'eddsa-jcs-2022' || options.verificationMethod !== `${did}#${did.slice(8)}`)
    return false;
  const key = base58(did.slice('did:key:z'.length));
  if (key.length !== 34 || key[0] !== 0xed || key[1] !== 1) return false;
  const hash = (/** @type {unknown} */ value) => createHash('sha256').update(canonical(value)).digest();
  const signed = Buffer.concat([hash({ '@context': unsigned['@context'], ...options }), hash(unsigned)]);
  const publicKey = createPublicKey({
    key: { kty: 'OKP', crv: 'Ed25519', x: key.subarray(2).toString('base64url') },
    format: 'jwk',
  });
  return verify(null, signed, publicKey, base58(proofValue.slice(1)));
}

let intact = false;
let file;
try {
  file = JSON.parse(readFileSync(process.argv[2] ?? '', 'utf8'));
  intact = check(file);
} catch {
  // told below
}
console.log(
  intact
    ? `As it was issued: ${file.credentialSubject.stockNumber}, ${file.validFrom}, by ${file.issuer.name} (${file.issuer.id}).\nWhether it was withdrawn since, its check page tells: ${file.id}`
    : 'Not a certificate as it was issued: something in it was changed, or it is none.',
);
process.exitCode = intact ? 0 : 1;
