import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { bedPlan, volumeByFilling } from './bed.ts';
import { bubbleTimes } from './bubbles.ts';
import { plan, planSchema } from './silicone.ts';
import { gridPlaces, inside, outOfLevel, thinnestWall } from './standing.ts';
import { pairing, suits } from './suitable.ts';

const master = { lengthMm: 100, widthMm: 20 };
const box = { boxLengthMm: 120, boxWidthMm: 88, columns: 3, rows: 1 };

describe('masters as they stand', () => {
  test('in their grid the thinnest is the even gap; dragged, it is said where', () => {
    const places = gridPlaces(box, master, 3);
    // Across: (88 − 60) / 4 = 7 between and beside; along: (120 − 100) / 2 = 10.
    expect(places.map((one) => one.yMm)).toEqual([7, 34, 61]);
    // With 4 mm between them, walls of (88 − 68) / 2; gaps of 20 have no room and are spread evenly.
    expect(gridPlaces(box, master, 3, 4).map((one) => one.yMm)).toEqual([10, 34, 58]);
    expect(gridPlaces(box, master, 3, 20)).toEqual(places);
    expect(thinnestWall(places, box, master)).toMatchObject({ mm: 7, between: 'a wall' });
    const pushed = [{ xMm: 10, yMm: 12 }, ...places.slice(1)];
    expect(thinnestWall(pushed, box, master)).toMatchObject({
      mm: 2,
      between: 'two masters',
      from: { yMm: 32 },
      to: { yMm: 34 },
    });
    expect(thinnestWall([{ xMm: 20, yMm: 30 }], box, master)).toMatchObject({ mm: 0, between: 'a wall' });
  });

  test('corner to corner it is the straight line', () => {
    const wide = { boxLengthMm: 300, boxWidthMm: 200, columns: 2, rows: 2 };
    const places = [
      { xMm: 40, yMm: 50 },
      { xMm: 143, yMm: 74 },
    ];
    // 3 mm along, 4 across.
    expect(thinnestWall(places, wide, master).mm).toBeCloseTo(5, 9);
  });

  test('no drag takes a master out of its box, and no place has a thinner wall than it says', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (xMm, yMm) => {
          const at = inside({ xMm, yMm }, box, master);
          const { mm } = thinnestWall([at], box, master);
          expect(mm).toBeGreaterThanOrEqual(0);
          expect(mm).toBeLessThanOrEqual(Math.min(at.xMm, at.yMm) + 1e-9);
        },
      ),
    );
  });

  test('a degree over 120 mm is 2.1 mm: half of it is lost at one end', () => {
    const { riseMm, leastCoverMm } = outOfLevel(1, 120, 10);
    expect(riseMm).toBeCloseTo(2.0946, 3);
    expect(leastCoverMm).toBeCloseTo(8.9527, 3);
  });
});

describe('an epoxy bed', () => {
  const wish = {
    boxLengthMm: 120,
    boxWidthMm: 88,
    depthMm: 4,
    sinkMm: 3,
    masters: [{ volumeMl: 12, heightMm: 12, count: 3 }],
    mix: { by: 'volume' as const, partA: 2, partB: 1, densityAGPerMl: 1.15, densityBGPerMl: 1 },
    workMin: 15,
    firmMin: 90,
    ratedC: 23,
    roomC: 13,
  };

  test('what is sunk comes off resin and rubber alike, by hand; a cold room slows it', () => {
    const bed = bedPlan(wish);
    // 120 · 88 · 4 mm = 42.24 mL less 3 × 12 · 3/12.
    expect(bed.resinMl).toBeCloseTo(33.24, 9);
    expect([bed.mlA, bed.mlB, bed.gramsA]).toEqual([
      expect.closeTo(22.16, 9),
      expect.closeTo(11.08, 9),
      expect.closeTo(25.484, 9),
    ]);
    expect(bed.masters).toEqual([{ sunkMl: 3, volumeMl: 9, heightMm: 9 }]);
    expect([bed.workMin, bed.firmMin]).toEqual([30, 180]);
  });

  test.each([
    ['deeper than the bed', { sinkMm: 5 }],
    ['a master that drowns', { sinkMm: 12, depthMm: 20 }],
  ])('%s is refused', (_what, change) => {
    expect(() => bedPlan({ ...wish, ...change })).toThrow();
  });
});

test('a filling test gives the masters’ volume back, and refuses more than the empty box', () => {
  const planned = plan(
    check(planSchema, {
      pour: 'open-face',
      masters: [{ volumeMl: 12.6, lengthMm: 110, widthMm: 16.5, heightMm: 17, count: 3 }],
      mix: { by: 'mass', partA: 10, partB: 1 },
      potLifeMin: 20,
      demoldMin: 240,
    }),
  );
  const blockMl = (planned.boxLengthMm * planned.boxWidthMm * planned.boxHeightMm) / 1000;
  expect(volumeByFilling(blockMl, planned.pours[0]?.netMl ?? 0, 3)).toBeCloseTo(12.6, 9);
  expect(() => volumeByFilling(blockMl, blockMl + 1, 3)).toThrow(/holds/);
});

describe('bubbles and pot life', () => {
  test('vacuum: four times the cup, and what it spends; without: the stream is the slow part', () => {
    // 3 stirring + 2.5 vacuum + 300/250 of pouring of 20 min; without, 3 + 300/70.
    const vacuum = bubbleTimes({ school: 'vacuum', mixMl: 300, potLifeMin: 20 });
    expect(vacuum).toMatchObject({ cupMl: 1200, degasMin: 2.5, pourMin: 1.2, leftMin: expect.closeTo(13.3, 9) });
    const stream = bubbleTimes({ school: 'thin-stream', mixMl: 300, potLifeMin: 20 });
    expect([stream.cupMl, stream.leftMin]).toEqual([null, expect.closeTo(20 - 3 - 300 / 70, 9)]);
  });

  test('too fast a rubber is said', () => {
    expect(bubbleTimes({ school: 'thin-stream', mixMl: 900, potLifeMin: 12 }).say).toMatch(/more than its pot life/);
    expect(bubbleTimes({ school: 'vacuum', mixMl: 250, potLifeMin: 8 }).say).toMatch(/leave only/);
  });
});

describe('which rubber', () => {
  const soft = { hardnessScale: '00' as const, hardness: 45, tearKnPerM: 20 };
  const firm = { hardnessScale: 'A' as const, hardness: 28, tearKnPerM: 22 };
  const weak = { hardnessScale: 'A' as const, hardness: 12, tearKnPerM: 8 };

  test.each([
    ['soft for a wrap', soft, { pour: 'wrap', undercutMm2: 0 }, 0],
    ['firm for two halves', firm, { pour: 'two-piece', undercutMm2: 200 }, 0],
    ['firm for a wrap is 10 too stiff', firm, { pour: 'wrap', undercutMm2: 0 }, 10],
    ['soft for two halves is 10 too soft', soft, { pour: 'two-piece', undercutMm2: 0 }, 10],
    ['one that tears, cut open', weak, { pour: 'wrap', undercutMm2: 0 }, 10],
    ['undercuts want the softer end', { ...firm, hardness: 22 }, { pour: 'open-face', undercutMm2: 100 }, 2],
  ] as const)('%s', (_what, rubber, need, miss) => {
    expect(suits(rubber, need).miss).toBeCloseTo(miss, 9);
  });

  test('nothing is claimed of one whose hardness is not known', () => {
    expect(
      suits({ hardnessScale: null, hardness: null, tearKnPerM: null }, { pour: 'wrap', undercutMm2: 0 }).miss,
    ).toBeNull();
  });

  test('sulphur stops platinum and not tin; an unknown cure is taken for platinum', () => {
    expect([pairing('sulphur clay bed', 'platinum').risk, pairing('sulphur clay bed', 'tin').risk]).toEqual([
      'stops',
      'fine',
    ]);
    expect(pairing('print', null)).toEqual(pairing('print', 'platinum'));
  });
});
