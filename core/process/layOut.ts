import { usual } from '../defaults.ts';
import type { Fill, MoldKind } from '../heat/window.ts';
import type { Degassing } from './ways.ts';

/** One thing to be laid out, and what for. */
export interface ToLay {
  name: string;
  why: string;
}

interface ForOneCup {
  code: string;
  recipeName: string;
  cookMl: number;
  molds: { name: string; kind: MoldKind; fill: Fill; rods: boolean; shots: number }[];
  plan: { items: { materialName: string }[] };
  parts: { name: string }[];
  layers: unknown[];
}

/**
 * What an evening needs at hand, each thing once: what is used up is named by the cups that want it.
 * Source: workshop practice; what runs out or is missing mid-job is what it prevents.
 */
export function toLayOut(cups: ForOneCup[], { degassing }: { degassing: Degassing }): ToLay[] {
  const molds = cups.flatMap((cup) => cup.molds);
  const wanted = (of: (cup: ForOneCup) => string[]) => {
    const by = new Map<string, Set<string>>();
    for (const cup of cups) for (const name of of(cup)) by.set(name, (by.get(name) ?? new Set()).add(cup.recipeName));
    return [...by].map(([name, of]) => ({ name, why: `for ${[...of].join(', ')}` }));
  };
  const injected = molds.filter(({ fill }) => fill === 'injection');
  const items: (ToLay | false)[] = [
    { name: `${cups.length} ${cups.length === 1 ? 'glass' : 'glasses'}, dry`, why: 'one a cup, never for food again' },
    ...wanted((cup) => cup.parts.map(({ name }) => name)),
    ...wanted((cup) => cup.plan.items.map(({ materialName }) => materialName)),
    ...[...new Map(molds.map((mold) => [mold.name, mold])).values()].map((mold) => ({
      name: mold.name,
      why: `${mold.shots} ${mold.shots === 1 ? 'shot' : 'shots'}; dry, cavities clean`,
    })),
    { name: 'Round stirrer and scraper', why: 'flat paddles beat in air' },
    { name: 'Thermometer', why: 'stir, then read' },
    injected.length > 0 && { name: 'Injectors, warm', why: 'a cold one clogs' },
    injected.length > 0 && { name: 'Clamps', why: 'one on each of two opposite corners' },
    molds.some(({ kind }) => kind === 'printed') && { name: 'Backing plates', why: 'a printed mold bursts' },
    molds.some(({ rods, fill }) => rods || fill === 'dip') && { name: 'Rods, oiled and dry', why: 'a wet one spits' },
    molds.some(({ fill }) => fill === 'dip') && { name: 'Quench bowl', why: 'well away from the cups' },
    molds.some(({ fill }) => fill === 'open-pour') && {
      name: 'Level and blade',
      why: 'it stands level; overfill is trimmed',
    },
    cups.some(({ layers }) => layers.length > 1) && {
      name: 'Heat gun',
      why: 'melts the layer before again; far from solvents',
    },
    degassing === 'vacuum' && {
      name: 'Vacuum chamber',
      why: `rated, room for ${usual('vacuumHeadroom')} times the mix`,
    },
    { name: 'Scale', why: 'sprues, rejects and baits are weighed at the end' },
    { name: 'Flat tray', why: 'a bait sets as it lies' },
    { name: 'Lid and extinguisher', why: 'never water' },
  ];
  return items.filter((item) => item !== false);
}
