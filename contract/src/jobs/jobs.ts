/** Long tasks. */
import { z } from 'zod';
import { answers, byId, route } from '../http/index.ts';

export const jobAnswer = z
  .object({
    id: z.string(),
    state: z.enum(['queued', 'running', 'done', 'failed', 'cancelled']),
    progress: z.number(),
    result: z.unknown(),
  })
  .meta({ id: 'JobAnswer' });
export type JobAnswer = z.infer<typeof jobAnswer>;

export const jobRoutes = {
  job: route({
    method: 'get',
    path: '/jobs/:id',
    room: 'jobs',
    access: 'read',
    summary: 'How far a long task is',
    params: byId,
    answer: answers(jobAnswer, 'State and progress'),
  }),
  cancelJob: route({
    method: 'delete',
    path: '/jobs/:id',
    room: 'jobs',
    access: 'work',
    summary: 'Cancel a long task',
    params: byId,
    answer: answers(jobAnswer, 'State and progress'),
  }),
};
