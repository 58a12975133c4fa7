import type { Material } from '../../../contract/materials.ts';
import type { Pour } from '../../../contract/pours.ts';
import type { RecipeItem } from '../../../contract/recipes.ts';
import { usual } from '../../../core/defaults.ts';
import { type Lesson, type LessonItem, limitsOfItems } from '../../../core/drill/lessons.ts';
import { drillStirS, massOf } from '../../../core/drill/world.ts';

/** Made-up ids, of the form that taps carry. */
const ID = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
export const cupId = (cup: number) => ID(100 + cup);
export const moldId = (lesson: Lesson, at: number) => (lesson.molds[at] ? ID(200 + at) : '');
export const itemId = (lesson: Lesson, id: string) =>
  ID(300 + [...new Set(lesson.layers.flatMap(({ items }) => items.map((item) => item.id)))].indexOf(id));

const materialOf = (lesson: Lesson, { id, name, kind, hex, limitC }: LessonItem): Material => ({
  id: itemId(lesson, id),
  version: 1,
  name,
  kind,
  hex,
  densityGPerMl: null,
  bulkGPerMl: null,
  dropsPerMl: null,
  strength: 1,
  limitC,
  turnsHex: null,
  sizeMm: kind === 'flake' ? 0.9 : null,
  cut: null,
  step: null,
  learnt: null,
  hardnessScale: null,
  hardness: null,
  pointsPerPercent: null,
  mix: null,
  potLifeMin: null,
  demoldMin: null,
  ratedC: null,
  pricePerKgMinor: null,
  reorderG: null,
  leadDays: null,
  cure: null,
  tearKnPerM: null,
  lotId: null,
  levelG: 1000,
  lots: [],
  lotsEver: 0,
  awayAt: null,
});

export const lessonMaterials = (lesson: Lesson): Material[] => [
  ...new Map(
    lesson.layers.flatMap(({ items }) => items.map((item) => [item.id, materialOf(lesson, item)] as const)),
  ).values(),
];

const recipeItem = (lesson: Lesson, item: LessonItem): RecipeItem => ({
  id: itemId(lesson, item.id),
  materialId: itemId(lesson, item.id),
  materialName: item.name,
  materialKind: item.kind,
  hex: item.hex,
  amount: item.amount,
  unit: item.unit,
  ml: null,
  dropsPerMl: usual('dropsPerMl'),
  bulkGPerMl: null,
  densityGPerMl: null,
  bottleStrength: 1,
  lotCode: null,
  limitC: item.limitC,
  sizeMm: item.kind === 'flake' ? 0.9 : null,
  cut: null,
  optics: null,
  learnt: null,
  turned: false,
  turnsHex: null,
});

/** What sinks in a cup once all of its recipe is in it. */
function stirIn(lesson: Lesson, cup: number): Pour['stir'] {
  const items = lesson.layers[cup]?.items ?? [];
  const sinks = items.find(({ kind }) => kind === 'flake' || kind === 'salt');
  const all = items.map(({ id, amount }) => ({ what: 'dose' as const, ms: 0, cup, itemId: id, amount }));
  const everyS = drillStirS(lesson, all, cup);
  return sinks && everyS !== null ? { name: sinks.name, everyS, dueAt: null } : null;
}

/** The cups of a lesson as a bench knows cups: laid out, and nothing done yet. */
export function lessonPours(lesson: Lesson, startedAt: string): [Pour, ...Pour[]] {
  const layers = lesson.layers.map(({ place, name, hex, joins }, cup) => ({
    place,
    recipeId: cupId(cup),
    recipeName: name,
    hex,
    joins,
    measure: 'share' as const,
    amount: 1 / lesson.layers.length,
  }));
  const cups = lesson.layers.map(({ name, hex }, cup) => ({
    id: cupId(cup),
    code: `T${cup + 1}`,
    recipeId: cupId(cup),
    recipeName: name,
    hex,
    layers: [cup],
    closedAt: null,
  }));
  const share = 1 / lesson.layers.length;
  const molds = lesson.molds.map((mold, at) => ({
    ...mold,
    moldId: moldId(lesson, at),
    baitId: ID(400 + at),
    baitName: mold.name,
    columns: Math.min(4, mold.cavities),
    opensAt: null,
    opens: { waitS: mold.waitS, basis: 'heat' as const },
    layersMl: layers.map(() => mold.cavities * mold.cavityMl * share),
    cavityLayersMl: layers.map(() => mold.cavityMl * share),
    layersMm: [],
    rods: false,
    inserted: false,
    stands: null,
  }));
  const pours = lesson.layers.map(
    (layer, cup): Pour => ({
      id: cupId(cup),
      version: 1,
      code: `T${cup + 1}`,
      colourwayId: cupId(0),
      colourwayName: lesson.name,
      layers,
      leadId: cup === 0 ? null : cupId(0),
      cups,
      evening: {
        id: null,
        roomC: lesson.roomC,
        version: 0,
        cups: cups.map((one, at) => ({
          ...one,
          leadId: at === 0 ? null : cupId(0),
          cookMl: lesson.cookMl,
          startedAt: null,
        })),
      },
      lent: { shots: 0, ml: 0 },
      recipeId: cupId(cup),
      recipeName: layer.name,
      hex: layer.hex,
      recipeRevision: 1,
      parts: [],
      blend: { heats: 1, remeltFraction: 0, unknownFraction: 0, saltUnknownFraction: 0, hardness: null },
      makerId: null,
      ledgerId: ID(500 + cup),
      cookMl: lesson.cookMl,
      plan: {
        cookMl: lesson.cookMl,
        cookG: massOf(lesson),
        cups: 1,
        yieldFraction: 0.8,
        returnMl: 0,
        molds: molds.map((mold) => ({
          moldId: mold.moldId,
          shots: mold.shots,
          shotMl: mold.cavities * mold.cavityMl * share * (1 + usual('feedFraction')),
          loads: 0,
        })),
        items: layer.items.map((item) => ({
          id: itemId(lesson, item.id),
          amount: item.amount,
          unit: item.unit,
          ...(item.unit === 'drop' ? { drops: item.amount } : {}),
          roundingFraction: 0,
          tooCoarse: false,
          materialId: itemId(lesson, item.id),
          materialName: item.name,
          lotCode: null,
        })),
      },
      wanted: null,
      laidOutAt: startedAt,
      startedAt: null,
      closedAt: null,
      discardedAt: null,
      curedAt: null,
      molds: cup === 0 ? molds : [],
      recipeItems: layer.items.map((item) => recipeItem(lesson, item)),
      doses: [],
      drawnMl: 0,
      dosed: { g: 0, byDefault: [] },
      heats: [],
      limits: limitsOfItems(layer.items),
      stir: stirIn(lesson, cup),
      shots: [],
      ticks: [],
      balance: null,
      hardness: [],
      orders: [],
      lots: [],
      bags: [],
    }),
  );
  return pours as [Pour, ...Pour[]];
}
