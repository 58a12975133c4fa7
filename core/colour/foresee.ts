import { type DefaultName, usual } from '../defaults.ts';
import type { Cut } from './flakes.ts';
import { asLearnt, type ForeseenMelt, type Learnt } from './learnt.ts';
import { bands, type Dosed, meltOf, type Optics, type Rgb } from './light.ts';
import { nominalOptics, PLAIN_PLASTIC } from './nominal.ts';

/** What goes into a melt, as far as it is seen. */
export interface Ingredient {
  id: string;
  name: string;
  kind: string;
  /** Its look, as it was named. */
  hex: string | null;
  /** As it was measured; null: never. */
  optics: Optics | null;
  /** Of the house strength, in a litre of plastisol. */
  mlPerL: number;
  gPerL: number;
  sizeMm: number | null;
  cut: Cut | null;
  /** What this workshop’s looks have taught of it. */
  learnt?: Pick<Learnt, 'factor' | 'looks'> | null | undefined;
  /** Flake that is wanted as the heat turns it, and what that is; null where nobody knows. */
  turned?: boolean | undefined;
  turnsHex?: string | null | undefined;
}

export interface FlakeIn {
  id: string;
  name: string;
  hex: string;
  gPerL: number;
  sizeMm: number;
  cut: Cut;
  /** Nobody told its size: the usual one is taken. */
  sizeByDefault: boolean;
}

/** A melt as it can be foreseen, and what of that is a guess. */
export interface Melt {
  optics: Optics;
  flakes: FlakeIn[];
  /** Of pearl: how strongly its sheen shifts with the view, 0 to 1. */
  sheen: number;
  /** Dosed, but never measured: taken as their look says. */
  byLook: string[];
  /** Dosed, and nothing is known of their look. */
  unknown: string[];
  /** Dosed, and foreseen as looks at earlier cups have taught. */
  learnt: { name: string; looks: number }[];
}

const USUAL: Record<string, DefaultName> = { colourant: 'colourUsualMlPerL', powder: 'powderUsualMlPerL' };

/** What is dosed of a kind as a rule, mL/L; 0 for what colours nothing. */
export const ordinaryDose = (kind: string): number => (USUAL[kind] ? usual(USUAL[kind]) : 0);

/** What a colourant or powder does to light: as measured, else as its look says; null where it does nothing, or nobody knows. */
export function opticsOf({ kind, hex, optics }: Pick<Ingredient, 'kind' | 'hex' | 'optics'>): Optics | null {
  const dose = USUAL[kind];
  if (!dose) return null;
  return optics ?? (hex ? nominalOptics(hex, usual(dose)) : null);
}

/** Salt is a haze: it scatters alike in all bands. */
const hazeOf = (gPerL: number): Dosed => ({
  k: [0, 0, 0],
  s: bands(() => usual('saltScatterMm2PerG') * gPerL),
  mlPerL: 1,
});

export function meltOfIngredients(items: Ingredient[], plain: Optics = PLAIN_PLASTIC): Melt {
  const dosed: Dosed[] = [];
  const melt: Omit<Melt, 'optics'> = { flakes: [], sheen: 0, byLook: [], unknown: [], learnt: [] };
  for (const item of items) {
    if (item.kind === 'salt') dosed.push(hazeOf(item.gPerL));
    else if (item.kind === 'flake') {
      const hex = item.turned ? (item.turnsHex ?? null) : item.hex;
      if (!hex) melt.unknown.push(item.turned ? `${item.name}, turned` : item.name);
      else
        melt.flakes.push({
          id: item.id,
          name: item.name,
          hex,
          gPerL: item.gPerL,
          sizeMm: item.sizeMm ?? usual('flakeSizeMm'),
          cut: item.cut ?? 'hex',
          sizeByDefault: item.sizeMm === null,
        });
    } else if (item.kind in USUAL) {
      const optics = opticsOf(item);
      if (!optics) melt.unknown.push(item.name);
      else {
        if (!item.optics) melt.byLook.push(item.name);
        if (item.learnt) melt.learnt.push({ name: item.name, looks: item.learnt.looks });
        dosed.push({ ...asLearnt(optics, item.learnt ?? null), mlPerL: item.mlPerL });
      }
      if (item.kind === 'powder') melt.sheen += item.mlPerL / usual('powderUsualMlPerL');
    }
  }
  // What was dosed in several goes is one colour.
  return {
    ...melt,
    byLook: [...new Set(melt.byLook)],
    unknown: [...new Set(melt.unknown)],
    learnt: [...new Map(melt.learnt.map((one) => [one.name, one])).values()],
    sheen: 1 - Math.exp(-melt.sheen),
    optics: meltOf(plain, dosed),
  };
}

/** A flake at a depth: what light it sends back through the plastic before it, over what the plastic itself shows there. */
export function flakeSeen(flake: Rgb, { k, s }: Optics, depthMm: number, before: Rgb): Rgb {
  return bands((i) => {
    const through = Math.exp(-2 * (k[i] + s[i]) * depthMm);
    return flake[i] * through + before[i] * (1 - through);
  });
}

/** A melt as it is foreseen without what looks have taught, and what of its absorption each colour is: what a look is held against. */
export function foreseenOf(items: Ingredient[], plain: Optics): ForeseenMelt {
  const untaught = items.map((item) => ({ ...item, learnt: null }));
  return {
    optics: meltOfIngredients(untaught, plain).optics,
    parts: untaught.flatMap((item) => {
      const optics = opticsOf(item);
      return optics && item.mlPerL > 0 ? [{ materialId: item.id, k: bands((i) => optics.k[i] * item.mlPerL) }] : [];
    }),
  };
}
