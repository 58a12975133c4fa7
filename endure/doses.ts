import { v7 } from 'uuid';
import type { Material } from '../contract/materials.ts';
import type { Ledger } from '../contract/recipes.ts';
import { post } from './program.ts';
import { read, Tablets } from './tablets.ts';

/** Doses into one ledger. */
export class Dosing extends Tablets {
  private ledger = '';
  private materialId = '';

  async prepare(api: string): Promise<void> {
    this.materialId = (
      await post<Material>(`${api}/materials`, { name: 'Harbour Blue liquid', kind: 'colourant' }, v7())
    ).id;
    this.ledger = (await post<Ledger>(`${api}/ledgers`, { title: 'endured', batchMl: 240 }, v7())).id;
  }

  protected send(api: string, id: string, key: string): Promise<unknown> {
    return post(
      `${api}/ledgers/${this.ledger}/doses`,
      { id, materialId: this.materialId, amount: 1, unit: 'drop' },
      key,
    );
  }

  protected async rows(api: string) {
    const { doses } = await read<Ledger>(`${api}/ledgers/${this.ledger}`);
    return { ids: doses.map((dose) => dose.id), broken: 0 };
  }
}
