import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { test as base, expect, type Page } from '@playwright/test';
import pino from 'pino';
import { createApp } from '../server/app.ts';
import { DataFolder } from '../server/backup/data.ts';

/** A workshop of its own for one journey, on a real file, with a clock that can be put forward. */
export class World {
  private skipMs = 0;
  private constructor(
    readonly data: DataFolder,
    readonly url: string,
    private readonly shut: () => Promise<void>,
    private readonly aheadOf: { ms: number },
  ) {}

  static async open(): Promise<World> {
    const root = mkdtempSync(join(tmpdir(), 'blunko-e2e-'));
    const data = new DataFolder(root);
    const ahead = { ms: 0 };
    const pages = fileURLToPath(new URL('../dist', import.meta.url));
    const { app, live } = createApp({
      data,
      clock: () => new Date(Date.now() + ahead.ms),
      log: pino({ level: 'error' }),
      pages,
    });
    const server = createServer(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const shut = async () => {
      live.close();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      data.close();
      rmSync(root, { recursive: true, force: true });
    };
    return new World(data, `http://127.0.0.1:${(server.address() as AddressInfo).port}`, shut, ahead);
  }

  /** Lets time pass for the workshop; screens learn of it when they are loaded again. */
  passes(hours: number): void {
    this.skipMs += hours * 3600_000;
    this.aheadOf.ms = this.skipMs;
  }

  close = () => this.shut();
}

interface Fixtures {
  world: World;
  /** Fails the journey on any script error or refused resource. */
  page: Page;
}

export const test = base.extend<Fixtures>({
  // biome-ignore lint/correctness/noEmptyPattern: the runner reads the fixtures' names from this pattern
  world: async ({}, use) => {
    const world = await World.open();
    await use(world);
    await world.close();
  },
  baseURL: async ({ world }, use) => use(world.url),
  page: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/^Failed to load resource/.test(message.text())) faults.push(message.text());
    });
    await use(page);
    expect(faults).toEqual([]);
  },
});

export { expect };

/** The first visit, answered. */
export async function enter(page: Page, units: 'Metric' | 'US' = 'Metric'): Promise<void> {
  await page.goto('/');
  await page.getByRole('radio', { name: units }).click();
  await page.getByLabel('Your name at the bench').fill('Mara');
  await page.getByRole('button', { name: /^Start with/ }).click();
  await page.getByRole('navigation', { name: 'The line' }).waitFor();
}
