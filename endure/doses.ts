import { v7 } from 'uuid';
import type { Material } from '../contract/materials.ts';
import type { Ledger } from '../contract/recipes.ts';
import { post } from './program.ts';

/** Two tablets that dose into one ledger: each sends what was never answered again under the same key, then new taps. */
export class Dosing {
  readonly answered = new Set<string>();
  readonly waiting = new Map<string, string>();
  private ledger = '';
  private materialId = '';

  async prepare(api: string): Promise<void> {
    this.materialId = (
      await post<Material>(`${api}/materials`, { name: 'Harbour Blue liquid', kind: 'colourant' }, v7())
    ).id;
    this.ledger = (await post<Ledger>(`${api}/ledgers`, { title: 'endured', batchMl: 240 }, v7())).id;
  }

  private send(api: string, id: string, key: string): Promise<unknown> {
    return post(
      `${api}/ledgers/${this.ledger}/doses`,
      { id, materialId: this.materialId, amount: 1, unit: 'drop' },
      key,
    );
  }

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

  /** How many answered doses are not there, and how many are there twice or were never sent. */
  async compared(api: string): Promise<{ lost: number; doubled: number }> {
    const { doses } = (await (
      await fetch(`${api}/ledgers/${this.ledger}`, { signal: AbortSignal.timeout(10_000) })
    ).json()) as Ledger;
    const there = new Set(doses.map((dose) => dose.id));
    const lost = [...this.answered].filter((id) => !there.has(id)).length;
    const known = doses.filter((dose) => this.answered.has(dose.id) || this.waiting.has(dose.id)).length;
    return { lost, doubled: doses.length - there.size + (doses.length - known) };
  }
}
