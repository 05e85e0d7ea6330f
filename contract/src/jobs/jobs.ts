/** Long tasks. */
import { answers, byId, route } from '../http/index.ts';

export interface JobAnswer {
  id: string;
  state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  progress: number;
  result: unknown;
}

export const jobRoutes = {
  job: route({
    method: 'get',
    path: '/jobs/:id',
    room: 'jobs',
    access: 'read',
    summary: 'How far a long task is',
    params: byId,
    answer: answers<JobAnswer>('State and progress'),
  }),
  cancelJob: route({
    method: 'delete',
    path: '/jobs/:id',
    room: 'jobs',
    access: 'work',
    summary: 'Cancel a long task',
    params: byId,
    answer: answers<JobAnswer>('State and progress'),
  }),
};
