// @vitest-environment jsdom
import { afterEach, describe, expect, test } from 'vitest';
import type { PourLayer, PourMold, Shot } from '../../../contract/pours.ts';
import { REASON_IDS } from '../../../core/yield/grades.ts';
import { reasonWords } from '../../parts/grades.ts';
import { Page } from '../../testing/page.tsx';
import { GradeDialog } from './GradeDialog.tsx';

let page: Page;
let marked: unknown[];
let redone: number[];
afterEach(() => page.close());
const layer = (place: PourLayer['place']) => ({ place }) as PourLayer;
const open = async (fill: PourMold['fill'] = 'injection', layers = [layer('whole')], there = layers.length) => {
  marked = [];
  redone = [];
  const mold = { moldId: 'm', name: 'Sandlance × 4', kind: 'aluminium', fill } as PourMold;
  const shot = {
    parts: layers.slice(0, there).map((_, n) => ({ layer: n })),
    redone: [
      { layer: 0, cavity: 3 },
      { layer: 1, cavity: 2 },
    ],
  } as unknown as Shot;
  page = await Page.open(
    <GradeDialog
      at={{ cavity: 3, mold, shot }}
      layers={layers}
      onClose={() => undefined}
      onMark={(...mark) => marked.push(mark)}
      onRedo={(which) => redone.push(which)}
    />,
  );
};

describe('what becomes of a bait, in one tap or two', () => {
  test.each<[string, string[], unknown[]]>([
    ['to sell', ['✓ To sell'], ['sell']],
    ['to sell with its flash trimmed', ['To sell, flash trimmed'], ['sell', 'flash']],
    ['melted again, for a usual reason', ['short fill'], ['remelt', 'short']],
    ['kept for own water', ['Own water, because:', 'air bubble'], ['own', 'bubble']],
    ['melted again after all', ['Own water, because:', 'Remelt, because:', 'tone is off'], ['remelt', 'colour']],
    ['for a rare reason', ['another reason…', 'clumps of salt'], ['remelt', 'clump']],
    ['not looked at', ['Not looked at yet'], ['unmarked']],
  ])('%s', async (_what, taps, mark) => {
    await open();
    for (const words of taps) await page.press(words);
    expect(marked).toEqual([mark]);
  });

  test('a layer that was lifted out is poured again, and no grade is asked before the last is in', async () => {
    await open('open-pour', [layer('belly'), layer('back')], 1);
    expect([page.text.includes('belly again (1 so far)'), page.text.includes('back again')]).toEqual([true, false]);
    expect([page.text.includes('when all layers are in'), page.text.includes('To sell')]).toEqual([true, false]);
    await page.press('belly again (1 so far)');
    expect(redone).toEqual([0]);
  });

  test('every reason is there once more are asked for; at first those of this way of pouring', async () => {
    await open('dip');
    expect(page.text).toContain('flake ran off');
    expect(page.text).not.toContain('hollow nose');
    await page.press('another reason…');
    const words = [...page.box.querySelectorAll('button')].map((one) => one.textContent);
    for (const reason of REASON_IDS) expect(words.filter((one) => one === reasonWords(reason))).toHaveLength(1);
  });
});
