import { v7 } from 'uuid';

/** Two tablets that tap into one record: each sends what was never answered again under the same key, then new taps. */
export abstract class Tablets {
  readonly answered = new Set<string>();
  readonly waiting = new Map<string, string>();

  abstract prepare(api: string): Promise<void>;
  protected abstract send(api: string, id: string, key: string): Promise<unknown>;
  /** The rows that are there; `broken` ones are there in part only. */
  protected abstract rows(api: string): Promise<{ ids: string[]; broken: number }>;

  /** Both tablets until the server is gone. */
  async tap(api: string, most: number): Promise<void> {
    const tablet = async (mine: number) => {
      for (let n = 0; n < most; n++) {
        const id = [...this.waiting.keys()].find((_, index) => index % 2 === mine) ?? v7();
        const key = this.waiting.get(id) ?? v7();
        this.waiting.set(id, key);
        await this.send(api, id, key);
        this.answered.add(id);
        this.waiting.delete(id);
      }
    };
    // A server that was killed answers nothing: that is what is looked at.
    await Promise.all([tablet(0), tablet(1)]).catch(() => undefined);
  }

  async sendWaiting(api: string): Promise<void> {
    for (const [id, key] of [...this.waiting]) {
      await this.send(api, id, key);
      this.answered.add(id);
      this.waiting.delete(id);
    }
  }

  /** How many answered rows are not there, how many are there twice or were never sent, how many are there by half. */
  async compared(api: string): Promise<{ lost: number; doubled: number; broken: number }> {
    const { ids, broken } = await this.rows(api);
    const there = new Set(ids);
    const lost = [...this.answered].filter((id) => !there.has(id)).length;
    const known = ids.filter((id) => this.answered.has(id) || this.waiting.has(id)).length;
    return { lost, doubled: ids.length - there.size + (ids.length - known), broken };
  }
}

export async function read<T>(url: string): Promise<T> {
  return (await (await fetch(url, { signal: AbortSignal.timeout(10_000) })).json()) as T;
}
