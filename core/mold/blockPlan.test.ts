import { describe, expect, test } from 'vitest';
import { type Choices, planBlock, type Rubber, STARTING } from './blockPlan.ts';

const size = { volumeMl: 12.6, lengthMm: 110, widthMm: 16.5, heightMm: 17 };
const rubber: Rubber = {
  mix: { partA: 10, partB: 1, by: 'mass' },
  potLifeMin: 20,
  demoldMin: 240,
  ratedC: 23,
  pricePerKgMinor: null,
};
const choices: Choices = { ...STARTING, way: 'open-face', roomC: 23 };
const plan = (part: Partial<Choices> = {}, of = size) => planBlock(of, rubber, { ...choices, ...part });

describe('a block for what was measured', () => {
  // 110 + 2 × 10 long; 3 × 16.5 + 2 × 8 + 2 × 10 wide; 17 + 10 high.
  const blockMl = (130 * 85.5 * 27) / 1000;

  test('its box, and rubber for what the masters leave of it, with 7 % for the cup', () => {
    const found = plan();
    expect(found?.plan).toMatchObject({ boxLengthMm: 130, boxWidthMm: 85.5, boxHeightMm: 27, potLifeMin: 20 });
    expect(found?.plan.pours[0]?.netMl).toBeCloseTo(blockMl - 3 * 12.6, 6);
    expect(found?.plan.pours[0]?.mixMl).toBeCloseTo((blockMl - 3 * 12.6) * 1.07, 6);
    expect([found?.thinnest.mm, found?.bed, found?.making]).toEqual([8, null, { hold: 'glue', bubbles: 'vacuum' }]);
  });

  test('a density that no tin tells is the usual one of rubber, 1.1 g/mL', () => {
    const [pour] = plan()?.plan.pours ?? [];
    expect((pour?.gramsA ?? 0) + (pour?.gramsB ?? 0)).toBeCloseTo((pour?.mixMl ?? 0) * 1.1, 6);
    const told = planBlock(size, { ...rubber, mix: { ...rubber.mix, densityAGPerMl: 1.3 } as Rubber['mix'] }, choices);
    expect(told?.plan.pours[0]?.gramsA).toBeGreaterThan((pour?.gramsA ?? 0) * 1.1);
  });

  test('in a bed the masters are lower and smaller, and what is sunk leaves the resin', () => {
    const found = plan({ hold: 'bed' });
    const sunk = (12.6 * 1.5) / 17;
    expect(found?.bed?.resinMl).toBeCloseTo((130 * 85.5 * 3) / 1000 - 3 * sunk, 6);
    expect(found?.master).toMatchObject({ heightMm: 15.5, volumeMl: expect.closeTo(12.6 - sunk, 9) });
    expect(found?.plan.boxHeightMm).toBeCloseTo(25.5, 9);
    expect(found?.making).toMatchObject({ hold: 'bed', bed: { depthMm: 3, sinkMm: 1.5, workMin: 20, firmMin: 120 } });
  });

  test('a wrap stands on end in its block unless it is laid down: as high as it is long', () => {
    // On end: 17 + 20 long, 3 × 16.5 + 2 × 8 + 20 wide, 110 + 10 high. Lying: as an open face.
    expect(plan({ way: 'wrap' })?.plan).toMatchObject({ boxLengthMm: 37, boxWidthMm: 85.5, boxHeightMm: 120 });
    expect(plan({ way: 'wrap' })?.plan.pours[0]?.netMl).toBeCloseTo((37 * 85.5 * 120) / 1000 - 3 * 12.6, 6);
    expect(plan({ way: 'wrap' })?.making.onEnd).toBe(true);
    const lying = plan({ way: 'wrap', onEnd: false });
    expect(lying?.plan).toMatchObject({ boxLengthMm: 130, boxHeightMm: 27 });
    expect(lying?.making.onEnd).toBeUndefined();
    // What has a floor to lie on never stands.
    expect(plan({ onEnd: true })?.plan.boxHeightMm).toBe(27);
  });

  test('two halves are bedded in clay: resin stays away, and is not promised', () => {
    const found = plan({ hold: 'bed', way: 'two-piece' });
    expect([found?.bed, found?.making.hold, found?.plan.pours.length]).toEqual([null, 'glue', 2]);
  });

  test('where the masters were dragged to goes into the record', () => {
    const places = [
      { xMm: 10, yMm: 2 },
      { xMm: 10, yMm: 30 },
      { xMm: 10, yMm: 60 },
    ];
    const found = plan({ places });
    expect([found?.thinnest.mm, found?.making.places]).toEqual([2, places]);
  });

  test('a filling test stands in for the volume, and is taken over it', () => {
    const filledMl = blockMl - 3 * 12.5;
    for (const volumeMl of [null, 99])
      expect(plan({ filledMl }, { ...size, volumeMl } as typeof size)?.input.masters[0]?.volumeMl).toBeCloseTo(12.5, 6);
    expect(() => plan({ filledMl: blockMl + 1 })).toThrow();
  });

  test.each([
    ['the master’s volume', { ...size, volumeMl: null }, rubber],
    ['how it is mixed', size, { ...rubber, mix: null }],
    ['its pot life', size, { ...rubber, potLifeMin: null }],
    ['when it sets', size, { ...rubber, demoldMin: null }],
  ])('there is none while %s is not known', (_, of, tin) => {
    expect(planBlock(of, tin, choices)).toBeNull();
  });
});
