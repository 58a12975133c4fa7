import type { Page } from '@playwright/test';

export type Api = <T>(method: string, path: string, body?: unknown, version?: number) => Promise<T>;

/** Asks a served workshop; what it refuses is an error of the journey. */
export const apiOf =
  (url: string): Api =>
  async <T>(method: string, path: string, body?: unknown, version?: number) => {
    const response = await fetch(`${url}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...(version === undefined ? {} : { 'if-match': `"${version}"` }) },
      body: body === undefined ? null : JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
    return (await response.json()) as T;
  };

/** One bait, mold, colour, order and an open pour of three shots, made over HTTP. */
export async function stocked(url: string) {
  const api = apiOf(url);
  const colourant = await api<Id>('POST', '/materials', {
    name: 'Harbour Blue liquid',
    kind: 'colourant',
    hex: '#1f5f8b',
  });
  const master = await api<Id & { baitId: string }>('POST', '/masters', {
    name: 'Sandlance 110',
    shape: 'paddle',
    kind: 'clay',
    lengthMm: 110,
    widthMm: 16,
    heightMm: 17,
    thickestMm: 15,
    volume: { how: 'displaced', ml: 10 },
  });
  const mold = await api<Id>('POST', '/molds', {
    name: 'Sandlance × 4',
    kind: 'aluminium',
    fill: 'injection',
    baitId: master.baitId,
    cavities: 4,
    cavityMl: 10,
    sprueMl: 5,
  });
  const recipe = await api<Id>('POST', '/recipes', {
    name: 'Slack Tide',
    hex: '#4f8796',
    basisMl: 236.5882365,
    items: [{ materialId: colourant.id, amount: 24, unit: 'drop' }],
  });
  const order = await api<Id>('POST', '/orders', {
    newCustomer: { name: 'Tideline' },
    dueOn: '2030-05-01',
    lines: [{ baitId: master.baitId, colourwayId: recipe.id, packs: 2, perPack: 8 }],
  });
  const pour = await api<Id>('POST', '/pours', { colourwayId: recipe.id, molds: [{ moldId: mold.id, shots: 3 }] });
  return { api, pourId: pour.id, colourwayId: recipe.id, moldId: mold.id, masterId: master.id, orderId: order.id };
}

export interface Id {
  id: string;
}

/** The line that tells of something. */
export const row = (page: Page, name: string) => page.getByRole('listitem').filter({ hasText: name });
/** The bench's one large button. */
export const big = (page: Page) => page.getByRole('region', { name: 'Next' }).getByRole('button');

/** A soft and a firm plastic, each with its label and a drum. */
export async function softAndFirm(api: Api): Promise<[Id, Id]> {
  const drum = (name: string, hardness: number, pricePerKgMinor: number) =>
    api<Id>('POST', '/materials', {
      name,
      kind: 'plastisol',
      densityGPerMl: 1.02,
      hardnessScale: '00',
      hardness,
      pricePerKgMinor,
      lot: { code: 'A1', grams: 9000 },
    });
  return [await drum('Soft 22', 22, 1450), await drum('Firm 58', 58, 1600)];
}

/** Another mold like the stocked one. */
export const twinMold = (api: Api, baitId: string, name: string) =>
  api<Id>('POST', '/molds', {
    name,
    kind: 'aluminium',
    fill: 'injection',
    baitId,
    cavities: 4,
    cavityMl: 10,
    sprueMl: 5,
  });

/** Another cup of the same, drawn, marked and weighed, so that rack and charts have something to show. */
export async function closing(api: Api, pourId: string): Promise<void> {
  type P = { id: string; colourwayId: string; molds: { moldId: string }[]; shots: { id: string }[] };
  const { colourwayId, molds } = await api<P>('GET', `/pours/${pourId}`);
  const pour = await api<P>('POST', '/pours', { colourwayId, molds: [{ moldId: molds[0]?.moldId, shots: 1 }] });
  const { shots } = await api<P>('POST', `/pours/${pour.id}/shots`, { moldId: molds[0]?.moldId });
  await api('POST', `/pours/${pour.id}/shots/${shots[0]?.id}/marks`, {
    marks: [1, 2, 3, 4].map((cavity) =>
      cavity === 2 ? { cavity, grade: 'remelt', reason: 'bubble' } : { cavity, grade: 'sell' },
    ),
  });
  await api('POST', `/pours/${pour.id}/close`, { cookedG: 57, goodG: 30.6, rejectG: 10.2, returnedG: 10, residueG: 4 });
}

/** A cup of so many shots of four, drawn, marked and closed: its first bait is bad, all others are good. */
export async function goodCup(api: Api, colourwayId: string, moldId: string, shots: number): Promise<Id> {
  const pour = await api<Id>('POST', '/pours', { colourwayId, molds: [{ moldId, shots }] });
  for (let n = 0; n < shots; n++) {
    const { shots: drawn } = await api<{ shots: Id[] }>('POST', `/pours/${pour.id}/shots`, { moldId });
    const marks = [1, 2, 3, 4].map((cavity) =>
      n === 0 && cavity === 1 ? { cavity, grade: 'remelt', reason: 'bubble' } : { cavity, grade: 'sell' },
    );
    await api('POST', `/pours/${pour.id}/shots/${drawn.at(-1)?.id}/marks`, { marks });
  }
  const good = 4 * shots - 1;
  await api('POST', `/pours/${pour.id}/close`, {
    cookedG: 20 + good * 11 + 400,
    goodG: good * 10.2,
    rejectG: 10,
    returnedG: 400,
  });
  return pour;
}

/** A colour of two layers beside the stocked one, and a shot of it drawn from its two cups. */
export async function layered(
  api: Api,
  recipeId: string,
  moldId: string,
): Promise<{ layeredId: string; setId: string }> {
  const [material] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  const { id: belly } = await api<Id>('POST', '/recipes', {
    name: 'Limpet',
    hex: '#a5733f',
    basisMl: 236.5882365,
    items: [{ materialId: material?.id, amount: 6, unit: 'drop' }],
  });
  const { id: layeredId } = await api<Id>('POST', '/colourways', {
    name: 'Night Tide',
    hex: '#3c4f77',
    notes: '',
    layers: [
      { place: 'belly', recipeId: belly, measure: 'share', shareFraction: 0.4 },
      { place: 'back', recipeId, measure: 'rest', joins: 'together' },
    ],
  });
  const { id: setId } = await api<Id>('POST', '/pours', { colourwayId: layeredId, molds: [{ moldId, shots: 2 }] });
  await api('POST', `/pours/${setId}/shots`, { moldId });
  return { layeredId, setId };
}
