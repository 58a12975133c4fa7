import { expect, test } from 'vitest';
import { check } from '../validate.ts';
import { roughBait } from '../water/assumed.ts';
import { INSERTS, shapeSpecSchema } from './spec.ts';
import { insertRoomMl, STARTS, USUAL_LIMB, USUAL_PART, USUAL_TAIL, usualInsert } from './starts.ts';

test.each(STARTS)('$name: with any part switched on, any tail, limb or insert added it can be kept', ({ spec }) => {
  const variants = [
    ...Object.entries(USUAL_PART).map(([part, begins]) => ({ ...spec, [part]: begins })),
    ...Object.entries(USUAL_TAIL).map(([kind, tail]) => ({ ...spec, tail: { kind, ...tail } })),
    ...Object.values(USUAL_LIMB).map((limb) => ({ ...spec, limbs: [...spec.limbs, limb] })),
    ...INSERTS.map((kind) => ({ ...spec, inserts: [...spec.inserts, usualInsert(kind)] })),
  ];
  for (const one of variants) expect(check(shapeSpecSchema, one)).toEqual(one);
});

test.each([
  // Lead 11.34 g/mL, stainless wire 7.95, plastic tube 1.2.
  ['weight', 5, 0.441],
  ['wire', 0.6, 0.075],
  ['tube', 0.6, 0.5],
] as const)('a %s of %f g takes %f mL', (kind, grams, ml) => expect(insertRoomMl(kind, grams)).toBe(ml));

test.each([
  ['its mesh tells', { lengthMm: 100, widthMm: 20, mesh: { centroidMm: [38, 0, 2] } }, [38, 0, 2], 1400],
  ['its size tells', { lengthMm: 100, widthMm: 20, mesh: null }, [45, 0, 0], 1400],
  ['nothing but its plastic is known', undefined, null, 800],
])('a bait in water where %s', (_what, size, centroidMm, planAreaMm2) => {
  const found = roughBait(size, 8);
  expect([found.centroidMm, Number(found.planAreaMm2.toFixed(6))]).toEqual([centroidMm, planAreaMm2]);
});
