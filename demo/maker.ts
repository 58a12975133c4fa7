import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pino from 'pino';
import { createApp } from '../server/app.ts';
import { DataFolder } from '../server/backup/data.ts';

/** Works the workshop through its own HTTP, at a time of its choosing. */
export class DemoMaker {
  now = new Date();
  private constructor(
    private readonly url: string,
    private readonly shut: () => Promise<void>,
  ) {}

  static async at(root: string): Promise<DemoMaker> {
    const data = new DataFolder(root);
    // The demo is thrown away; only here may a power cut cost something.
    data.db.pragma('synchronous = OFF');
    let maker: DemoMaker | undefined;
    const { app, live } = createApp({ data, clock: () => maker?.now ?? new Date(), log: pino({ level: 'error' }) });
    const server = createServer(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const shut = async () => {
      live.close();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      data.db.pragma('wal_checkpoint(TRUNCATE)');
      data.close();
    };
    maker = new DemoMaker(`http://127.0.0.1:${(server.address() as AddressInfo).port}/api`, shut);
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
