import { describe, expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { celsius, g, inUnits, ml, mm, say } from './say.ts';

const METRIC = { system: 'metric', temperature: 'C' } as const;
const US = { system: 'us', temperature: 'F' } as const;

describe('a sentence is said in the units of whoever reads it', () => {
  test.each([
    [say`A wall of ${mm(3)} is too thin.`, 'A wall of 3 mm is too thin.', 'A wall of 0.12 in is too thin.'],
    [say`One shot needs ${ml(47.68)}.`, 'One shot needs 47.7 mL.', 'One shot needs 1.61 fl oz.'],
    [say`${g(4.2)} more at ${celsius(165)}.`, '4.2 g more at 165 °C.', '0.148 oz more at 329 °F.'],
    // A bound that would be rounded to nothing stands as it is.
    [say`At least ${mm(0.004)}.`, 'At least 0.004 mm.', 'At least 0.0001575 in.'],
    [say`${{ value: 0.125, as: 'percent' }} of ${{ value: 450, as: 'money' }}`, '12.5 % of 4.5', '12.5 % of 4.5'],
    [say`Nothing but ${'words'} and ${7}.`, 'Nothing but words and 7.', 'Nothing but words and 7.'],
  ])('%j', (said, metric, us) => {
    expect([said.text, inUnits(said, METRIC), inUnits(said, US)]).toEqual([metric, metric, us]);
  });

  test('money is said in the workshop’s own', () =>
    expect(inUnits(say`${{ value: 450, as: 'money' }} a pack`, US, (minor) => `$${minor / 100}`)).toBe('$4.5 a pack'));

  test('a sentence within a sentence keeps its figures', () => {
    const room = say`${mm(2)} at most`;
    expect(inUnits(say`A vent of ${mm(5)} breaks through; ${room} or a thinner pin.`, US)).toBe(
      'A vent of 0.2 in breaks through; 0.08 in at most or a thinner pin.',
    );
  });
});

test('a refusal carries its figures beside its words, where it has any', () => {
  const wall = new Failure('wall-too-thin', say`A wall of ${mm(3)} is too thin.`, 'wallMm');
  expect([wall.message, wall.said?.figures, wall.path]).toEqual([
    'A wall of 3 mm is too thin.',
    [{ value: 3, as: 'length' }],
    'wallMm',
  ]);
  expect(new Failure('never', say`It never cools.`).said).toBeUndefined();
});
