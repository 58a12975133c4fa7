import { v7 } from 'uuid';
import type { Colourway } from '../contract/colourways.ts';
import type { Master } from '../contract/masters.ts';
import type { Material } from '../contract/materials.ts';
import type { Mold } from '../contract/molds.ts';
import type { Pour } from '../contract/pours.ts';
import type { Recipe } from '../contract/recipes.ts';
import { post } from './program.ts';
import { read, Tablets } from './tablets.ts';

/** Shots that draw from two cups: a shot is there with both its parts, or not at all. */
export class Drawing extends Tablets {
  private pour = '';
  private moldId = '';
  private cups: string[] = [];

  async prepare(api: string): Promise<void> {
    const made = <T>(path: string, body: unknown) => post<T>(`${api}${path}`, body, v7());
    const { id: materialId } = await made<Material>('/materials', { name: 'Harbour Blue liquid', kind: 'colourant' });
    const melt = (name: string) =>
      made<Recipe>('/recipes', {
        name,
        hex: '#4f8796',
        basisMl: 240,
        items: [{ materialId, amount: 6, unit: 'drop' }],
      });
    const [belly, back] = [await melt('Limpet'), await melt('Slack Tide')];
    const colour = await made<Colourway>('/colourways', {
      name: 'Night Tide',
      hex: '#3c4f77',
      notes: '',
      layers: [
        { place: 'belly', recipeId: belly.id, measure: 'share', shareFraction: 0.5 },
        { place: 'back', recipeId: back.id, measure: 'rest', joins: 'together' },
      ],
    });
    const about = { shape: 'paddle', kind: 'clay', lengthMm: 110, widthMm: 16, heightMm: 17, thickestMm: 15 };
    const { baitId } = await made<Master>('/masters', { name: 'Sandlance 110', ...about });
    const mold = await made<Mold>('/molds', {
      name: 'Sandlance × 4',
      kind: 'aluminium',
      fill: 'injection',
      baitId,
      cavities: 4,
      cavityMl: 10,
    });
    const pour = await made<Pour>('/pours', { colourwayId: colour.id, molds: [{ moldId: mold.id, shots: 2 }] });
    [this.pour, this.moldId, this.cups] = [pour.id, mold.id, pour.cups.map((cup) => cup.id)];
  }

  protected send(api: string, id: string, key: string): Promise<unknown> {
    const parts = this.cups.map((pourId, layer) => ({ layer, pourId, lastDose: null, lastHeat: null }));
    return post(`${api}/pours/${this.pour}/shots`, { id, moldId: this.moldId, parts }, key);
  }

  protected async rows(api: string) {
    const { shots } = await read<Pour>(`${api}/pours/${this.pour}`);
    return {
      ids: shots.map((shot) => shot.id),
      broken: shots.filter((shot) => shot.parts.length !== this.cups.length).length,
    };
  }
}
