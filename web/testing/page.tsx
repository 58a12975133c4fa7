import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, type ReactNode } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { vi } from 'vitest';
import { TasteProvider } from '../parts/taste.tsx';

vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true);
vi.stubGlobal(
  'ResizeObserver',
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);
// Nor does it escape selectors; what stands in quotes needs it only for them.
vi.stubGlobal('CSS', { escape: (text: string) => text.replace(/["\\]/g, '\\$&') });
// The browser of these tests has no dialogs; what stands in one is drawn all the same.
Object.assign(globalThis.HTMLDialogElement?.prototype ?? {}, {
  showModal(this: HTMLDialogElement) {
    this.open = true;
  },
  close(this: HTMLDialogElement) {
    this.open = false;
  },
});

interface Sent {
  path: string;
  method: string;
  body: Record<string, unknown>;
}

interface Options {
  /** Where the page stands, and what stands at other addresses: nothing. */
  at?: string;
  route?: string;
  system?: 'metric' | 'us';
  /** What the workshop has at other addresses, `/api/baits`. */
  gets?: Record<string, unknown>;
  /** What the server answers to a write; an error is said as it is. */
  answer?(sent: Sent): { status?: number; body: unknown };
}

/** A part of the page with a maker in front of it and a workshop that answers, as far as it is told. */
export class Page {
  readonly box = document.createElement('div');
  readonly sent: Sent[] = [];
  private root: Root | undefined;
  private router: ReturnType<typeof createMemoryRouter> | undefined;

  static async open(element: ReactNode, options: Options = {}): Promise<Page> {
    const page = new Page();
    await page.show(element, options);
    return page;
  }

  private async show(element: ReactNode, { at = '/', route = '/', system = 'metric', gets = {}, answer }: Options) {
    const temperature = system === 'us' ? 'F' : 'C';
    const told: Record<string, unknown> = {
      '/api/workshop': {
        name: 'w',
        currency: 'EUR',
        roomC: 13,
        dropsPerMl: 20,
        glassMl: 350,
        clubFraction: 1,
        shopFraction: 1,
        roundMinor: 1,
        version: 1,
      },
      '/api/makers': { items: [{ id: 'me', name: 'Mara', system, temperature }], nextCursor: null },
      ...gets,
    };
    vi.stubGlobal('fetch', async (path: string, { method = 'GET', body }: RequestInit = {}) => {
      if (method === 'GET')
        return new Response(JSON.stringify(told[path.replace(/\?.*/, '')] ?? { items: [], nextCursor: null }));
      const sent = { path, method, body: JSON.parse(String(body ?? 'null')) };
      this.sent.push(sent);
      const { status = 201, body: said } = answer?.(sent) ?? { body: {} };
      return new Response(JSON.stringify(said), { status });
    });
    document.body.append(this.box);
    this.root = createRoot(this.box);
    const routes = [{ path: route, element }];
    this.router = createMemoryRouter(route === '*' ? routes : [...routes, { path: '*', element: null }], {
      initialEntries: [at],
    });
    await act(async () =>
      this.root?.render(
        <QueryClientProvider client={new QueryClient()}>
          <TasteProvider waiting={null} silent={null}>
            <RouterProvider router={this.router as ReturnType<typeof createMemoryRouter>} />
          </TasteProvider>
        </QueryClientProvider>,
      ),
    );
    // Workshop and makers are asked for one after the other.
    for (let turn = 0; turn < 3; turn++) await this.turn();
  }

  get path(): string {
    return this.router?.state.location.pathname ?? '';
  }

  get text(): string {
    return (this.box.textContent ?? '').replace(/\s+/g, ' ');
  }

  turn = () => act(async () => void (await new Promise((done) => setTimeout(done, 5))));

  does = (work: () => unknown) =>
    act(async () => {
      await work();
    });

  button(name: string | RegExp): HTMLButtonElement {
    const found = [...this.box.querySelectorAll('button')].find((one) =>
      typeof name === 'string' ? one.textContent === name : name.test(one.textContent ?? ''),
    );
    if (!found) throw new Error(`no button ${name} in: ${this.text}`);
    return found;
  }

  async press(name: string | RegExp) {
    await this.does(() => this.button(name).click());
    await this.turn();
  }

  field(label: string): HTMLInputElement {
    const found = [...this.box.querySelectorAll('label')].find((one) => one.textContent?.includes(label));
    const input = found?.control ?? found?.querySelector('input') ?? this.box.querySelector(`[aria-label="${label}"]`);
    if (!input) throw new Error(`no field ${label} in: ${this.text}`);
    return input as HTMLInputElement;
  }

  /** A field by its path in the schema, `lines.0.packs`. */
  at<T extends HTMLElement = HTMLInputElement>(path: string): T {
    const found = this.box.querySelector<T>(`[data-field="${path}"]`);
    if (!found) throw new Error(`no field at ${path} in: ${this.text}`);
    return found;
  }

  type = (label: string, text: string) => this.typeInto(this.field(label), text);
  typeAt = (path: string, text: string) => this.typeInto(this.at(path), text);

  async typeInto(input: HTMLInputElement, text: string) {
    await this.does(() => {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(input, text);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await this.does(() => input.dispatchEvent(new FocusEvent('focusout', { bubbles: true })));
  }

  /** Picks by the words that a maker reads. */
  pick = (label: string, words: string) => this.choose(this.field(label) as unknown as HTMLSelectElement, words);
  pickAt = (path: string, words: string) => this.choose(this.at<HTMLSelectElement>(path), words);

  private async choose(select: HTMLSelectElement, words: string) {
    const option = [...select.options].find((one) => one.textContent === words);
    if (!option) throw new Error(`no choice ${words} in: ${select.textContent}`);
    await this.does(() => {
      select.value = option.value;
      select.dispatchEvent(new Event('change', { bubbles: true }));
    });
  }

  /** The body of the last write. */
  get body(): Record<string, unknown> {
    const last = this.sent.at(-1);
    if (!last) throw new Error('nothing was sent');
    return last.body;
  }

  async close() {
    await act(async () => this.root?.unmount());
    this.box.remove();
  }
}
