import { describe, expect, test } from 'vitest';
import { microwave } from '../heat/microwave.ts';
import { toLayOut } from '../process/layOut.ts';
import { type Bench, type LaidOutCup, type LaidOutLead, laidOutSession } from './laidOut.ts';
import { learntHands } from './learntHands.ts';

const BENCH: Bench = {
  roomC: 12,
  watts: 900,
  efficiency: 0.5,
  school: 'full-power',
  degassing: 'none',
  injectors: 1,
  platePlaces: 0,
  keepWarm: true,
};
const CUP: LaidOutCup = { id: 'a', leadId: null, hex: '#ffffff', massG: 270, heats: [], limits: [] };
const MOLD: LaidOutLead['molds'][number] = {
  moldId: 'm',
  kind: 'aluminium',
  fill: 'injection',
  cavities: 4,
  shots: 3,
  opens: { waitS: [84, 120], basis: 'heat' },
};
const LEAD: LaidOutLead = { id: 'a', layers: [{ joins: null }], cups: [{ id: 'a', layers: [0] }], molds: [MOLD] };

describe('an evening as it was laid out', () => {
  test('a cold cup is cooked by the oven’s own bursts; its shots wait as its mold does, in its way’s window', () => {
    const session = laidOutSession([CUP], [LEAD], BENCH);
    const { bursts } = microwave({
      massG: 270,
      fromC: 12,
      toC: 175,
      watts: 900,
      efficiency: 0.5,
      cpJPerGK: 1.8,
      school: 'full-power',
    });
    expect(session?.cups).toEqual([
      expect.objectContaining({ id: 'a', bursts: bursts.map(({ seconds }) => seconds), lightness: 1, degasS: 0 }),
    ]);
    expect(session?.molds).toEqual([{ id: 'm', openS: 60, demoldS: [84, 120] }]);
    expect(session?.shots).toEqual([
      {
        moldId: 'm',
        count: 3,
        goes: [{ cupIds: ['a'], fillS: 70, drawS: 15, lowC: 158, highC: 180, injected: true, waitS: 0 }],
      },
    ]);
    expect(session?.inOrder).toBe(true);
  });
  test('one that was cooked is only heated again; under vacuum it waits for the pump', () => {
    const session = laidOutSession([{ ...CUP, heats: [{ c: 172 }] }], [LEAD], { ...BENCH, degassing: 'vacuum' });
    expect(session?.cups[0]?.bursts).toEqual([session?.cups[0]?.reheatS]);
    expect(session?.cups[0]?.degasS).toBe(120);
  });
  test('layers that are melted on wait for a cold one; pushed together they need two injectors', () => {
    const layered = (joins: 'melted' | 'together' | 'hot') =>
      laidOutSession(
        [CUP, { ...CUP, id: 'b', leadId: 'a' }],
        [{ ...LEAD, layers: [{ joins: null }, { joins }], cups: [...LEAD.cups, { id: 'b', layers: [1] }] }],
        BENCH,
      );
    expect(layered('melted')?.shots[0]?.goes.map(({ waitS, cupIds }) => [waitS, cupIds])).toEqual([
      [84, ['a']],
      [0, ['b']],
    ]);
    expect(layered('hot')?.shots[0]?.goes.map(({ waitS }) => waitS)).toEqual([0, 0]);
    expect(layered('together')).toMatchObject({ injectors: 2, shots: [{ goes: [{ cupIds: ['a', 'b'] }] }] });
  });
  test('flake that bears less than the mold needs does not stop it, and hands as they are learnt count', () => {
    const hands = new Map([['m', { fillS: 41, openS: 33 }]]);
    const tender = { ...CUP, limits: [{ name: 'Copper', c: 150 }] };
    const session = laidOutSession([tender], [LEAD], { ...BENCH, hands });
    expect(session?.shots[0]?.goes[0]).toMatchObject({ fillS: 41, lowC: 158 });
    expect(session?.molds[0]?.openS).toBe(33);
  });
  test('nothing left to draw is no evening; a cup that nobody wants any more is left out; a full mold is opened first', () => {
    expect(laidOutSession([CUP], [{ ...LEAD, molds: [{ ...MOLD, shots: 0 }] }], BENCH)).toBeNull();
    expect(laidOutSession([CUP, { ...CUP, id: 'z' }], [LEAD], BENCH)?.cups.map(({ id }) => id)).toEqual(['a']);
    expect(laidOutSession([CUP], [{ ...LEAD, molds: [{ ...MOLD, fullForS: 30 }] }], BENCH)?.molds[0]?.fullForS).toBe(
      30,
    );
  });
});

describe('what is laid out', () => {
  const cup = {
    code: 'P1',
    recipeName: 'Sea Pink',
    cookMl: 200,
    molds: [{ name: 'Sandlance × 4', kind: 'aluminium' as const, fill: 'injection' as const, rods: false, shots: 3 }],
    plan: { items: [{ materialName: 'Sea Pink liquid' }] },
    parts: [{ name: 'Soft 22' }],
    layers: [{}],
  };
  const names = (cups: (typeof cup)[], degassing: 'none' | 'vacuum' = 'none') =>
    toLayOut(cups, { degassing }).map(({ name }) => name);
  test('each thing once, with the cups that want it', () => {
    const two = toLayOut([cup, { ...cup, code: 'P2', recipeName: 'Lantern' }], { degassing: 'none' });
    expect(two.filter(({ name }) => name === 'Soft 22')).toEqual([{ name: 'Soft 22', why: 'for Sea Pink, Lantern' }]);
    expect(two.filter(({ name }) => name === 'Sandlance × 4')).toHaveLength(1);
    expect(two[0]?.name).toBe('2 glasses, dry');
  });
  test('what only some ways need', () => {
    expect(names([cup])).toContain('Clamps');
    expect(names([cup])).not.toContain('Quench bowl');
    const dipped = {
      ...cup,
      molds: [{ ...cup.molds[0], name: 'Rods', kind: 'dip-rods' as const, fill: 'dip' as const }],
    };
    expect(names([dipped as never])).toEqual(expect.arrayContaining(['Quench bowl', 'Rods, oiled and dry']));
    expect(names([{ ...cup, layers: [{}, {}] }])).toContain('Heat gun');
    expect(names([cup], 'vacuum')).toContain('Vacuum chamber');
    expect(names([cup])).not.toContain('Vacuum chamber');
  });
});

describe('hands that are learnt', () => {
  const turn = (handsS: number, waitedS = 100) => ({ handsS, waitedS });
  test('nobody was seen: the starting guess of 130 s', () =>
    expect(learntHands(4, [])).toEqual({ handsS: 130, openS: 60, fillS: 70, turns: 0, waitedS: null }));
  test('the middle of three counts as much as the guess', () =>
    // (3 × 70 + 3 × 130) ÷ 6
    expect(learntHands(4, [turn(60), turn(70), turn(400)])).toMatchObject({ handsS: 100, turns: 3, waitedS: 100 }));
  test('a pause between two shots is no work', () => expect(learntHands(4, [turn(700)]).turns).toBe(0));
  test('opening and filling keep their proportion', () => {
    const { handsS, openS, fillS } = learntHands(
      4,
      Array.from({ length: 30 }, () => turn(65)),
    );
    expect(openS + fillS).toBeCloseTo(handsS, 9);
    expect(openS / fillS).toBeCloseTo(60 / 70, 9);
    expect(handsS).toBeCloseTo((30 * 65 + 3 * 130) / 33, 9);
  });
});
