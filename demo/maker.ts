import pino from 'pino';
import { open } from '../server/listen.ts';

/** Works the workshop through its own HTTP, at a time of its choosing. */
export class DemoMaker {
  now = new Date();
  private constructor(
    private readonly url: string,
    private readonly shut: () => Promise<void>,
  ) {}

  static async at(root: string): Promise<DemoMaker> {
    let maker: DemoMaker | undefined;
    const clock = () => maker?.now ?? new Date();
    const opened = await open({ root, clock, log: pino({ level: 'error' }), port: 0 });
    // The demo is thrown away; only here may a power cut cost something.
    opened.data.db.pragma('synchronous = OFF');
    const shut = async () => {
      opened.data.db.pragma('wal_checkpoint(TRUNCATE)');
      await opened.close();
    };
    maker = new DemoMaker(`${opened.url}/api`, shut);
    return maker;
  }

  async call<T>(method: string, path: string, body?: unknown, version?: number): Promise<T> {
    const headers: Record<string, string> = { 'content-type': 'application/json' };
    if (version !== undefined) headers['if-match'] = String(version);
    const response = await fetch(this.url + path, {
      method,
      headers,
      body: body === undefined ? null : JSON.stringify(body),
    });
    const answer = (await response.json()) as T;
    if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)} for ${JSON.stringify(body)}`);
    return answer;
  }

  get = <T>(path: string) => this.call<T>('GET', path);
  post = <T>(path: string, body: unknown) => this.call<T>('POST', path, body);

  waits(minutes: number): void {
    this.now = new Date(this.now.getTime() + minutes * 60_000);
  }

  close = () => this.shut();
}
