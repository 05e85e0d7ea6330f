/** Files under a passphrase: AES-256-GCM, the key from scrypt (RFC 7914). A file that was changed does not open. */
import { createCipheriv, createDecipheriv, createHash, randomBytes, scryptSync } from 'node:crypto';
import { open } from 'node:fs/promises';
import { Transform } from 'node:stream';

const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * (1 << 20) };
const [IV_BYTES, TAG_BYTES, KEY_BYTES] = [12, 16, 32];
const CIPHER = 'aes-256-gcm';

export interface BackupKey {
  readonly key: Buffer;
  /** told in the clear: which key it is, not what it is */
  readonly id: string;
}

/** @param salt hex, kept beside what is encrypted */
export function keyOf(passphrase: string, salt: string): BackupKey {
  const key = scryptSync(passphrase, Buffer.from(salt, 'hex'), KEY_BYTES, COST);
  return { key, id: createHash('sha256').update(key).digest('hex').slice(0, 12) };
}
export const newSalt = (): string => randomBytes(16).toString('hex');

/** The nonce, what was encrypted, the tag that proves it. */
export function encrypting({ key }: BackupKey): Transform {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(CIPHER, key, iv);
  let begun = false;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      if (!begun) this.push(iv);
      begun = true;
      done(null, cipher.update(chunk));
    },
    flush(done) {
      if (!begun) this.push(iv);
      this.push(cipher.final());
      this.push(cipher.getAuthTag());
      done();
    },
  });
}

/** @throws where the passphrase is another, or the file was changed: at its end, before anything of it is trusted */
export function decrypting({ key }: BackupKey): Transform {
  // what may be the tag is held back until there is more
  let held = Buffer.alloc(0);
  let decipher: ReturnType<typeof createDecipheriv> | undefined;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      held = Buffer.concat([held, chunk]);
      if (!decipher && held.length >= IV_BYTES) {
        decipher = createDecipheriv(CIPHER, key, held.subarray(0, IV_BYTES));
        held = held.subarray(IV_BYTES);
      }
      const ready = decipher ? held.length - TAG_BYTES : 0;
      if (decipher && ready > 0) {
        this.push(decipher.update(held.subarray(0, ready)));
        held = held.subarray(ready);
      }
      done();
    },
    flush(done) {
      try {
        if (!decipher || held.length !== TAG_BYTES) throw new Error('the file is cut off');
        (decipher as unknown as { setAuthTag(tag: Buffer): void }).setAuthTag(held);
        this.push(decipher.final());
        done();
      } catch {
        done(new Error('the file does not open: another passphrase, or it was changed'));
      }
    },
  });
}

/** SHA-256 of a file, read piece by piece. */
export async function printOfFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  const file = await open(path);
  try {
    for await (const chunk of file.createReadStream()) hash.update(chunk as Buffer);
  } finally {
    await file.close();
  }
  return hash.digest('hex');
}
