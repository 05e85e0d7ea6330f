/**
 * Files that come with a request: one part called `file`, written to the disk as it comes in, no larger than the route
 * allows. It is gone once the request is answered.
 */
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Request, RequestHandler, Response } from 'express';
import multer from 'multer';
import { HttpProblem, invalid } from './problem.ts';

export interface UploadedFile {
  /** where it lies while the request lasts */
  readonly path: string;
  readonly size: number;
  readonly name: string;
  /** the other parts, as text */
  readonly fields: Readonly<Record<string, string>>;
  /** what it is, for an Idempotency-Key */
  readonly print: string;
}

const MOST_FIELDS = 20;
/** The setting of the application that names the folder in which uploads lie. */
export const UPLOADS = 'uploads';
const LEFT_BEHIND_MS = 86_400_000;

export const bytesOf = ({ path }: Pick<UploadedFile, 'path'>): Promise<Buffer> => readFile(path);

/** What a killed server left behind. */
export async function sweepUploads(folder: string): Promise<void> {
  for (const name of await readdir(folder).catch(() => [])) {
    const path = join(folder, name);
    const written = await stat(path).catch(() => undefined);
    if (written && Date.now() - written.mtimeMs > LEFT_BEHIND_MS) await rm(path, { force: true });
  }
}

async function printOf(path: string, beside: string): Promise<string> {
  const hash = createHash('sha256').update(beside);
  for await (const part of createReadStream(path)) hash.update(part as Buffer);
  return hash.digest('hex');
}

/** What multipart parsers throw at broken input is the sender's fault; limits are told by their kind. */
function unreadable(error: unknown): unknown {
  const { code, message } = error as { code?: unknown; message?: string };
  if (typeof code === 'string') return error;
  return new HttpProblem(400, `This upload cannot be read: ${(message ?? 'it is broken').slice(0, 120)}.`);
}

/** Runs a middleware of Express within a route. */
export const through = (handler: RequestHandler, request: Request, response: Response): Promise<void> =>
  new Promise((resolve, reject) => {
    void handler(request, response, (error: unknown) => (error ? reject(error as Error) : resolve()));
  });

/**
 * @param most bytes; a larger file is refused while it comes in
 * @param what the file should be, for the message where there is none: “a picture”
 */
export function uploads(
  most: number,
  what: string,
): (request: Request, response: Response) => Promise<UploadedFile> {
  const upload: RequestHandler = multer({
    storage: multer.diskStorage({
      destination: (request, _file, done) => {
        const folder = request.app.get(UPLOADS) as string;
        mkdir(folder, { recursive: true }).then(
          () => done(null, folder),
          (error: Error) => done(error, folder),
        );
      },
      filename: (_request, _file, done) => done(null, randomUUID()),
    }),
    limits: { fileSize: most, files: 1, fields: MOST_FIELDS },
    defParamCharset: 'utf8',
  }).single('file');
  return async (request, response) => {
    await through(upload, request, response).catch((error: unknown) => {
      throw unreadable(error);
    });
    const { file } = request;
    if (!file) throw invalid([{ pointer: '/file', message: `choose ${what}: the part is called “file”` }]);
    response.once('close', () => void rm(file.path, { force: true }).catch(() => undefined));
    const fields = Object.entries((request.body ?? {}) as Record<string, unknown>).flatMap(([name, value]) =>
      typeof value === 'string' ? [[name, value] as const] : [],
    );
    return {
      path: file.path,
      size: file.size,
      name: file.originalname,
      fields: Object.fromEntries(fields),
      print: await printOf(file.path, JSON.stringify([file.originalname, fields])),
    };
  };
}
