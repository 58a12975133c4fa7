import { Worker } from 'node:worker_threads';
import { Failure, type RefusalCode } from '../../core/failure.ts';

interface Job<Task> {
  id: number;
  name: string | undefined;
  task: Task;
  progress(done: number): void;
  done(result: unknown): void;
  failed(error: Error): void;
}

/** What a thread answers. */
export interface Reply {
  id: number;
  progress?: number;
  result?: unknown;
  failure?: { code: RefusalCode; message: string; path?: string | undefined };
}

export interface LaneOptions {
  /** The module that does the work, beside this one. */
  work: './calcWork.ts' | './archiveWork.ts';
  /** Work that takes longer is stopped. */
  longestMs: number;
  /** What its sender is told then. */
  tooLong: string;
  /** Is told how far a named piece of work is. */
  tell?(name: string, done: number): void;
}

export interface Asking {
  /** Name by which it can be cancelled, and under which it tells how far it is. */
  name?: string | undefined;
  /** Ends the work when whoever asked has left. */
  signal?: AbortSignal | undefined;
}

/**
 * Work off the server's own thread, one piece at a time, so that a tap at the bench never waits for it. What is
 * cancelled or takes too long loses its thread; a new one is started with the next piece.
 */
export class Lane<Task> {
  private worker: Worker | undefined;
  private readonly queue: Job<Task>[] = [];
  private running: Job<Task> | undefined;
  private timer: NodeJS.Timeout | undefined;
  private count = 0;

  constructor(private readonly options: LaneOptions) {}

  run<T>(task: Task, { name, signal }: Asking = {}): Promise<T> {
    return new Promise<T>((done, failed) => {
      const id = ++this.count;
      const left = () => this.drop((job) => job.id === id, new Failure('cancelled', 'Whoever asked has left.'));
      if (signal?.aborted) return failed(new Failure('cancelled', 'Whoever asked has left.'));
      signal?.addEventListener('abort', left, { once: true });
      const settled = <V>(tell: (value: V) => void) => {
        return (value: V) => {
          signal?.removeEventListener('abort', left);
          tell(value);
        };
      };
      let last = 0;
      const progress = (share: number) => {
        if (name === undefined || (share - last < 0.02 && share < 1)) return;
        last = share;
        this.options.tell?.(name, share);
      };
      this.queue.push({
        id,
        name,
        task,
        progress,
        done: settled(done as (v: unknown) => void),
        failed: settled(failed),
      });
      this.next();
    });
  }

  /** Stops a named piece of work, whether it runs or waits. */
  cancel(name: string): boolean {
    return this.drop((job) => job.name === name, new Failure('cancelled', 'Stopped, as you asked. Nothing was kept.'));
  }

  close(): void {
    const closed = new Failure('cancelled', 'The workshop is closing.');
    for (const job of this.queue.splice(0)) job.failed(closed);
    this.stop(closed);
  }

  private drop(which: (job: Job<Task>) => boolean, why: Failure): boolean {
    const waiting = this.queue.findIndex(which);
    if (waiting >= 0) {
      this.queue.splice(waiting, 1)[0]?.failed(why);
      return true;
    }
    if (!this.running || !which(this.running)) return false;
    this.stop(why);
    return true;
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
    const here = import.meta.url;
    const work = new URL(this.options.work.replace(/ts$/, here.endsWith('.ts') ? 'ts' : 'js'), here).href;
    const worker = new Worker(new URL('./thread.mjs', here), { execArgv: [], workerData: { work } });
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
    const job = this.running as Job<Task>;
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
    this.timer = setTimeout(() => this.stop(new Failure('too-large', this.options.tooLong)), this.options.longestMs);
    this.timer.unref();
    this.worker.postMessage({ id: job.id, task: job.task });
  }
}
