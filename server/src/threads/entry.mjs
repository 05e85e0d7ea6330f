/** Entry of every thread: TypeScript as it is written is read there too, whatever started the server. */
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.module);
