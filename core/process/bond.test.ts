import { expect, test } from 'vitest';
import { usual } from '../defaults.ts';
import { JOIN_IDS } from '../plan/layers.ts';
import { bondOf } from './bond.ts';

test('hot plastic on a cold layer meets at their mean: 95 °C at 170 on 20, far from fusing', () => {
  const found = bondOf({ joins: 'melted', underMm: 3, roomC: 20, pourC: 170 });
  expect(found).toMatchObject({ meetC: 95, neededC: 110, holds: 'if-melted' });
  // It is that hot for a short while only, and cold and firm after a longer one.
  expect(found.hotForS).toBeGreaterThan(5);
  expect(found.firmAfterS).toBeGreaterThan(found.hotForS ?? Number.POSITIVE_INFINITY);
});

test('injected together both are hot, and hold; into a mold kept hot they hold as long as it is', () => {
  expect(bondOf({ joins: 'together', underMm: 3 })).toMatchObject({ meetC: usual('layerPourC'), holds: 'yes' });
  expect(bondOf({ joins: 'together', underMm: 3, pourC: 130 }).holds).toBe('no');
  expect(bondOf({ joins: 'hot', underMm: 3, moldC: 150, pourC: 170 })).toMatchObject({ meetC: 160, holds: 'if-hot' });
  expect(bondOf({ joins: 'cooked', underMm: 3 }).holds).toBe('if-cooked');
});

test('a thicker layer stays hot and soft for longer; on metal for less than on rubber; unknown thickness is unknown time', () => {
  for (const of of ['hotForS', 'firmAfterS'] as const) {
    const at = (underMm: number, moldStuff: 'silicone' | 'aluminium' = 'silicone') =>
      bondOf({ joins: 'melted', underMm, moldStuff })[of] as number;
    expect(at(8)).toBeGreaterThan(2 * at(3));
    expect(at(5, 'aluminium')).toBeLessThan(at(5));
  }
  for (const joins of JOIN_IDS)
    expect(bondOf({ joins, underMm: null })).toMatchObject({ hotForS: null, firmAfterS: null });
});

test('no thickness is no time; the usual wall of its kind is taken where none is told', () => {
  expect(bondOf({ joins: 'melted', underMm: 0 }).firmAfterS).toBeNull();
  const at = (moldStuff: 'silicone' | 'aluminium', wallMm?: number) =>
    bondOf({ joins: 'melted', underMm: 4, moldStuff, ...(wallMm === undefined ? {} : { wallMm }) }).firmAfterS;
  expect(at('silicone')).toBe(at('silicone', usual('siliconeWallMm')));
  expect(at('aluminium')).toBe(at('aluminium', usual('metalWallMm')));
  expect(at('silicone')).not.toBe(at('silicone', 30));
});
