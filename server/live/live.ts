import { randomBytes } from 'node:crypto';
import type { RequestHandler, Response } from 'express';

/** A screen that reads nothing is let go before it fills the memory. */
const UNREAD_BYTES = 256 * 1024;

/** Server-sent events that say which query keys are stale, to every open screen. */
export class Live {
  private readonly ends: (() => void)[] = [];
  private readonly run = randomBytes(4).toString('hex');
  private writes = 0;
  private readonly screens = new Map<Response, () => boolean>();
  private readonly beat = setInterval(() => this.send(': still here\n\n'), 25_000);

  /** @param build names the pages that are served, so that one of an older build knows it. */
  constructor(
    private readonly clock: () => Date,
    private readonly build: string | null,
  ) {
    this.beat.unref();
  }

  /** @param welcome whether whoever asked may still listen; asked again before anything is told. */
  handler(welcome: (cookie: string | undefined) => boolean): RequestHandler {
    return (request, response) => {
      const cookie = request.get('cookie');
      response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
      response.flushHeaders();
      const hello = { now: this.clock().toISOString(), build: this.build, write: this.latest() };
      response.write(`event: hello\ndata: ${JSON.stringify(hello)}\n\n`);
      this.screens.set(response, () => welcome(cookie));
      response.on('close', () => this.screens.delete(response));
    };
  }

  /** The name of the last write: what was read before another is stale. */
  latest = () => `${this.run}-${this.writes}`;

  /** @returns the name of this write, so that the screen which made it need not fetch twice. */
  touched(keys: string[]): string {
    this.writes += 1;
    const write = this.latest();
    if (keys.length > 0) this.send(`event: stale\ndata: ${JSON.stringify({ keys, write })}\n\n`);
    return write;
  }

  /** How far a long piece of work is, 0 to 1. */
  progress(job: string, done: number): void {
    this.send(`event: job\ndata: ${JSON.stringify({ job, done })}\n\n`);
  }

  /** What an instrument says now. */
  instrument(now: object): void {
    this.send(`event: instrument\ndata: ${JSON.stringify(now)}\n\n`);
  }

  /** Whether anybody looks. */
  get watched(): boolean {
    return this.screens.size > 0;
  }

  private send(text: string): void {
    for (const [screen, welcome] of this.screens) {
      if (!welcome()) this.letGo(screen, () => screen.end());
      else if (screen.writableLength > UNREAD_BYTES) this.letGo(screen, () => screen.destroy());
      else screen.write(text);
    }
  }

  private letGo(screen: Response, how: () => void): void {
    this.screens.delete(screen);
    how();
  }

  /** What else ends with the application. */
  onClose(end: () => void): void {
    this.ends.push(end);
  }

  close(): void {
    for (const end of this.ends) end();
    clearInterval(this.beat);
    for (const screen of this.screens.keys()) screen.end();
    this.screens.clear();
  }
}
