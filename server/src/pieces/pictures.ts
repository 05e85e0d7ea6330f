/** Pictures: checked by content, re-encoded, location removed, stored by the hash of what is kept. */
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { ulid } from 'ulid';
import type { Person } from '@jutbank/contract/shop';
import type { PicturesBody } from '@jutbank/contract/pieces';
import type { Queries, Transaction } from '../db/index.ts';
import type { Frame } from '@jutbank/core/imaging';
import { HttpProblem, invalid, notFound, uploads, type UploadedFile } from '../http/index.ts';
import { changePiece } from './change.ts';
import { framed, type FramedPicture } from './framing.ts';
import type { PieceRecord } from './record.ts';

const LONGEST_SIDE = 2600;
const THUMB_SIDE = 420;
const MOST_PIXELS = 80_000_000;
const ACCEPTED = new Set(['jpeg', 'png', 'webp', 'avif', 'heif', 'gif', 'tiff']);

export interface StoredPicture {
  readonly hash: string;
  readonly width: number;
  readonly height: number;
}

/** The one place that knows where pictures lie. */
export class PictureStore {
  constructor(readonly folder: string) {}

  #path(hash: string, size: 'full' | 'thumb'): string {
    return join(this.folder, hash.slice(0, 2), `${hash}.${size}.webp`);
  }

  /** @throws 415 or 422 when the bytes are not a picture; 507-like conditions surface as 500 with nothing kept */
  async keep({ path, size }: Pick<UploadedFile, 'path' | 'size'>): Promise<StoredPicture> {
    if (size === 0) throw invalid([{ pointer: '/file', message: 'this file is empty' }]);
    const image = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const format = await image.metadata().then(
      (meta) => meta.format,
      () => undefined,
    );
    if (format === undefined || !ACCEPTED.has(format))
      throw new HttpProblem(
        415,
        'This is not a picture Jutbank can read. Use JPEG, PNG, WebP, AVIF, GIF or TIFF.',
      );
    const full = await image
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      // nothing of the camera's own notes is carried over: sharp drops EXIF, GPS included, unless asked to keep it
      .webp({ quality: 84, effort: 2 })
      .toBuffer({ resolveWithObject: true })
      .catch(() => {
        throw invalid([{ pointer: '/file', message: 'this picture is damaged or too large to open' }]);
      });
    const hash = await this.#store(full.data);
    return { hash, width: full.info.width, height: full.info.height };
  }

  /** The picture as it goes out, kept beside the whole one. @returns its hash */
  async keepFramed(picture: FramedPicture & { readonly hash: string }): Promise<string> {
    const whole = await this.read(picture.hash, 'full');
    if (!whole) throw notFound('picture');
    return this.#store(await framed(whole, picture));
  }

  async #store(full: Buffer): Promise<string> {
    const thumb = await sharp(full)
      .resize({ width: THUMB_SIDE, height: THUMB_SIDE, fit: 'inside' })
      .webp({ quality: 78, effort: 2 })
      .toBuffer();
    const hash = createHash('sha256').update(full).digest('hex');
    await this.#write(this.#path(hash, 'full'), full);
    await this.#write(this.#path(hash, 'thumb'), thumb);
    return hash;
  }

  /** Whole or not at all: written beside, flushed, then moved into place. */
  async #write(path: string, bytes: Buffer): Promise<void> {
    await mkdir(join(path, '..'), { recursive: true });
    const beside = `${path}.${randomUUID()}`;
    const file = await open(beside, 'w');
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(beside, path);
  }

  async read(hash: string, size: 'full' | 'thumb'): Promise<Buffer | undefined> {
    return readFile(this.#path(hash, size)).catch(() => undefined);
  }
}

const MOST_BYTES = 30 * (1 << 20);
/** A picture that comes with a request, as it was taken. */
export const uploadedPicture = uploads(MOST_BYTES, 'a picture');

/** Whether a piece shows this very picture already, for whoever sends a heap again after a break. */
export const showsPicture = async (db: Queries, pieceId: string, { hash }: StoredPicture): Promise<boolean> =>
  (await db.row('SELECT id FROM picture WHERE piece_id = ? AND hash = ? AND removed = 0', [
    pieceId,
    hash,
  ])) !== undefined;

/** A stored picture becomes one of a piece. @param ifMatch the version seen; whichever there is, where it is not told */
export const addPicture = (
  tx: Transaction,
  pieceId: string,
  stored: StoredPicture,
  caption: string,
  person: Person,
  ifMatch?: number,
): Promise<PieceRecord> =>
  changePiece(
    tx,
    {
      pieceId,
      person,
      ifMatch,
      anyVersion: ifMatch === undefined,
      kind: 'picture-added',
      body: { ...stored, caption },
    },
    async () => {
      await tx.run(
        'INSERT INTO picture (id, piece_id, hash, caption, width, height) VALUES (?, ?, ?, ?, ?, ?)',
        [ulid(), pieceId, stored.hash, caption, stored.width, stored.height],
      );
    },
  );

interface PictureRow {
  readonly id: string;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  readonly frame: Frame | null;
  readonly mm_per_pixel: number | null;
  readonly shown_hash: string | null;
}

const sameFrame = (a: Frame | null, b: Frame | null): boolean =>
  a === b ||
  (a !== null && b !== null && a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height);

/**
 * The pictures as they are wanted, with those that go out framed: made before the transaction, which only writes rows,
 * and made again only where frame or scale changed.
 * @throws 404 where one of them is not a picture of this piece
 */
export async function framedPictures(
  db: Queries,
  store: PictureStore,
  pieceId: string,
  { pictures }: PicturesBody,
): Promise<readonly (string | null)[]> {
  const rows = await db.rows<PictureRow>(
    'SELECT id, hash, width, height, frame, mm_per_pixel, shown_hash FROM picture WHERE piece_id = ?',
    [pieceId],
  );
  const shown: (string | null)[] = [];
  for (const { id, frame, mmPerPixel } of pictures) {
    const row = rows.find((p) => p.id === id);
    if (!row) throw notFound('picture');
    const unchanged = sameFrame(row.frame, frame) && row.mm_per_pixel === mmPerPixel;
    if (unchanged) shown.push(row.shown_hash);
    else if (frame === null && mmPerPixel === null) shown.push(null);
    else shown.push(await store.keepFramed({ ...row, frame, mmPerPixel }));
  }
  return shown;
}

/** Order, captions and frames as they are wanted; what is left out is taken away and can come back. */
export async function arrangePictures(
  tx: Transaction,
  pieceId: string,
  { pictures }: PicturesBody,
  shown: readonly (string | null)[],
): Promise<void> {
  await tx.run('UPDATE picture SET removed = 1 WHERE piece_id = ?', [pieceId]);
  for (const [i, { id, caption, frame, mmPerPixel }] of pictures.entries())
    await tx.run(
      'UPDATE picture SET removed = 0, position = ?, caption = ?, frame = ?, mm_per_pixel = ?, shown_hash = ? WHERE id = ? AND piece_id = ?',
      [i, caption, frame && JSON.stringify(frame), mmPerPixel, shown[i] ?? null, id, pieceId],
    );
}
