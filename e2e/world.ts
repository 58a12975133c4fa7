import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { test as base, expect, type Page } from '@playwright/test';
import pino from 'pino';
import { type Opened, open } from '../server/listen.ts';

/** A workshop of its own for one journey, on a real file and the pages that makers get, with a clock that can be put forward. */
export class World {
  private skipMs = 0;
  private opened: Opened | undefined;

  static async open(): Promise<World> {
    const world = new World();
    world.opened = await open({
      root: mkdtempSync(join(tmpdir(), 'blunko-e2e-')),
      clock: () => new Date(Date.now() + world.skipMs),
      log: pino({ level: 'error' }),
      port: 0,
      pages: fileURLToPath(new URL('../dist', import.meta.url)),
    });
    return world;
  }

  private get there(): Opened {
    if (!this.opened) throw new Error('The workshop is not open.');
    return this.opened;
  }

  get data(): Opened['data'] {
    return this.there.data;
  }

  get url(): string {
    return this.there.url;
  }

  /** Lets time pass for the workshop; screens learn of it when they are loaded again. */
  passes(hours: number): void {
    this.skipMs += hours * 3600_000;
  }

  async close(): Promise<void> {
    await this.there.close();
    rmSync(this.data.root, { recursive: true, force: true });
  }
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

/** Goes to another place of a page that is open, as its links do: nothing of it is loaded again. */
export async function goes(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState({}, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state: {} }));
  }, path);
  await page.waitForURL((url) => url.pathname + url.search === path);
}

/** The first visit, answered. */
export async function enter(page: Page, units: 'Metric' | 'US' = 'Metric'): Promise<void> {
  await page.goto('/');
  await page.getByRole('radio', { name: units }).click();
  await page.getByLabel('Your name at the bench').fill('Mara');
  await page.getByRole('button', { name: /^Start with/ }).click();
  await page.getByRole('navigation', { name: 'The line' }).waitFor();
}
