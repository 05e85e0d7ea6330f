/** Files that come with a request: one part called `file`, held in memory, no larger than the route allows. */
import { createHash } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import multer from 'multer';
import { HttpProblem, invalid } from './problem.ts';

export interface UploadedFile {
  readonly bytes: Buffer;
  readonly name: string;
  /** the other parts, as text */
  readonly fields: Readonly<Record<string, string>>;
  /** what it is, for an Idempotency-Key */
  readonly print: string;
}

const MOST_FIELDS = 20;

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
    storage: multer.memoryStorage(),
    limits: { fileSize: most, files: 1, fields: MOST_FIELDS },
    defParamCharset: 'utf8',
  }).single('file');
  return async (request, response) => {
    await through(upload, request, response).catch((error: unknown) => {
      throw unreadable(error);
    });
    if (!request.file)
      throw invalid([{ pointer: '/file', message: `choose ${what}: the part is called “file”` }]);
    const fields = Object.entries((request.body ?? {}) as Record<string, unknown>).flatMap(([name, value]) =>
      typeof value === 'string' ? [[name, value] as const] : [],
    );
    return {
      bytes: request.file.buffer,
      name: request.file.originalname,
      fields: Object.fromEntries(fields),
      print: createHash('sha256')
        .update(JSON.stringify([request.file.originalname, fields]))
        .update(request.file.buffer)
        .digest('hex'),
    };
  };
}
