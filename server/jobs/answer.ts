import { parentPort } from 'node:worker_threads';
import { Failure } from '../../core/failure.ts';

type Progress = (done: number) => void;

/** Answers what a lane asks of this thread, one piece after the other. */
export function answerWith<Task>(work: (task: Task, progress: Progress) => Promise<unknown>): void {
  parentPort?.on('message', async ({ id, task }: { id: number; task: Task }) => {
    try {
      const result = await work(task, (done) => parentPort?.postMessage({ id, progress: done }));
      parentPort?.postMessage({ id, result });
    } catch (error) {
      const failure =
        error instanceof Failure
          ? { code: error.code, message: error.told, path: error.path }
          : { code: 'internal', message: error instanceof Error ? (error.stack ?? error.message) : String(error) };
      parentPort?.postMessage({ id, failure });
    }
  });
}
