import { describe, expect, test } from 'vitest';
import type { Join, Place } from '../plan/layers.ts';
import { type CupNow, goneIn, type NextMold, type NextShot, type SetCup, setOfCups } from './cupNow.ts';
import { meaning, nextOf } from './next.ts';

const NOW = Date.parse('2026-03-02T19:00:00Z');
const ago = (seconds: number) => new Date(NOW - seconds * 1000).toISOString();

const mold = (moldId: string, change: Partial<NextMold> = {}): NextMold => ({
  moldId,
  name: `Mold ${moldId}`,
  kind: 'aluminium',
  fill: 'injection',
  cavities: 2,
  shots: 2,
  opensAt: null,
  ...change,
});

const shot = (moldId: string, marked: number, seq = 1): NextShot => ({
  id: `shot ${seq}`,
  moldId,
  marks: Array.from({ length: marked }, () => ({ grade: 'sell' })),
});

const heat = (c: number, secondsAgo = 30) => ({ c, at: ago(secondsAgo) });

const OPEN = mold('A', { fill: 'open-pour', kind: 'silicone-open' });
const PRINTED = mold('P', { kind: 'printed' });
const FLAKE = { name: 'Silver flake', c: 165 };

const cup = (change: Partial<CupNow>): CupNow => ({
  molds: [mold('A')],
  doses: ['blue'],
  recipeItems: ['blue'],
  limits: [],
  heats: [heat(172)],
  shots: [],
  nowMs: NOW,
  ...change,
});

const next = (change: Partial<CupNow>) => nextOf(cup(change), (c) => `${c} °C`);

describe('exactly one next thing', () => {
  test.each<[what: string, change: Partial<CupNow>, does: string, says: RegExp]>([
    ['a cold cup is cooked first', { heats: [], doses: [] }, 'heat', /^Cook to 175 °C/],
    ['a cooked one is coloured', { doses: [] }, 'dose', /^Put in the colour/],
    ['a coloured one is drawn from', {}, 'shot', /^Draw shot 1 of 2: Mold A/],
    ['under the window it is reheated', { heats: [heat(150)] }, 'heat', /^Reheat: 150 °C is under 158 °C/],
    ['over it, it is left to cool', { heats: [heat(185)] }, 'heat', /^Let it cool: 185 °C is over 180 °C/],
    [
      'of two molds the one that the cup suits is drawn',
      { heats: [heat(160)], molds: [OPEN, mold('B')] },
      'shot',
      /Mold B/,
    ],
    [
      'then the other wants it hotter',
      { heats: [heat(160)], molds: [OPEN] },
      'heat',
      /^Reheat: 160 °C is under 165 °C/,
    ],
    [
      'printed and injected share no window: the cool one waits for the cup to cool, no heat is spent',
      { heats: [heat(156)], molds: [PRINTED, mold('B')] },
      'heat',
      /^Let it cool: 156 °C is over 155 °C/,
    ],
    ['and the hot one is drawn first', { heats: [heat(170)], molds: [PRINTED, mold('B')] }, 'shot', /Mold B/],
    [
      'flake that bears less holds the cup back',
      { heats: [heat(176)], limits: [FLAKE] },
      'heat',
      /^Let it cool: 176 °C is over 165 °C/,
    ],
    ['once cooled to what it bears it is drawn', { heats: [heat(165)], limits: [FLAKE] }, 'shot', /^Draw shot 1/],
    [
      'flake that turns before the mold fills does not stop the evening',
      { molds: [OPEN], limits: [{ name: 'Gold flake', c: 160 }] },
      'shot',
      /^Draw shot 1/,
    ],
    ['at the very edge of its window it is drawn', { heats: [heat(158)] }, 'shot', /^Draw/],
    ['and at the upper one', { heats: [heat(180)] }, 'shot', /^Draw/],
    ['a reading of five minutes is still one', { heats: [heat(172, 300)] }, 'shot', /^Draw/],
    ['a plain recipe needs no colour', { doses: [], recipeItems: [] }, 'shot', /^Draw/],
    ['a reading of six minutes ago is no reading', { heats: [heat(172, 360)] }, 'heat', /^Read the cup/],
    ['a filled mold that may be opened is looked at', { shots: [shot('A', 0)] }, 'look', /^Open Mold A and look/],
    [
      'one still cooling is waited for',
      { shots: [shot('A', 0)], molds: [mold('A', { opensAt: ago(-90) })] },
      'wait',
      /^All molds are full/,
    ],
    [
      'while one cools the other is drawn',
      { shots: [shot('A', 0)], molds: [mold('A', { opensAt: ago(-90) }), mold('B')] },
      'shot',
      /^Draw shot 1 of 2: Mold B/,
    ],
    ['a half-marked shot is not done', { shots: [shot('A', 1)] }, 'look', /and look/],
    [
      'when all is drawn, the last are waited for',
      { shots: [shot('A', 2), shot('A', 0, 2)], molds: [mold('A', { opensAt: ago(-30) })] },
      'wait',
      /^The last shots are cooling/,
    ],
    [
      'when all is looked at, it is weighed',
      { shots: [shot('A', 2), shot('A', 2, 2)] },
      'close',
      /^Weigh what came out/,
    ],
    [
      'a cold cup does not matter once all is drawn',
      { shots: [shot('A', 2), shot('A', 2, 2)], heats: [heat(90)] },
      'close',
      /^Weigh/,
    ],
  ])('%s', (_what, change, does, says) => {
    const found = next(change);
    expect(found.do).toBe(does);
    expect(found.say).toMatch(says);
  });

  test('how many baits wait to be marked is said', () => {
    expect(next({ shots: [shot('A', 1)] }).why).toContain('1 to mark');
  });

  test('what the flake bears is said when it is cooked, when it is too hot, and where nothing can be done', () => {
    expect(next({ heats: [], limits: [FLAKE] }).why).toContain('Silver flake turns above 165 °C: stir it in once');
    expect(next({ heats: [], limits: [{ name: 'Coarse flake', c: 190 }] }).why).toContain('lumps');
    expect(next({ heats: [heat(176)], limits: [FLAKE] }).why).toMatch(/^Silver flake turns above that/);
    expect(next({ heats: [heat(185)] }).why).toMatch(/^Too hot for this way of filling \(hand injector\)/);
    expect(next({ molds: [OPEN], limits: [{ name: 'Gold flake', c: 160 }] }).why).toMatch(
      /^Gold flake bears only 160 °C/,
    );
  });
});

describe('the window that the next thing is about', () => {
  test.each<[what: string, change: Partial<CupNow>, window: [number, number] | undefined]>([
    ['of the mold that is drawn', { heats: [heat(160)], molds: [OPEN, mold('B')] }, [158, 180]],
    ['of the one that is nearest from above', { heats: [heat(185)], molds: [OPEN, mold('B')] }, [158, 180]],
    ['of the one that is nearest from below', { heats: [heat(150)], molds: [OPEN, mold('B')] }, [158, 180]],
    ['cut by flake', { heats: [heat(176)], limits: [FLAKE] }, [158, 165]],
    ['cut by flake, before anything is cooked', { heats: [], limits: [FLAKE] }, [158, 165]],
    ['of one whose reading is old', { heats: [heat(160, 400)], molds: [OPEN, mold('B')] }, [158, 180]],
    ['none where it is not about the heat', { doses: [] }, undefined],
  ])('%s', (_what, change, window) => {
    const found = next(change);
    const told = 'window' in found ? [found.window.lowC, found.window.highC] : undefined;
    expect(told).toEqual(window);
  });
});

describe('what a tap on it means', () => {
  const means = (change: Partial<CupNow>) => {
    const now = cup(change);
    return meaning(nextOf(now, String), now);
  };
  test('another shot, another mold, another heat is another tap', () => {
    const seen = [
      means({}),
      means({ shots: [shot('A', 2)] }),
      means({ molds: [mold('B')] }),
      means({ shots: [shot('A', 0)] }),
      means({ shots: [shot('A', 1)] }),
      means({ heats: [] }),
      means({ heats: [heat(150)] }),
      means({ heats: [heat(190)] }),
      means({ doses: [] }),
    ];
    expect(new Set(seen).size).toBe(seen.length);
    expect(means({})).toBe(means({ nowMs: NOW + 1000 }));
  });
});

describe('the next thing where a bait is of several melts', () => {
  const layer = (place: Place, joins: Join | null = null) => ({ place, joins });
  const melt = (id: string, layers: number[], change: Partial<SetCup> = {}) => ({
    id,
    name: id,
    heats: [heat(172)],
    doses: ['blue'],
    recipeItems: ['blue'],
    limits: [],
    layers,
    ...change,
  });
  const TWO = [layer('belly'), layer('back', 'together')];
  const THREE = [layer('belly'), layer('side', 'melted'), layer('back', 'melted')];
  const HOT = [layer('belly'), layer('back', 'hot')];
  const next = (change: Partial<CupNow>, layers = TWO, cups = [melt('Limpet', [0]), melt('Night', [1])]) =>
    nextOf({ ...cup(change), set: setOfCups(layers, cups) }, (c) => `${c} °C`);
  const drawn = (id: string, moldId: string, gone: number, marked = 0): NextShot => ({
    ...shot(moldId, marked),
    id,
    gone,
  });

  test.each<[string, Parameters<typeof next>, object]>([
    [
      'each cup is cooked before anything is drawn from it',
      [{}, TWO, [melt('Limpet', [0]), melt('Night', [1], { heats: [] })]],
      { do: 'heat', kind: 'cook', cup: 'Night', say: 'Night: Cook to 175 °C, stir, read.' },
    ],
    [
      'and dosed',
      [{}, TWO, [melt('Limpet', [0], { doses: [] }), melt('Night', [1])]],
      { do: 'dose', cup: 'Limpet', say: 'Limpet: Put in the colour.' },
    ],
    [
      'one that grew cold is reheated by its own name',
      [{}, TWO, [melt('Limpet', [0]), melt('Night', [1], { heats: [heat(120)] })]],
      { do: 'heat', kind: 'reheat', cup: 'Night' },
    ],
    [
      'injected together: one shot from both',
      [{}],
      {
        do: 'shot',
        go: 0,
        say: 'Draw shot 1 of 2 from all 2 cups: Mold A.',
        why: expect.stringContaining('push them alike'),
      },
    ],
    [
      'layers: the first of it, and only its own cup has to be ready',
      [{}, THREE, [melt('Limpet', [0, 2]), melt('Night', [1], { heats: [] })]],
      { do: 'shot', go: 0, say: 'Fill the belly, shot 1 of 2: Mold A.' },
    ],
    [
      'then the next, once no mold waits for the first',
      [{ shots: [drawn('a', 'A', 1)] }, THREE, [melt('Limpet', [0, 2]), melt('Night', [1])]],
      {
        do: 'shot',
        go: 1,
        into: { id: 'a' },
        say: 'Fill the side line, shot 1 of 2: Mold A.',
        why: expect.stringContaining('melt its surface'),
      },
    ],
    [
      'whose cup is cooked then',
      [{ shots: [drawn('a', 'A', 1)] }, THREE, [melt('Limpet', [0, 2]), melt('Night', [1], { heats: [] })]],
      { do: 'heat', kind: 'cook', cup: 'Night' },
    ],
    [
      'an empty mold is filled while the cup is hot, before a cold layer is gone on with',
      [
        { molds: [mold('A'), mold('B')], shots: [drawn('a', 'A', 1)] },
        THREE,
        [melt('Limpet', [0, 2]), melt('Night', [1])],
      ],
      { do: 'shot', go: 0, mold: { moldId: 'B' } },
    ],
    [
      'but what goes into a hot mold goes at once',
      [{ molds: [mold('A'), mold('B')], shots: [drawn('a', 'A', 1)] }, HOT],
      { do: 'shot', go: 1, mold: { moldId: 'A' }, say: 'Fill the back, shot 1 of 2: Mold A.' },
    ],
    [
      'nothing is looked at before its last layer is in',
      [
        { molds: [mold('A', { shots: 1 })], shots: [drawn('a', 'A', 2)] },
        THREE,
        [melt('Limpet', [0, 2]), melt('Night', [1])],
      ],
      { do: 'shot', go: 2, say: 'Fill the back, shot 1 of 1: Mold A.' },
    ],
    [
      'and then it is',
      [
        { molds: [mold('A', { shots: 1 })], shots: [drawn('a', 'A', 3)] },
        THREE,
        [melt('Limpet', [0, 2]), melt('Night', [1])],
      ],
      { do: 'look', shot: { id: 'a' } },
    ],
    [
      'at the end all are weighed',
      [{ molds: [mold('A', { shots: 1 })], shots: [drawn('a', 'A', 1, 2)] }],
      { do: 'close' },
    ],
  ])('%s', (_, asked, said) => {
    expect(next(...asked)).toMatchObject(said);
  });

  test('one melt in one cup is no set; a shot has the goes that all its layers are in', () => {
    expect(setOfCups([layer('whole')], [melt('Limpet', [0])])).toBeUndefined();
    expect(setOfCups([layer('whole')], [melt('Limpet', [0]), melt('Limpet too', [0])])?.goes).toEqual([
      { what: 'whole bait', joins: null, cups: ['Limpet', 'Limpet too'] },
    ]);
    expect(setOfCups(TWO, [melt('Limpet', [0]), melt('Night', [1])])?.goes).toEqual([
      { what: 'belly and back', joins: null, cups: ['Limpet', 'Night'] },
    ]);
    const gone = (...layers: number[]) =>
      goneIn(
        [layer('belly'), layer('side', 'together'), layer('back', 'melted')],
        layers.map((one) => ({ layer: one })),
      );
    expect([gone(), gone(0), gone(1, 0), gone(0, 1, 2)]).toEqual([0, 0, 1, 2]);
  });

  test('a tap on another cup’s heat, or on another layer, means something else', () => {
    const means = (...asked: Parameters<typeof next>) => meaning(next(...asked), { shots: asked[0].shots ?? [] });
    const cold = (who: string) =>
      means(
        {},
        TWO,
        ['Limpet', 'Night'].map((id, i) => melt(id, [i], id === who ? { heats: [] } : {})),
      );
    expect(cold('Limpet')).not.toBe(cold('Night'));
    const layered = (gone: number) =>
      means({ shots: [drawn('a', 'A', gone)] }, THREE, [melt('Limpet', [0, 2]), melt('Night', [1])]);
    expect(layered(1)).not.toBe(layered(2));
  });
});
