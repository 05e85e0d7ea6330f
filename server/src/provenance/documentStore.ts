/** Scans of documents, kept as they came under the SHA-256 of their bytes; only kinds that a reader can open safely. */
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { bytesOf, HttpProblem, invalid, uploads, type UploadedFile } from '../http/index.ts';

const MOST_BYTES = 25 * (1 << 20);
export const uploadedDocument = uploads(MOST_BYTES, 'the scan of a document');

export interface StoredScan {
  readonly hash: string;
  readonly type: string;
  readonly size: number;
}

const PICTURES: Readonly<Record<string, string>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  tiff: 'image/tiff',
};

/** By what the bytes are, not by what the name says. */
async function typeOf(bytes: Buffer): Promise<string | undefined> {
  if (bytes.subarray(0, 5).toString('latin1') === '%PDF-') return 'application/pdf';
  const format = await sharp(bytes)
    .metadata()
    .then(
      (meta) => meta.format,
      () => undefined,
    );
  const picture = PICTURES[format ?? ''];
  if (picture !== undefined) return picture;
  const text = bytes.toString('utf8');
  // what reads as plain text without control signs is text; a page of markup is refused with everything else
  const plain = !text.includes('\uFFFD') && ![...bytes].some(isControl) && !/^\s*</.test(text);
  return plain ? 'text/plain' : undefined;
}

const [TAB, CARRIAGE_RETURN, BLANK] = [9, 13, 32];
/** Signs that stand in no text but tabs and line ends. */
const isControl = (byte: number): boolean => byte < TAB || (byte > CARRIAGE_RETURN && byte < BLANK);

export class DocumentStore {
  constructor(readonly folder: string) {}

  #path(hash: string): string {
    return join(this.folder, hash.slice(0, 2), `${hash}.document`);
  }

  /** @throws 422 for nothing, 415 for what is neither PDF, picture nor plain text */
  async keep(file: Pick<UploadedFile, 'path' | 'size'>): Promise<StoredScan> {
    if (file.size === 0) throw invalid([{ pointer: '/file', message: 'this file is empty' }]);
    const bytes = await bytesOf(file);
    const type = await typeOf(bytes);
    if (type === undefined)
      throw new HttpProblem(415, 'A document is kept as PDF, JPEG, PNG, WebP, TIFF or plain text.');
    const hash = createHash('sha256').update(bytes).digest('hex');
    const path = this.#path(hash);
    await mkdir(join(path, '..'), { recursive: true });
    const beside = `${path}.${randomUUID()}`;
    const handle = await open(beside, 'w');
    try {
      await handle.writeFile(bytes);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(beside, path);
    return { hash, type, size: bytes.length };
  }

  /** @throws nothing; undefined where it is not there */
  async read(hash: string): Promise<Buffer | undefined> {
    return readFile(this.#path(hash)).catch(() => undefined);
  }
}
