import type { RequestHandler, Response } from 'express';

/** Server-sent events that say which query keys are stale, to every open screen. */
export class Live {
  private readonly ends: (() => void)[] = [];
  private readonly screens = new Set<Response>();
  private readonly beat = setInterval(() => this.send(': still here\n\n'), 25_000);

  constructor(private readonly clock: () => Date) {
    this.beat.unref();
  }

  readonly handler: RequestHandler = (_request, response) => {
    response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
    response.flushHeaders();
    response.write(`event: hello\ndata: ${JSON.stringify({ now: this.clock().toISOString() })}\n\n`);
    this.screens.add(response);
    response.on('close', () => this.screens.delete(response));
  };

  touched(keys: string[]): void {
    if (keys.length > 0) this.send(`event: stale\ndata: ${JSON.stringify({ keys })}\n\n`);
  }

  /** How far a long piece of work is, 0 to 1. */
  progress(job: string, done: number): void {
    this.send(`event: job\ndata: ${JSON.stringify({ job, done })}\n\n`);
  }

  private send(text: string): void {
    for (const screen of this.screens) screen.write(text);
  }

  /** What else ends with the application. */
  onClose(end: () => void): void {
    this.ends.push(end);
  }

  close(): void {
    for (const end of this.ends) end();
    clearInterval(this.beat);
    for (const screen of this.screens) screen.end();
    this.screens.clear();
  }
}
