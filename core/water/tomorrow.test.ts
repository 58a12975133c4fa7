import { describe, expect, test } from 'vitest';
import { modulus } from '../plastisol/hardness.ts';
import { check } from '../validate.ts';
import { firms, tomorrow, tomorrowSchema } from './tomorrow.ts';

const reading = (cup: string, hours: number, c: number, value: number) => ({ cup, hours, c, value });

describe('how baits firm', () => {
  test('nobody read one twice: the starting values', () => {
    const { perDegree, perLogHour, n } = firms({ readings: [reading('a', 24, 20, 30)] });
    expect([perDegree.value, perLogHour.value, n]).toEqual([0.25, 4, 0]);
  });
  test('two hundred cups that firm by 0.4 a degree and 6 a tenfold say so', () => {
    const readings = Array.from({ length: 200 }, (_, i) => [
      reading(`c${i}`, 2.4, 20, 30 + (i % 7)),
      reading(`c${i}`, 24, 20, 36 + (i % 7)),
      reading(`c${i}`, 24, 10, 40 + (i % 7)),
    ]).flat();
    const { perDegree, perLogHour, n } = firms({ readings });
    expect(n).toBe(400);
    expect(perDegree.value).toBeCloseTo(0.4, 1);
    expect(perLogHour.value).toBeCloseTo(6, 1);
    expect(perDegree.sd).toBeLessThan(0.03);
  });
  test('two readings after each other at one heat tell nothing of either', () =>
    expect(firms({ readings: [reading('a', 24, 20, 30), reading('a', 24.2, 20.5, 36)] })).toMatchObject({
      n: 0,
      perLogHour: { value: 4 },
    }));
  test('one pair moves it a little, to its own side', () => {
    const { perLogHour } = firms({ readings: [reading('a', 2.4, 20, 30), reading('a', 24, 20, 38)] });
    expect(perLogHour.value).toBeGreaterThan(4);
    expect(perLogHour.value).toBeLessThan(8);
  });
});

const ask = (input: object) => tomorrow(check(tomorrowSchema, { hardness: 30, now: { hours: 24, c: 20 }, ...input }));

describe('tomorrow’s swim', () => {
  test('cured and at its own heat it swims as it was read', () => {
    const { faster, fasterLow, fasterHigh, hardnessThen } = ask({ hardnessC: 20, cured: { hours: 24, c: 20 } });
    expect([faster, fasterLow, fasterHigh, hardnessThen]).toEqual([1, 1, 1, 30]);
  });
  test('tried at two hours and 38 °C, fished at 8 °C: by hand', () => {
    const { hardnessNow, hardnessThen, faster, fasterLow, fasterHigh } = ask({
      hardnessC: 20,
      now: { hours: 2.4, c: 38 },
      cured: { c: 8 },
    });
    // 30 − 0.25 × 18 − 4; 30 + 0.25 × 12.
    expect(hardnessNow).toBeCloseTo(21.5, 9);
    expect(hardnessThen).toBeCloseTo(33, 9);
    const mpa = (value: number) => modulus({ scale: '00', value }).mpa;
    expect(faster).toBeCloseTo(Math.sqrt(mpa(33) / mpa(21.5)), 9);
    // exp(0.0103 × 11.5 ÷ 2): six parts of a hundred.
    expect(faster).toBeCloseTo(1.061, 3);
    expect(fasterLow).toBeGreaterThan(1);
    // ±1.96 × 0.0103 ÷ 2 × √((30 × 0.125)² + (1 × 2)²)
    expect(fasterHigh / faster).toBeCloseTo(Math.exp(1.96 * 0.00515 * Math.hypot(3.75, 2)), 6);
  });
  test('older than two days it firms no more', () =>
    expect(ask({ now: { hours: 48, c: 20 }, cured: { c: 20 } }).hardnessNow).toBe(
      ask({ now: { hours: 900, c: 20 }, cured: { c: 20 } }).hardnessNow,
    ));
  test('where it leaves the scale it says so', () => {
    expect(() => ask({ hardness: 58, cured: { hours: 24, c: -2 } })).toThrow(/scale 00 tells nothing/);
    expect(() => ask({ hardness: 6, now: { hours: 0, c: 40 }, cured: { c: 20 } })).toThrow(/scale 00 tells nothing/);
  });
});
