/** Pieces: intake, pictures, the tray and the sheet. */
import { z } from 'zod';
import { route } from '../http/index.ts';
import { intakeBody, ofPiece } from '../pieces/index.ts';

export * from './lots.ts';

export const intakeRoutes = {
  createPiece: route({
    ...ofPiece('intake'),
    method: 'post',
    path: '/pieces',
    params: z.object({}),
    access: 'work',
    summary: 'Take in a piece',
    body: intakeBody,
    status: 201,
  }),
  putIntake: route({
    ...ofPiece('intake'),
    method: 'put',
    path: '/pieces/:id/intake',
    access: 'work',
    summary: 'Change what was recorded at intake',
    body: intakeBody,
  }),
};
