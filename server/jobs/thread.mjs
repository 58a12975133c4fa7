// A thread does not inherit the TypeScript loader of the program that starts it; a translated program needs none.
import { workerData } from 'node:worker_threads';

if (workerData.work.endsWith('.ts')) {
  const { register } = await import('tsx/esm/api');
  register();
}
await import(workerData.work);
