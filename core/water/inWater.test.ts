import { describe, expect, test } from 'vitest';
import { type Bait, inWater, saltedGPerMl } from './inWater.ts';

const BAIT: Bait = {
  wholeMl: 12,
  plasticGPerMl: 1.02,
  held: [],
  centroidMm: [45, 0, 0],
  planAreaMm2: 1400,
  waterGPerMl: 1.025,
};
const lead = { massG: 5.67, volumeMl: 0.5, atMm: [20, 0, -6] as [number, number, number], inside: true };
const hook = { massG: 1.57, volumeMl: 0.2, atMm: [40, 0, 3] as [number, number, number], inside: false };

/** Terminal speed by hand: ½·ρ·Cd·A·v² = Δm·g. */
const speed = (surplusG: number) =>
  Math.sign(surplusG) * 1000 * Math.sqrt((2 * (Math.abs(surplusG) / 1000) * 9.80665) / (1025 * 1.1 * 1400e-6));

describe('a bait in the water', () => {
  test('plain, it weighs its plastic and floats in the sea', () => {
    const found = inWater(BAIT);
    expect(found.massG).toBeCloseTo(12.24, 9);
    expect(found.sinks.mmPerS).toBeCloseTo(speed(12.24 - 12 * 1.025), 6);
    expect(found.sinks.buoyancy).toBe('floats');
  });

  test('what is set in takes the room of plastic, a hook beside it does not', () => {
    const found = inWater({ ...BAIT, held: [lead, hook] });
    const massG = 11.5 * 1.02 + 5.67 + 1.57;
    expect(found.plasticMl).toBeCloseTo(11.5, 9);
    expect(found.massG).toBeCloseTo(massG, 9);
    expect(found.sinks.mmPerS).toBeCloseTo(speed(massG - 12.2 * 1.025), 6);
    expect(found.sinks.densityGPerMl).toBeCloseTo(massG / 12.2, 9);
  });

  test('lead ahead of the middle brings the nose down, and an unknown middle says nothing', () => {
    expect(inWater({ ...BAIT, held: [lead] }).hangs?.noseUpDeg).toBeLessThan(-20);
    expect(inWater({ ...BAIT, held: [{ ...lead, atMm: [70, 0, -6] }] }).hangs?.noseUpDeg).toBeGreaterThan(20);
    expect(inWater({ ...BAIT, centroidMm: null }).hangs).toBeNull();
  });

  test('an insert without weight has room but no say in how it hangs', () => {
    const tube = { ...lead, massG: 0 };
    expect(inWater({ ...BAIT, held: [tube] }).plasticMl).toBeCloseTo(11.5, 9);
    expect(inWater({ ...BAIT, held: [tube] }).hangs).toEqual(inWater(BAIT).hangs);
  });

  test('what is set in never leaves less than nothing of plastic', () => {
    expect(inWater({ ...BAIT, held: [{ ...lead, volumeMl: 30 }] }).plasticMl).toBe(0.01);
  });

  // Grams over volumes, both added: (241.32 + 40) / (236.588 + 18.476).
  test.each([
    [0, 1.02],
    [40, 1.1029],
    [100, 1.207],
  ])('%d g of salt to a cup is %f g/mL', (grams, density) => {
    const cupG = 236.5882365 * 1.02;
    expect(saltedGPerMl(grams)).toBeCloseTo((cupG + grams) / (236.5882365 + grams / 2.165), 9);
    expect(saltedGPerMl(grams)).toBeCloseTo(density, 4);
  });
});
