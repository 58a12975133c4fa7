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
// From 165: 5,400 J, 10 s and one step of 350 W.
const GLASS = { massG: 300, lowC: 165, drawnForS: 470, cups: 1 };
const [COOK_S, AGAIN_S, LOAD_S] = [180, 15, 10];
// 600 s × ln(155 ÷ 145) = 40.0 s until it is at 165: twelve stretches of it, eleven times warmed up between.
const TIMES = 11;

test.each([
  ['kept warm in the oven between shots', {}, { keepWarm: true }, 0],
  ['on a hot plate', {}, { platePlaces: 1 }, 0],
  ['nowhere', {}, {}, TIMES],
  ['two cups a shot, one place for them', { cups: 2 }, { platePlaces: 1 }, TIMES / 2],
  ['two cups a shot, more places than cups', { cups: 2 }, { platePlaces: 3, keepWarm: true }, 0],
  ['drawn before it has cooled', { drawnForS: 39 }, {}, 0],
  ['and a little after', { drawnForS: 41 }, {}, 1],
  ['never drawn', { drawnForS: 0 }, {}, 0],
] as const)('%s', (_, glass, bench, times) =>
  expect(ovenMinOf({ ...GLASS, ...glass }, { ...BENCH, ...bench })).toBeCloseTo(
    (LOAD_S + COOK_S + times * (LOAD_S + AGAIN_S)) / 60,
    6,
  ),
);

test('drawn at all it may be still where it is as hot as it is cooked: it is warmed up at each shot, and no sum is endless', () =>
  expect(ovenMinOf({ ...GLASS, lowC: 190 }, BENCH)).toBeGreaterThan(ovenMinOf(GLASS, BENCH)));
