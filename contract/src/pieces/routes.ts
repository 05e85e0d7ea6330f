/** Pieces: the tray, the list, the sheet, pictures. */
import { companionsBody, picturesBody, pieceSheet, tray, pieceSlip } from './sheet.ts';
import { pageShape, answers, byId, pageQuery, route, ulid } from '../http/index.ts';
import { z } from 'zod';

const sheet = answers(pieceSheet, 'The piece sheet');
/** What the routes that change a piece have in common: the room they belong to, which piece, and its sheet as the answer. */
export const ofPiece = (room: string) => ({ room, params: byId, answer: sheet }) as const;

export const pieceRoutes = {
  tray: route({
    method: 'get',
    path: '/tray',
    room: 'pieces',
    access: 'read',
    summary: 'What is in work, grouped by where it stands',
    answer: answers(tray, 'The tray'),
  }),
  listPieces: route({
    method: 'get',
    path: '/pieces',
    room: 'pieces',
    access: 'read',
    summary: 'Pieces, newest first',
    query: pageQuery.extend({ stage: z.string().max(20).optional(), q: z.string().max(100).optional() }),
    answer: answers(pageShape(pieceSlip), 'A page of slips'),
  }),
  piece: route({
    ...ofPiece('pieces'),
    method: 'get',
    path: '/pieces/:id',
    access: 'read',
    summary: 'One piece with its readings',
  }),
  addPicture: route({
    ...ofPiece('pieces'),
    method: 'post',
    path: '/pieces/:id/pictures',
    access: 'work',
    summary:
      'Add a picture (multipart part `file`, field `caption`; with `unlessShown` 1, only if the piece does not show it yet)',
    carries: 'upload',
    status: 201,
  }),
  putPictures: route({
    ...ofPiece('pieces'),
    method: 'put',
    path: '/pieces/:id/pictures',
    access: 'work',
    summary: 'Order, captions, frames and scales of its pictures; what is left out is taken away',
    body: picturesBody,
  }),
  putCompanions: route({
    ...ofPiece('pieces'),
    method: 'put',
    path: '/pieces/:id/companions',
    access: 'work',
    summary: 'The pieces that came with it and belong to it, all of them; said of both',
    body: companionsBody,
  }),
  removePicture: route({
    ...ofPiece('pieces'),
    method: 'delete',
    path: '/pieces/:id/pictures/:picture',
    params: z.object({ id: ulid, picture: ulid }),
    access: 'work',
    summary: 'Take a picture away',
  }),
  labels: route({
    method: 'get',
    path: '/labels.pdf',
    room: 'pieces',
    access: 'read',
    summary: 'Labels for drawers, for a label printer (62 × 29 mm) or on A4 sheets',
    query: z.object({
      /** ids, with commas between */
      pieces: z
        .string()
        .transform((text) => text.split(','))
        .pipe(z.array(ulid).min(1).max(270, 'at most 270 labels at once')),
      on: z.enum(['roll', 'sheet']).default('sheet'),
      price: z.enum(['0', '1']).default('0'),
    }),
    carries: 'file',
  }),
  picture: route({
    method: 'get',
    path: '/pictures/:hash/:size',
    room: 'pieces',
    access: 'read',
    summary: 'A stored picture',
    params: z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/), size: z.enum(['full', 'thumb']) }),
    carries: 'file',
  }),
};
