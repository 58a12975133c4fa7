import { v7 } from 'uuid';
import type { Bin } from '../contract/bins.ts';
import type { Page } from '../contract/fields.ts';
import type { Master } from '../contract/masters.ts';
import type { Material } from '../contract/materials.ts';
import type { Mold } from '../contract/molds.ts';
import type { Pour, PourRow } from '../contract/pours.ts';
import type { Recipe } from '../contract/recipes.ts';
import { post } from './program.ts';
import { read, Tablets } from './tablets.ts';

const HELD_G = 100_000;
const COOKED_G = 100;
const BACK_G = 50;

/** Cups half of a drum, half of remelt, laid out, drawn, looked at and closed: what is closed left drum and bin whole, or not at all. */
export class Closing extends Tablets {
  private about = { materialId: '', drumId: '', binId: '', moldId: '', colourwayId: '' };
  private readonly idOf = new Map<string, string>();

  async prepare(api: string): Promise<void> {
    const made = <T>(path: string, body: unknown) => post<T>(`${api}${path}`, body, v7());
    const { id: materialId } = await made<Material>('/materials', { name: 'Harbour Blue liquid', kind: 'colourant' });
    const lot = { code: 'A1', grams: HELD_G };
    const { id: drumId } = await made<Material>('/materials', { name: 'Soft 22', kind: 'plastisol', lot });
    const { id: binId } = await made<Bin>('/bins', { name: 'Greens', hex: '#4f8a6d' });
    const given = { kind: 'given', grams: HELD_G, heats: 2, saltG: 0, note: '', looked: true };
    await made(`/bins/${binId}/moves`, given);
    const items = [{ materialId, amount: 6, unit: 'drop' }];
    const recipe = await made<Recipe>('/recipes', { name: 'Slack Tide', hex: '#4f8796', basisMl: 240, items });
    const sizes = { shape: 'paddle', kind: 'clay', lengthMm: 110, widthMm: 16, heightMm: 17, thickestMm: 15 };
    const { baitId } = await made<Master>('/masters', { name: 'Sandlance 110', ...sizes });
    const cavity = { kind: 'aluminium', fill: 'injection', baitId, cavities: 1, cavityMl: 40 };
    const mold = await made<Mold>('/molds', { name: 'Sandlance × 1', ...cavity });
    this.about = { materialId, drumId, binId, moldId: mold.id, colourwayId: recipe.id };
  }

  /** Four taps, each with a key of its own: sent again, those that were done are answered as before. */
  protected async send(api: string, id: string, key: string): Promise<unknown> {
    const { drumId, binId, moldId, colourwayId } = this.about;
    const blend = [
      { materialId: drumId, share: 0.5 },
      { binId, share: 0.5 },
    ];
    const laid = { colourwayId, molds: [{ moldId, shots: 1 }], blend };
    const pour = await post<Pour>(`${api}/pours`, laid, `${key}-0`);
    this.idOf.set(pour.id, id);
    const at = `${api}/pours/${pour.id}`;
    await post(`${at}/shots`, { id, moldId }, `${key}-1`);
    await post(`${at}/shots/${id}/marks`, { marks: [{ cavity: 1, grade: 'sell' }] }, `${key}-2`);
    const weighed = { cookedG: COOKED_G, goodG: 40, rejectG: 0, returnedG: BACK_G };
    return post(`${at}/close`, weighed, `${key}-3`);
  }

  protected async rows(api: string) {
    const closed: string[] = [];
    for (let cursor: string | null = ''; cursor !== null; ) {
      const page: Page<PourRow> = await read(`${api}/pours?limit=200${cursor ? `&cursor=${cursor}` : ''}`);
      closed.push(...page.items.filter((row) => row.closedAt !== null).map((row) => row.id));
      cursor = page.nextCursor;
    }
    const drum = await read<Material>(`${api}/materials/${this.about.drumId}`);
    const { items: bins } = await read<Page<Bin>>(`${api}/bins`);
    const { items: rack } = await read<Page<{ baits: number }>>(`${api}/rack`);
    const level = (of: (bin: Bin) => boolean) => bins.filter(of).reduce((sum, bin) => sum + bin.grams, 0);
    const n = closed.length;
    const off = [
      drum.levelG - (HELD_G - (n * COOKED_G) / 2),
      level((bin) => bin.id === this.about.binId) - (HELD_G - (n * COOKED_G) / 2),
      level((bin) => bin.colourwayId === this.about.colourwayId) - n * BACK_G,
      rack.reduce((sum, row) => sum + row.baits, 0) - n,
    ];
    return {
      ids: closed.map((pourId) => this.idOf.get(pourId) ?? pourId),
      broken: off.filter((grams) => Math.abs(grams) > 1e-3).length,
    };
  }
}
