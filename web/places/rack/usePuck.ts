import { useMemo, useState } from 'react';
import { type Bin, puckSheet } from '../../../contract/bins.ts';
import { linearOf } from '../../../core/colour/light.ts';
import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { type KnowInput, type Known, knowSchema } from '../../../core/plastisol/know.ts';
import type { AddWish } from '../../../core/plastisol/toAdd.ts';
import { check } from '../../../core/validate.ts';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import type { Matcher } from '../../workers/matcher.ts';
import { handOf, useAnswer } from '../../workers/useErrand.ts';

export interface PuckTyped {
  massG: number | null;
  inWaterG: number | null;
  volumeMl: number | null;
  flake: KnowInput['flake'];
  bubbles: KnowInput['bubbles'];
  scale: 'A' | '00';
  pressed: string;
  thicknessMm: number | null;
  overBlack: string;
  overWhite: string;
}

const NOTHING: PuckTyped = {
  massG: null,
  inWaterG: null,
  volumeMl: null,
  flake: 'none',
  bubbles: 'none',
  scale: '00',
  pressed: '',
  thicknessMm: usual('puckMm'),
  overBlack: '',
  overWhite: '',
};

/** What was typed as the calculator takes it; parts that are not typed yet are left out. */
export function inputOf({
  massG,
  inWaterG,
  volumeMl,
  flake,
  bubbles,
  scale,
  pressed,
  thicknessMm,
  overBlack,
  overWhite,
}: PuckTyped) {
  if (massG === null || (inWaterG === null && volumeMl === null)) return null;
  const readings = pressed
    .split(/[\s;/]+/)
    .filter((one) => one !== '')
    .map((one) => Number(one.replace(',', '.')));
  return {
    massG,
    // Hung in water tells it more closely: where both are typed, that counts.
    ...(inWaterG !== null ? { inWaterG } : { volumeMl: volumeMl as number }),
    flake,
    bubbles,
    ...(readings.length > 0 && readings.every(Number.isFinite) ? { hardness: { scale, readings } } : {}),
    ...(thicknessMm !== null && overBlack !== '' && overWhite !== ''
      ? { colour: { thicknessMm, overBlack: linearOf(overBlack), overWhite: linearOf(overWhite) } }
      : {}),
  };
}

const hire = () =>
  handOf<Matcher, KnowInput, Known>(
    () => new Worker(new URL('../../workers/matcher.ts', import.meta.url), { type: 'module' }),
    (api, wish) => api.know(wish),
  );

/** A puck as it is being typed, and what it tells so far, worked out beside the page. */
export function usePuck(bin: Bin, wish: AddWish | null) {
  const [begun] = useState(NOTHING);
  const sheet = useSheet<PuckTyped>({
    schema: puckSheet,
    keep: `bin/${bin.id}/puck`,
    seen: begun,
  });
  const { values } = sheet;
  const { value: asked, refused } = useMemo(() => {
    const input = inputOf(values);
    if (!input) return { value: null, refused: undefined };
    return tried(() => check(knowSchema, { ...input, ...(input.colour && wish ? { wish } : {}) }));
  }, [values, wish]);
  const { answer: known, problem } = useAnswer(asked ?? null, hire);
  return { sheet, known, problem: refused ?? problem };
}
