/** Entry of the fitting thread: TypeScript as it is written is read there too, whatever started the server. */
import { register } from 'tsx/esm/api';

register();
await import('./fitWorker.ts');
