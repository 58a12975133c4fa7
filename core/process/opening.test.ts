import { describe, expect, test } from 'vitest';
import { usual } from '../defaults.ts';
import { demold, MOLD_STUFF, PLASTISOL, train } from '../heat/demold.ts';
import { check } from '../validate.ts';
import { openingSchema, opensAfter } from './opening.ts';
import { waitOf, waitsByKind } from './waits.ts';

const MOLD = { kind: 'aluminium', fill: 'injection', thicknessMm: 15.5, wallMm: 10, roomC: 20, shots: 6 };
const opens = (change: object = {}) => opensAfter(check(openingSchema, { ...MOLD, ...change }));

/** The same heat, asked for by hand. */
const heat = (change: object = {}) => ({
  shape: 'cylinder' as const,
  thicknessMm: 15.5,
  pourC: 169,
  demoldC: 80,
  criterion: 'mean' as const,
  moldC: 20,
  ambientC: 20,
  wallMm: 10,
  outerWPerM2K: 12,
  mold: MOLD_STUFF.aluminium,
  plastisol: PLASTISOL,
  shots: 6,
  openS: 60,
  ...change,
});

describe('when a mold is opened', () => {
  test('its waits are those of its heat, poured in the middle of its window', () => {
    expect(opens()).toEqual({ waitS: train(heat()).demoldS.map(Math.round), basis: 'heat' });
  });

  test('an open face gives little off over one side in four: a third thicker, in its own window', () => {
    const found = opens({ kind: 'silicone-open', fill: 'open-pour', thicknessMm: 12, shots: 1 });
    const same = demold(heat({ thicknessMm: 16, pourC: 171, mold: MOLD_STUFF.silicone }));
    expect(found.waitS).toEqual([Math.round(same.seconds)]);
  });

  test('small baits in cold metal: never under a minute', () => {
    expect(opens({ thicknessMm: 5 }).waitS).toEqual([60, 60, 60, 60, 60, 60]);
  });

  test.each([
    ['a thicker bait', { thicknessMm: 20 }],
    ['a warmer room', { roomC: 30 }],
    ['a cup poured hotter', { pourC: 178 }],
    ['opened cooler', { demoldC: 60 }],
    ['a mold that is warm already', { moldC: 45 }],
  ])('%s waits longer', (_what, change) => {
    expect(opens(change).waitS[0]).toBeGreaterThan(opens().waitS[0] as number);
  });

  test('a fan shortens the later ones', () => {
    const fan = opens({ outerWPerM2K: usual('fanAirWPerM2K') });
    expect(fan.waitS[5]).toBeLessThan(opens().waitS[5] as number);
  });

  test('the wall is the usual one of its kind where none was written down', () => {
    const { wallMm: _, ...bare } = MOLD;
    expect(opensAfter(check(openingSchema, bare))).toEqual(opens({ wallMm: 12 }));
    expect(opensAfter(check(openingSchema, { ...bare, kind: 'printed' }))).toEqual(
      opens({ kind: 'printed', wallMm: 10 }),
    );
  });

  test.each([
    ['rods', { kind: 'dip-rods', fill: 'dip' }, 45],
    ['an unknown thickness', { kind: 'silicone-open', fill: 'open-pour', thicknessMm: undefined }, 300],
    ['a room that never cools it', { roomC: 85 }, 120],
  ])('%s: a guess by its kind, and it says so', (_what, change, seconds) => {
    expect(opens(change)).toEqual({ waitS: [seconds], basis: 'kind' });
  });

  test('a later shot than was told waits as long as the last', () => {
    const waits = opens({ shots: 30 });
    expect(waits.waitS).toHaveLength(8);
    expect([waitOf(waits, 0), waitOf(waits, 29)]).toEqual([waits.waitS[0], waits.waitS[7]]);
    expect(waitOf(waitsByKind('cast'), 4)).toBe(120);
  });
});
