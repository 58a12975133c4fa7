import { Worker } from 'node:worker_threads';
import { Failure } from '../../core/failure.ts';
import type { MeshWork } from './worker.ts';

/** No mesh question takes this long; one that does is stopped. */
const LONGEST_MS = 120_000;

interface Job {
  id: number;
  name: string | undefined;
  task: MeshWork;
  progress(done: number): void;
  done(result: unknown): void;
  failed(error: Error): void;
}

interface Reply {
  id: number;
  progress?: number;
  result?: unknown;
  failure?: { code: string; message: string; path?: string };
}

/**
 * Mesh work off the server's own thread, one piece at a time, so that a tap at the bench never waits for it. What is
 * cancelled or takes too long loses its thread; a new one is started with the next piece.
 */
export class MeshJobs {
  private worker: Worker | undefined;
  private readonly queue: Job[] = [];
  private running: Job | undefined;
  private timer: NodeJS.Timeout | undefined;
  private count = 0;

  /** @param tell is told how far a named piece of work is. */
  constructor(private readonly tell: (name: string, done: number) => void) {}

  run<T>(task: MeshWork, name?: string): Promise<T> {
    return new Promise<T>((done, failed) => {
      let last = 0;
      const progress = (share: number) => {
        if (name === undefined || (share - last < 0.02 && share < 1)) return;
        last = share;
        this.tell(name, share);
      };
      this.queue.push({ id: ++this.count, name, task, progress, done: done as (result: unknown) => void, failed });
      this.next();
    });
  }

  /** Stops a named piece of work, whether it runs or waits. */
  cancel(name: string): boolean {
    const stopped = new Failure('cancelled', 'Stopped, as you asked. Nothing was kept.');
    const waiting = this.queue.findIndex((job) => job.name === name);
    if (waiting >= 0) {
      this.queue.splice(waiting, 1)[0]?.failed(stopped);
      return true;
    }
    if (this.running?.name !== name) return false;
    this.stop(stopped);
    return true;
  }

  close(): void {
    const closed = new Failure('cancelled', 'The workshop is closing.');
    for (const job of this.queue.splice(0)) job.failed(closed);
    this.stop(closed);
  }

  private stop(why: Error): void {
    const { running, worker } = this;
    clearTimeout(this.timer);
    this.running = undefined;
    this.worker = undefined;
    void worker?.terminate();
    running?.failed(why);
    if (this.queue.length > 0) this.next();
  }

  private start(): Worker {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), { execArgv: [] });
    worker.on('message', (reply: Reply) => {
      if (reply.id !== this.running?.id) return;
      if (reply.progress !== undefined) this.running.progress(reply.progress);
      else this.end(reply);
    });
    worker.on('error', (error) => {
      if (this.worker === worker) this.stop(error instanceof Error ? error : new Error(String(error)));
    });
    return worker;
  }

  private end({ result, failure }: Reply): void {
    const job = this.running as Job;
    clearTimeout(this.timer);
    this.running = undefined;
    // A worker that waits must not keep the program alive.
    this.worker?.unref();
    if (!failure) job.done(result);
    else if (failure.code === 'internal') job.failed(new Error(failure.message));
    else job.failed(new Failure(failure.code, failure.message, failure.path));
    this.next();
  }

  private next(): void {
    if (this.running) return;
    const job = this.queue.shift();
    if (!job) return;
    this.running = job;
    this.worker ??= this.start();
    this.worker.ref();
    this.timer = setTimeout(
      () => this.stop(new Failure('too-large', 'That took longer than two minutes; make the mesh coarser.', 'mesh')),
      LONGEST_MS,
    );
    this.timer.unref();
    this.worker.postMessage({ id: job.id, task: job.task });
  }
}
