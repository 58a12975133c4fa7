import { expect, test } from 'vitest';
import { ovenMinOf } from './ovenTime.ts';

const BENCH = {
  roomC: 20,
  watts: 1000,
  efficiency: 0.5,
  school: 'full-power',
  platePlaces: 0,
  keepWarm: false,
} as const;
// 300 g from 20 to 175 °C: 83,700 J, at 500 W. 85 s of it in the first half, 60 s after a stir, then 11,200 J at 350 W: 35 s in steps of five.
// 600 s × ln(155 ÷ 145) = 40.0 s until it is at 165: two shots 30 s apart are drawn of one heat; then it is at 160.2 °C,
// 8,000 J: 10 s, and 3,000 J at 350 W in steps of five.
const GLASS = { massG: 300, lowC: 165, shots: 8, shotS: 30, cups: 1 };
const [COOK_S, AGAIN_S, LOAD_S] = [180, 20, 10];
const TIMES = 3;

test.each([
  ['kept warm in the oven between shots', {}, { keepWarm: true }, 0],
  ['on a hot plate', {}, { platePlaces: 1 }, 0],
  ['nowhere', {}, {}, TIMES],
  ['two cups a shot, one place for them', { cups: 2 }, { platePlaces: 1 }, TIMES / 2],
  ['two cups a shot, more places than cups', { cups: 2 }, { platePlaces: 3, keepWarm: true }, 0],
  ['drawn before it has cooled', { shots: 2 }, {}, 0],
  ['and once after', { shots: 3 }, {}, 1],
  ['never drawn', { shots: 0 }, {}, 0],
] as const)('%s', (_, glass, bench, times) =>
  expect(ovenMinOf({ ...GLASS, ...glass }, { ...BENCH, ...bench })).toBeCloseTo(
    (LOAD_S + COOK_S + times * (LOAD_S + AGAIN_S)) / 60,
    6,
  ),
);

test('slow hands: it is heated before each shot, and from colder', () =>
  // 130 s: 20 + 155 × e^(−130 ÷ 600) = 144.8 °C, 16,300 J: 20 s, 6,300 J at 350 W.
  expect(ovenMinOf({ ...GLASS, shotS: 130 }, BENCH)).toBeCloseTo((LOAD_S + COOK_S + 7 * (LOAD_S + 40)) / 60, 6));
