import { type Remote, wrap } from 'comlink';

/** A worker for one question, gone when it has answered. One that cannot be loaded says nothing through its port: that is an error too. */
export async function askOnce<Api, T>(make: () => Worker, ask: (api: Remote<Api>) => Promise<T>): Promise<T> {
  const worker = make();
  try {
    return await Promise.race([
      ask(wrap<Api>(worker)),
      new Promise<never>((_, failed) => {
        worker.addEventListener('error', (event) =>
          failed(new Error(event.message || 'A part of the program did not load.')),
        );
      }),
    ]);
  } finally {
    worker.terminate();
  }
}
