import { type ChildProcess, spawn } from 'node:child_process';

export interface Served {
  child: ChildProcess;
  url: string;
  said(): string;
  stop(): Promise<number | null>;
}

/** Starts the workshop by the command that a maker types, on any free port, and waits until it says where it is. */
export function served(command: 'start' | 'demo', ...args: string[]): Promise<Served> {
  const child = spawn(process.execPath, [`scripts/${command}.mjs`, '--port', '0', ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
    // What a shell says must not decide what makers get.
    env: { ...process.env, NODE_ENV: 'development' },
  });
  let text = '';
  const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
  return new Promise((done, failed) => {
    const hear = (part: Buffer) => {
      text += part;
      const url = /Blunko is at (http:\/\/localhost:\d+)/.exec(text)?.[1]?.replace('localhost', '127.0.0.1');
      if (!url || !/Ctrl-C closes/.test(text)) return;
      const stop = () => {
        child.kill('SIGINT');
        return ended;
      };
      done({ child, url, said: () => text, stop });
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    void ended.then((code) => failed(new Error(`It ended with ${code} before it said where it is: ${text}`)));
  });
}
