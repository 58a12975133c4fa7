import { describe, expect, test } from 'vitest';
import { factsOf } from '../../../core/schema.ts';
import { shapeSpecSchema, TAILS } from '../../../core/shape/spec.ts';
import { STARTS, USUAL_TAIL } from '../../../core/shape/starts.ts';
import { check } from '../../../core/validate.ts';
import { changed } from '../../parts/sheet/paths.ts';
import { TAIL_FIELDS } from './words.ts';

const [start] = STARTS;
if (!start) throw new Error('there is no shape to start from');
const { spec } = start;

describe('one figure of a shape is changed', () => {
  test('and nothing else of it', () => {
    const next = changed(spec, ['stations', '1', 'topMm'], 9.5);
    expect(next.stations[1]?.topMm).toBe(9.5);
    expect({ ...next.stations[1], topMm: spec.stations[1]?.topMm }).toEqual(spec.stations[1]);
    expect(next.stations[0]).toBe(spec.stations[0]);
    expect([next.wrist, next.tail, next.limbs]).toEqual([spec.wrist, spec.tail, spec.limbs]);
    expect(spec.stations[1]?.topMm).not.toBe(9.5);
  });

  test('a list stays a list', () =>
    expect(Array.isArray(changed(spec, ['stations', '0', 'at'], 0.1).stations)).toBe(true));
});

describe.each(TAILS)('the figures of a tail, %s', (kind) => {
  test.each(TAIL_FIELDS[kind].map(([field]) => field))(
    '%s is kept at both its bounds and refused beyond them',
    (field) => {
      const { least, most } = factsOf(shapeSpecSchema, ['tail', field]);
      const tail = { kind, ...USUAL_TAIL[kind] };
      const kept = (value: number) => check(shapeSpecSchema, { ...spec, tail: { ...tail, [field]: value } });
      for (const bound of [least, most]) expect(kept(bound as number).tail[field]).toBe(bound);
      for (const beyond of [(least as number) - 0.01, (most as number) + 0.01]) expect(() => kept(beyond)).toThrow();
    },
  );
});
