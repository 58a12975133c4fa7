import { describe, expect, test } from 'vitest';
import { inMixes, mixTurn } from './inMixes.ts';

describe('one half in several mixes, one pair of hands', () => {
  // Each: 3 min of stirring, 2.5 under vacuum, 500 mL at 250 a minute: 7.5 min.
  test.each([
    ['in good time', 20, 2, 15, 5, true],
    ['after the first has thickened, which still bonds', 10, 2, 15, -5, true],
    ['after three pot lives: it may not hold', 7, 3, 22.5, -15.5, false],
  ])('%s', (_, potLifeMin, mixes, doneMin, leftMin, bonds) => {
    const found = inMixes({ school: 'vacuum', mixMl: 500, mixes, potLifeMin });
    expect(found).toEqual({ eachMin: 7.5, doneMin, leftMin, bonds });
  });

  test('without vacuum the stream is slow: 3 min and 700 mL at 70 a minute', () => {
    expect(inMixes({ school: 'thin-stream', mixMl: 700, mixes: 1, potLifeMin: 30 })).toMatchObject({ eachMin: 13 });
  });

  test('a pump of its own takes its own time', () => {
    expect(inMixes({ school: 'vacuum', mixMl: 250, mixes: 2, potLifeMin: 30, pumpMin: 4 }).doneMin).toBe(17);
  });
});

test.each([
  [[1, 1], 0, { half: 0, mix: 0, of: 1, again: false }],
  [[1, 1], 1, { half: 1, mix: 0, of: 1, again: false }],
  [[2, 3], 1, { half: 0, mix: 1, of: 2, again: false }],
  [[2, 3], 4, { half: 1, mix: 2, of: 3, again: false }],
  [[2, 3], 5, { half: 1, mix: 2, of: 3, again: true }],
])('of mixes %j, after %i', (mixes, made, turn) => expect(mixTurn(mixes, made)).toEqual(turn));
