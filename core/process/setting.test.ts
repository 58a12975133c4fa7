import { describe, expect, test } from 'vitest';
import { isReleased, rubberNow } from './setting.ts';

const NOON = Date.parse('2026-05-02T12:00:00Z');
const mixed = (minutesAgo: number) => ({ kind: 'mixed', at: new Date(NOON - minutesAgo * 60_000).toISOString() });
const plan = { mixes: [1, 1], potLifeMin: 40, demoldMin: 300 };

describe('rubber in its box', () => {
  test.each([
    ['nothing is mixed', [], false, 'to-mix', 0, 0],
    ['39 minutes: one more to pour in', [mixed(39)], false, 'workable', 0, 1],
    ['at 40 it sets, 260 to go', [mixed(40)], false, 'setting', 0, 260],
    ['at 300 the first half is set', [mixed(300)], false, 'next-half', 0, 0],
    ['the second half has clocks of its own', [mixed(400), mixed(10)], false, 'workable', 1, 30],
    ['both are set', [mixed(900), mixed(301)], false, 'ready', 1, 0],
    ['a third mix is still of the second half', [mixed(900), mixed(800), mixed(50)], false, 'setting', 1, 250],
    ['it was taken out meanwhile', [mixed(60), mixed(50)], true, 'taken-out', 1, 0],
    ['a clock that goes wrong makes no minus', [mixed(-5)], false, 'workable', 0, 40],
  ] as const)('%s', (_, events, takenOut, stage, half, leftMin) => {
    expect(rubberNow(plan, [...events], takenOut, NOON)).toMatchObject({ stage, half, leftMin });
  });

  test('one half that is set is ready', () => {
    expect(rubberNow({ ...plan, mixes: [1] }, [mixed(300)], false, NOON)).toMatchObject({
      stage: 'ready',
      sinceMin: 300,
    });
  });

  // A half of two mixes: each has its own pot life, and it sets from the last.
  test.each([
    ['one of two is in', [mixed(10)], 'workable', 0, 1, 30],
    ['the second flows for its own 40 minutes', [mixed(50), mixed(15)], 'workable', 0, 2, 25],
    ['it sets from the last', [mixed(310), mixed(290)], 'setting', 0, 2, 10],
    ['never filled it waits for no next half', [mixed(500)], 'setting', 0, 1, 0],
    ['both in and set, the next half comes', [mixed(400), mixed(301)], 'next-half', 0, 2, 0],
    ['the next half begins with its own first', [mixed(800), mixed(700), mixed(5)], 'workable', 1, 1, 35],
  ] as const)('in two mixes: %s', (_, events, stage, half, mixesMade, leftMin) => {
    expect(rubberNow({ ...plan, mixes: [2, 1] }, [...events], false, NOON)).toMatchObject({
      stage,
      half,
      mixesMade,
      mixes: half === 0 ? 2 : 1,
      leftMin,
    });
  });

  test('the last word on the release agent counts', () => {
    const at = '2026-05-02T11:00:00Z';
    const said = (kind: string, step = 'release') => ({ kind, step, at });
    expect(isReleased([])).toBe(false);
    expect(isReleased([said('step')])).toBe(true);
    expect(isReleased([said('step'), said('step-undone')])).toBe(false);
    expect(isReleased([said('step-undone'), said('step'), said('step', 'board')])).toBe(true);
    expect(isReleased([said('step'), said('step-undone', 'board')])).toBe(true);
  });
});
