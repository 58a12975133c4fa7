import { describe, expect, test } from 'vitest';
import type { CupNow, NextMold } from './cupNow.ts';
import { maySay, saidOf, saysOf, TICK_IDS, TICKS, type Ticked } from './evidence.ts';
import { foamsBy } from './heatNext.ts';
import { nextOf } from './next.ts';
import { shotStage, wayInto } from './shotNow.ts';
import { asBefore, stageOf, WAYS, type WayId, wayOf } from './ways.ts';

describe('which way a mold is filled', () => {
  test.each<[WayId, Parameters<typeof wayOf>[0]]>([
    ['injector', { kind: 'aluminium', fill: 'injection', cups: 1, layers: 1, rods: false }],
    ['together', { kind: 'aluminium', fill: 'injection', cups: 2, layers: 1, rods: false }],
    ['rods', { kind: 'aluminium', fill: 'injection', cups: 1, layers: 1, rods: true }],
    ['printed', { kind: 'printed', fill: 'injection', cups: 1, layers: 1, rods: false }],
    ['gravity', { kind: 'cast', fill: 'gravity', cups: 1, layers: 1, rods: false }],
    ['open', { kind: 'silicone-open', fill: 'open-pour', cups: 1, layers: 1, rods: false }],
    ['layers', { kind: 'silicone-open', fill: 'open-pour', cups: 1, layers: 2, rods: false }],
    ['wrap', { kind: 'silicone-wrap', fill: 'open-pour', cups: 1, layers: 1, rods: false }],
    ['two-piece', { kind: 'silicone-two-piece', fill: 'open-pour', cups: 1, layers: 1, rods: false }],
    ['dip', { kind: 'dip-rods', fill: 'dip', cups: 1, layers: 1, rods: true }],
  ])('%s', (id, of) => expect(wayOf(of).id).toBe(id));

  test('each has a way to fill, a way out, and asks only what may be said of a shot', () => {
    for (const way of Object.values(WAYS)) {
      expect(way.fill.length).toBeGreaterThan(20);
      expect(way.out.length).toBeGreaterThan(20);
      for (const what of [...way.before, ...way.after]) expect(TICKS[what].about).toBe('shot');
      expect(way.topUpS > 0).toBe(way.topUp !== '');
    }
  });
});

describe('a shot after it was filled', () => {
  const { injector, open, dip } = WAYS;
  test.each([
    ['is held', injector, 0, 100, 'hold', 10],
    ['to the last second', injector, 9, 91, 'hold', 1],
    ['then topped up', injector, 10, 90, 'top-up', 45],
    ['then cools', injector, 55, 45, 'cool', 45],
    ['then is opened', injector, 100, 0, 'open', 0],
    ['one that opens sooner is topped up no longer', injector, 30, 0, 'open', 0],
    ['an open face is topped up at once', open, 0, 300, 'top-up', 45],
    ['a dipped rod cools', dip, 0, 45, 'cool', 45],
  ] as const)('%s', (_, way, since, opens, stage, leftS) =>
    expect(stageOf(way, since, opens)).toEqual({ stage, leftS }),
  );
});

const NOW = Date.parse('2026-03-02T19:00:00Z');
const iso = (s: number) => new Date(NOW + s * 1000).toISOString();
const tick = (what: Ticked['what'], said: string, nth: number | null = null, more: Partial<Ticked> = {}): Ticked => ({
  id: `${what} ${nth} ${said}`,
  what,
  said,
  moldId: nth === null ? null : 'm',
  nth,
  layer: null,
  at: iso(-5),
  ...more,
});
const mold: NextMold = {
  moldId: 'm',
  name: 'Block',
  kind: 'aluminium',
  fill: 'injection',
  cavities: 2,
  shots: 3,
  opensAt: iso(90),
};
const cup = (more: Partial<CupNow>): CupNow => ({
  molds: [mold],
  shots: [{ id: 's1', moldId: 'm', marks: [], at: iso(-4) }],
  heats: [{ c: 172, at: iso(-30) }],
  doses: ['blue'],
  recipeItems: ['blue'],
  limits: [],
  ticks: [],
  nowMs: NOW,
  ...more,
});
const next = (more: Partial<CupNow>) => nextOf(cup(more), (c) => `${c} °C`);

describe('the card while hands are at a mold', () => {
  test('it is held for what is left of the ten seconds', () =>
    expect(next({})).toMatchObject({ do: 'hold', nth: 1, leftS: 6, say: 'Hold light pressure: Block.' }));
  test('said that it was held, it waits to be topped up when nothing else is to be done', () => {
    expect(next({ ticks: [tick('held', 'yes', 1)] }).do).toBe('wait');
    expect(next({ ticks: [tick('held', 'yes', 1)], nowMs: NOW + 10_000 })).toMatchObject({ do: 'top', leftS: 41 });
    expect(next({ ticks: [tick('held', 'yes', 1), tick('topped', 'yes', 1)], nowMs: NOW + 10_000 }).do).toBe('wait');
  });
  test('another mold that stands empty is filled first', () => {
    const other = { ...mold, moldId: 'n', name: 'Other', opensAt: null };
    expect(next({ molds: [mold, other], nowMs: NOW + 10_000 })).toMatchObject({ do: 'shot', say: /Other/ });
  });
  test('a tick of another shot says nothing of this one', () =>
    expect(next({ ticks: [tick('held', 'yes', 2)] }).do).toBe('hold'));
  test('a mold that is opened by its clock is opened, held or not', () =>
    expect(next({ molds: [{ ...mold, opensAt: iso(-1) }], nowMs: NOW + 20_000 }).do).toBe('look'));
  test('where it stands is told of the very shot', () =>
    expect(shotStage(cup({}), mold, { id: 's1', moldId: 'm', marks: [], at: iso(-4) })).toMatchObject({
      nth: 1,
      stage: 'hold',
      leftS: 6,
    }));
  test('rods make it another way', () => expect(wayInto(cup({}), { ...mold, rods: true }).id).toBe('rods'));
});

describe('a cup that is not clear yet', () => {
  test('is cooked on, not coloured, whatever was read between two bursts', () =>
    expect(next({ shots: [], doses: [], heats: [{ c: 96, at: iso(-3) }] })).toMatchObject({
      do: 'heat',
      kind: 'cook',
      say: 'Cook on to 175 °C: it is at 96 °C.',
    }));
  test('is coloured once it was', () =>
    expect(
      next({
        shots: [],
        doses: [],
        heats: [
          { c: 96, at: iso(-90) },
          { c: 170, at: iso(-3) },
        ],
      }).do,
    ).toBe('dose'));
  test('in its window but never clear is not cooked yet; colour that went in cold does not make it so', () => {
    expect(next({ shots: [], doses: [], heats: [{ c: 162, at: iso(-3) }] }).do).toBe('heat');
    expect(next({ shots: [], heats: [{ c: 162, at: iso(-3), kind: 'cook' }] }).do).toBe('heat');
    expect(next({ shots: [], heats: [{ c: 162, at: iso(-3), kind: 'reading' }] }).do).toBe('shot');
  });
  test('with flake in it that turns before, nobody is told to cook it on', () => {
    const tender = { limits: [{ name: 'Copper', c: 170 }], heats: [{ c: 162, at: iso(-3), kind: 'cook' }], shots: [] };
    expect(next({ ...tender, molds: [{ ...mold, opensAt: null }] }).do).toBe('shot');
    expect(next({ ...tender, doses: [] }).do).toBe('heat');
  });
  test('a second cup of a layered bait is cooked on, though the first was drawn from', () => {
    const set = {
      goes: [
        { what: 'belly', joins: null, cups: ['a'] },
        { what: 'back', joins: 'melted' as const, cups: ['b'] },
      ],
      cups: [
        {
          id: 'a',
          name: 'A',
          heats: [{ c: 172, at: iso(-3) }],
          doses: ['x'],
          recipeItems: ['x'],
          limits: [],
          drawnOf: true,
        },
        {
          id: 'b',
          name: 'B',
          heats: [{ c: 88, at: iso(-3), kind: 'cook' }],
          doses: [],
          recipeItems: ['x'],
          limits: [],
          drawnOf: false,
        },
      ],
    };
    const belly = [{ id: 's1', moldId: 'm', marks: [], at: iso(-200), gone: 1 }];
    const full = { ...mold, shots: 1, opensAt: null };
    expect(next({ set, shots: belly, molds: [full] })).toMatchObject({ do: 'heat', kind: 'cook', cup: 'b' });
  });
  test('for a printed mold or a dip it is first read when it has fallen to it', () => {
    const printed = [{ ...mold, kind: 'printed' as const, opensAt: null }];
    const at = (c: number) => next({ shots: [], molds: printed, heats: [{ c, at: iso(-3), kind: 'cook' }] });
    expect(at(150).do).toBe('shot');
    expect(at(140)).toMatchObject({ do: 'heat', kind: 'cook' });
  });
});

describe('bubbles', () => {
  const dose = { at: iso(-60) };
  test.each([
    ['nothing where the workshop degasses nothing', 'none', [], [dose], undefined],
    ['after the last dose', 'vacuum', [], [dose], 'vacuum'],
    ['not twice', 'vacuum', [tick('degassed', 'vacuum')], [dose], undefined],
    ['said no is said', 'rest', [tick('degassed', 'no')], [dose], undefined],
    ['again once pigment went in after', 'rest', [tick('degassed', 'rest')], [dose, { at: iso(-1) }], 'rest'],
  ] as const)('%s', (_, how, ticks, doses, due) =>
    expect(foamsBy({ doses: [...doses], ticks: [...ticks] }, how)).toBe(due),
  );
  test('are got out before the first draw', () =>
    expect(next({ shots: [], foams: 'vacuum' })).toMatchObject({ do: 'degas', how: 'vacuum' }));
});

describe('what was said', () => {
  const shot = { moldId: 'm', nth: 2 };
  const ticks = [
    tick('clamps', 'opposite', 1),
    tick('mold', 'warm', 1),
    tick('clamps', 'none', 2),
    tick('surface', 'melted', 2, { layer: 1 }),
  ];
  test('the last word stands, of its own shot and layer; all else is not known', () => {
    expect(saidOf(ticks, 'clamps', shot)?.said).toBe('none');
    expect(saidOf([...ticks, tick('clamps', 'opposite', 2)], 'clamps', shot)?.said).toBe('opposite');
    expect(saidOf(ticks, 'mold', shot)).toBeUndefined();
    expect(saidOf(ticks, 'surface', shot)).toBeUndefined();
    expect(saidOf(ticks, 'surface', { ...shot, layer: 1 })?.said).toBe('melted');
    expect(saidOf(ticks, 'clamps', { moldId: 'other', nth: 2 })).toBeUndefined();
  });
  test('as before carries over what was said of the shot before and is not said yet', () => {
    expect(asBefore(ticks, WAYS.injector, shot)).toEqual([{ what: 'mold', said: 'warm' }]);
    expect(asBefore(ticks, WAYS.injector, { ...shot, nth: 1 })).toEqual([]);
  });
  test('only what is in its list may be said, and each has its words', () => {
    expect(maySay('clamps', 'same-side')).toBe(true);
    expect(maySay('clamps', 'warm')).toBe(false);
    for (const what of TICK_IDS)
      for (const said of Object.keys(TICKS[what].says)) expect(saysOf(what, said)).not.toBe('');
  });
});
