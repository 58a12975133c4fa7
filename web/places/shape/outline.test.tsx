// @vitest-environment jsdom
import { act, useState } from 'react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { type ShapeSpec, shapeSpecSchema } from '../../../core/shape/spec.ts';
import { STARTS } from '../../../core/shape/starts.ts';
import { check } from '../../../core/validate.ts';
import { Page } from '../../testing/page.tsx';
import { Outline } from './Outline.tsx';
import { acrossPx, alongMm, geometryOf, LEFT } from './outlineGeometry.ts';

const SPEC = (STARTS[0] as (typeof STARTS)[number]).spec;
const WIDE = 640;

describe('how a shape lies on the paper', () => {
  const { stations, wrist, tail } = SPEC;
  const g = geometryOf(SPEC, WIDE, 100);

  test('both views together take at most 210 px, and the length fits', () => {
    const high = Math.max(...stations.map((one) => one.topMm), tail.acrossMm / 2, wrist.heightMm / 2);
    const low = Math.max(...stations.map((one) => one.bottomMm), tail.acrossMm / 2, wrist.heightMm / 2);
    const half = Math.max(...stations.map((one) => one.widthMm / 2), wrist.thicknessMm / 2);
    expect(g.scale).toBeCloseTo(Math.min((WIDE - LEFT - 14) / 103, 210 / (high + low + 2 * half)), 9);
    expect([g.highMm, g.halfMm]).toEqual([high, half]);
    expect(acrossPx(g, 100)).toBeLessThanOrEqual(WIDE - 14);
    expect(g.topY - g.sideY).toBeCloseTo((low + half) * g.scale + 44, 9);
  });

  test('a fin wants room above, a curl below, spread legs beside', () => {
    const fin = geometryOf(
      { ...SPEC, fin: { fromAt: 0.2, toAt: 0.6, heightMm: 9, thicknessMm: 2 } } as ShapeSpec,
      WIDE,
      100,
    );
    expect(fin.highMm).toBeCloseTo(g.highMm + 9, 9);
    const curl = geometryOf({ ...SPEC, tail: { ...tail, kind: 'curl', lengthMm: 100 } }, WIDE, 100);
    expect((curl.topY - curl.sideY - 44) / curl.scale).toBeCloseTo(55 + g.halfMm, 9);
    // Pincers held forward: 24 % of 82 mm less 40 at 150°, 34.64 mm ahead of their root.
    const ahead = { at: 0.24, lengthMm: 40, angleDeg: 150 } as ShapeSpec['limbs'][number];
    const reaching = geometryOf({ ...SPEC, limbs: [ahead] }, WIDE, 120);
    expect(reaching.beforeMm).toBeCloseTo(34.641 - 0.24 * SPEC.bodyMm, 2);
    expect(acrossPx(reaching, -reaching.beforeMm)).toBe(LEFT);
    expect(alongMm(reaching, acrossPx(reaching, 33))).toBeCloseTo(33, 9);
    const limb = { at: 0.5, lengthMm: 20, angleDeg: 30 } as ShapeSpec['limbs'][number];
    expect(geometryOf({ ...SPEC, limbs: [limb] }, WIDE, 100).halfMm).toBeCloseTo(g.halfMm + 10, 9);
  });
});

let page: Page;
let latest: ShapeSpec;
const settled = vi.fn();

function Bench() {
  const [spec, setSpec] = useState(SPEC);
  latest = spec;
  return (
    <Outline
      spec={spec}
      side={null}
      top={null}
      onChange={setSpec}
      onSettle={settled}
      station={1}
      onStation={() => {}}
      widthPx={WIDE}
      lengthMm={null}
    />
  );
}

beforeEach(async () => {
  settled.mockClear();
  Object.assign(SVGElement.prototype, { setPointerCapture: () => {}, hasPointerCapture: () => true });
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  page = await Page.open(<Bench />);
});
afterEach(() => page.close());

const handle = (name: string) => document.querySelector(`[aria-label="${name}"]`) as SVGGElement;
const pointer = (on: Element, kind: string, x = 0, y = 0) =>
  act(async () => void on.dispatchEvent(new MouseEvent(kind, { bubbles: true, clientX: x, clientY: y })));
const key = (on: Element, name: string, shiftKey = false) =>
  act(async () => void on.dispatchEvent(new KeyboardEvent('keydown', { key: name, shiftKey, bubbles: true })));

describe('a place that is dragged', () => {
  test('the tallest follows the hand: 20 px up are 20 px of that scale, however often they are told', async () => {
    const tallest = SPEC.stations.reduce(
      (most, one, i) => (one.topMm > (SPEC.stations[most]?.topMm ?? 0) ? i : most),
      0,
    );
    const { scale, sideY } = geometryOf(SPEC, WIDE, null);
    const on = handle(`Station ${tallest + 1}, back`);
    const was = SPEC.stations[tallest] as ShapeSpec['stations'][number];
    const [x, y] = [LEFT + was.at * SPEC.bodyMm * scale, sideY - was.topMm * scale];
    await pointer(on, 'pointerdown', x, y);
    for (let px = 1; px <= 20; px++) await pointer(on, 'pointermove', x, y - px);
    expect(latest.stations[tallest]?.topMm).toBeCloseTo(was.topMm + 20 / scale, 0);
    // Held still it grows no further: the paper keeps its scale until it is let go.
    for (let again = 0; again < 5; again++) await pointer(on, 'pointermove', x, y - 20);
    expect(latest.stations[tallest]?.topMm).toBeCloseTo(was.topMm + 20 / scale, 0);
    const drawn = Number(on.querySelector('circle')?.getAttribute('cy'));
    expect(drawn).toBeCloseTo(y - 20, 0);
    await pointer(on, 'lostpointercapture');
    expect(Number(on.querySelector('circle')?.getAttribute('cy'))).toBeCloseTo(22, 0);
  });

  test('it stays within what is kept: 100 mm, and three tenths', async () => {
    const on = handle('Station 2, belly');
    await pointer(on, 'pointerdown');
    await pointer(on, 'pointermove', 200, 90_000);
    expect(latest.stations[1]?.bottomMm).toBe(100);
    await pointer(on, 'pointermove', 200, -90_000);
    expect(latest.stations[1]?.bottomMm).toBe(0.3);
    expect(() => check(shapeSpecSchema, latest)).not.toThrow();
  });

  test('no station passes its neighbour, nor the wrist', async () => {
    const on = handle('Station 2, back');
    await pointer(on, 'pointerdown');
    await pointer(on, 'pointermove', 5000, 100);
    expect(latest.stations[1]?.at).toBeCloseTo((SPEC.stations[2]?.at ?? 0) - 0.01, 9);
    await pointer(on, 'pointermove', 0, 100);
    expect(latest.stations[1]?.at).toBeCloseTo((SPEC.stations[0]?.at ?? 0) + 0.01, 9);
    const last = SPEC.stations.length;
    await pointer(handle(`Station ${last}, width`), 'pointermove', 5000, 300);
    expect(latest.stations[last - 1]?.at).toBeCloseTo(0.985, 9);
  });
});

describe('by the keyboard', () => {
  const station = () => latest.stations[1] as ShapeSpec['stations'][number];
  test.each([
    ['back', 'ArrowUp', 'topMm', 0.1],
    ['back', 'ArrowDown', 'topMm', -0.1],
    ['belly', 'ArrowUp', 'bottomMm', -0.1],
    ['belly', 'ArrowDown', 'bottomMm', 0.1],
    ['width', 'ArrowUp', 'widthMm', -0.2],
    ['width', 'ArrowDown', 'widthMm', 0.2],
  ] as const)('%s, %s', async (name, pressed, figure, by) => {
    const was = station()[figure];
    await key(handle(`Station 2, ${name}`), pressed);
    expect(station()[figure]).toBeCloseTo(was + by, 9);
    await key(handle(`Station 2, ${name}`), pressed, true);
    expect(station()[figure]).toBeCloseTo(was + 11 * by, 9);
  });

  test('along the bait by half a millimetre, and other keys do nothing', async () => {
    const was = station().at;
    await key(handle('Station 2, back'), 'ArrowRight');
    expect(station().at * SPEC.bodyMm).toBeCloseTo(was * SPEC.bodyMm + 0.5, 9);
    const before = latest;
    await key(handle('Station 2, back'), 'a');
    expect(latest).toBe(before);
  });

  test('the wrist: thickness lies to both sides, height too', async () => {
    await key(handle('Wrist, thickness side to side'), 'ArrowDown');
    await key(handle('Wrist, height'), 'ArrowUp');
    expect(latest.wrist.thicknessMm).toBeCloseTo(SPEC.wrist.thicknessMm + 0.2, 9);
    expect(latest.wrist.heightMm).toBeCloseTo(SPEC.wrist.heightMm + 0.2, 9);
    expect(
      [...document.querySelectorAll('[role="slider"]')].map((one) => one.getAttribute('aria-valuetext')),
    ).toContain(`${Math.round((SPEC.wrist.heightMm + 0.2) * 10) / 10} mm`);
  });
});
