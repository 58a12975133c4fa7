import { loadModeller, sculpt } from '../core/shape/sculpt.ts';
import { silhouetteOf } from '../core/shape/silhouette.ts';
import { STARTS } from '../core/shape/starts.ts';

/** How each starting shape is drawn where one is chosen: its own solid's outline, so that no page has to sculpt it first. */
export async function startOutlines(): Promise<string> {
  const kit = await loadModeller();
  const rows = Object.fromEntries(STARTS.map(({ id, spec }) => [id, silhouetteOf(kit, sculpt(kit, spec, 'draft'))]));
  return `${JSON.stringify(rows, null, 2)}\n`;
}
