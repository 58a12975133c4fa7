import { describe, expect, test } from 'vitest';
import type { Material } from '../../../contract/materials.ts';
import type { Pour } from '../../../contract/pours.ts';
import { cupTotals } from '../../../core/plastisol/cup.ts';
import type { Tap } from '../../api/outbox.ts';
import { foldTaps } from './cupState.ts';

const materials = [{ id: 'blue', name: 'Harbour Blue liquid' }] as Material[];
const at = '2026-03-02T19:00:00Z';

const pour = {
  id: 'p',
  ledgerId: 'l',
  layers: [{ place: 'whole', joins: null }],
  doses: [
    {
      seq: 7,
      id: 'd1',
      materialId: 'blue',
      materialName: 'Harbour Blue liquid',
      amount: 10,
      unit: 'drop',
      reverses: null,
      at,
    },
  ],
  heats: [{ seq: 3, id: 'h1', kind: 'cook', c: 175, at }],
  ticks: [],
  molds: [{ moldId: 'm', opensAt: null, opens: { waitS: [84, 120], basis: 'heat' } }],
  shots: [
    {
      seq: 4,
      id: 's1',
      moldId: 'm',
      parts: [{ layer: 0, pourId: 'p', doseSeq: 7, heatSeq: 3, ml: 45, at }],
      redone: [],
      at,
      marks: [{ cavity: 1, grade: 'sell', reason: null }],
    },
  ],
} as unknown as Pour;

const tap = (path: string, body: Record<string, unknown>, refused?: string): Tap => ({
  key: `${path} ${JSON.stringify(body)}`,
  n: 0,
  path,
  body,
  said: '',
  about: 'p',
  ...(refused ? { refused } : {}),
});

const fold = (...taps: Tap[]) => foldTaps(pour, taps, materials);

describe('taps on their way are shown as if they had arrived', () => {
  test('with none, the pour is what the server said', () => {
    const { doses, heats, shots } = fold();
    expect({ doses, heats, shots }).toEqual({ doses: pour.doses, heats: pour.heats, shots: pour.shots });
  });

  test('a dose counts in the total, and a later shot is pinned to it', () => {
    const folded = fold(
      tap('/ledgers/l/doses', { id: 'd2', materialId: 'blue', amount: 5, unit: 'drop' }),
      tap('/pours/p/shots', { id: 's2', moldId: 'm' }),
    );
    expect(cupTotals(folded.doses)).toEqual([{ materialId: 'blue', unit: 'drop', amount: 15 }]);
    expect(folded.shots[1]).toMatchObject({ id: 's2', parts: [{ doseSeq: 8, heatSeq: 3 }], marks: [] });
    expect(folded.doses[1]?.materialName).toBe('Harbour Blue liquid');
  });

  test('an undo takes the dose out of the total but not out of the list', () => {
    const folded = fold(tap('/undo', { id: 'u1', rowId: 'd1' }));
    expect(cupTotals(folded.doses)).toEqual([]);
    expect(folded.doses).toHaveLength(2);
  });

  test('marks of a shot that is itself still on its way are kept with it; the newest of a cavity counts', () => {
    const folded = fold(
      tap('/pours/p/shots', { id: 's2', moldId: 'm' }),
      tap('/pours/p/shots/s2/marks', { marks: [{ cavity: 2, grade: 'remelt', reason: 'short' }] }),
      tap('/pours/p/shots/s1/marks', { marks: [{ cavity: 1, grade: 'remelt', reason: 'bubble' }] }),
    );
    expect(folded.shots[1]?.marks).toEqual([{ cavity: 2, grade: 'remelt', reason: 'short' }]);
    expect(folded.shots[0]?.marks).toEqual([{ cavity: 1, grade: 'remelt', reason: 'bubble' }]);
  });

  test('a reading is added, and taken back', () => {
    const reading = tap('/pours/p/heats', { id: 'h2', kind: 'reading', c: 168 });
    expect(fold(reading).heats.map((row) => row.c)).toEqual([175, 168]);
    expect(fold(reading, tap('/undo', { id: 'x', rowId: 'h2' })).heats.map((row) => row.c)).toEqual([175]);
    expect(fold(tap('/undo', { id: 'x', rowId: 's1' })).shots).toEqual([]);
  });

  test('what has arrived meanwhile is not counted twice', () => {
    const folded = fold(
      tap('/pours/p/shots', { id: 's1', moldId: 'm' }),
      tap('/pours/p/heats', { id: 'h1', kind: 'cook', c: 175 }),
      tap('/ledgers/l/doses', { id: 'd1', materialId: 'blue', amount: 10, unit: 'drop' }),
    );
    expect([folded.shots.length, folded.heats.length, folded.doses.length]).toEqual([1, 1, 1]);
  });

  test('a shot without Wi-Fi: its mold opens after its own wait at once, from when it was tapped', () => {
    const molds = [
      { moldId: 'm', kind: 'aluminium', opensAt: null, opens: { waitS: [84, 120, 150], basis: 'heat' } },
      {
        moldId: 'n',
        kind: 'silicone-open',
        opensAt: '2026-03-02T19:30:00.000Z',
        opens: { waitS: [300], basis: 'kind' },
      },
    ];
    const withMolds = { ...pour, molds } as unknown as Pour;
    const opens = (...taps: Tap[]) => foldTaps(withMolds, taps, materials).molds.map((mold) => mold.opensAt);
    const shot = tap('/pours/p/shots', { id: 's2', moldId: 'm', tappedAt: '2026-03-02T19:00:00.000Z' });
    // The second shot of this mold: its wall is warm.
    expect(opens(shot)).toEqual(['2026-03-02T19:02:00.000Z', '2026-03-02T19:30:00.000Z']);
    expect(opens(shot, tap('/pours/p/shots/s2/marks', { marks: [] }))).toEqual([null, '2026-03-02T19:30:00.000Z']);
    expect(opens(shot, tap('/undo', { id: 'x', rowId: 's2' }))).toEqual([null, '2026-03-02T19:30:00.000Z']);
  });

  test('what is on its way bears the moment it was tapped, whatever this device believes the time is', () => {
    const folded = fold(
      tap('/pours/p/heats', { id: 'h2', kind: 'reading', c: 168, tappedAt: '2026-03-02T19:08:00.000Z' }),
    );
    expect(folded.heats.at(-1)?.at).toBe('2026-03-02T19:08:00.000Z');
  });

  test('what was refused, or belongs to another cup, changes nothing', () => {
    const folded = fold(
      tap('/pours/p/shots', { id: 's9', moldId: 'm' }, 'closed'),
      tap('/pours/q/shots', { id: 's8', moldId: 'm' }),
      tap('/ledgers/k/doses', { id: 'd8' }),
    );
    expect([folded.shots.length, folded.doses.length]).toEqual([1, 1]);
  });

  test('the server’s own rows are left as they are', () => {
    const before = JSON.stringify(pour);
    fold(tap('/pours/p/shots/s1/marks', { marks: [{ cavity: 1, grade: 'remelt', reason: 'bent' }] }));
    expect(JSON.stringify(pour)).toBe(before);
  });
});
