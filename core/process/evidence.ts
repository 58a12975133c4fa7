/** What a tick is about: a whole evening, a cup as it is now, or one shot of a mold and one of its layers. */
export type TickAbout = 'evening' | 'cup' | 'shot';

interface Tick {
  about: TickAbout;
  /** As it is asked at the bench. */
  asks: string;
  /** What may be said, with its words; the first is the usual one. */
  says: Record<string, string>;
}

/**
 * Everything that is ticked at the bench and has no figure of its own. Untapped is not known: nothing is taken as said.
 * Source: workshop practice; these are what the causes of faults are weighed by.
 */
export const TICKS = {
  dressed: {
    about: 'evening',
    asks: 'Before the heat',
    says: { yes: 'All of it is on' },
  },
  laid: { about: 'evening', asks: 'Laid out', says: { yes: 'is there' } },
  degassed: {
    about: 'cup',
    asks: 'Degassed',
    says: { vacuum: 'by vacuum', rest: 'hot rest', no: 'not' },
  },
  salted: { about: 'cup', asks: 'Salt went in', says: { slowly: 'slowly', atOnce: 'at once' } },
  looks: {
    about: 'cup',
    asks: 'The cup looks like',
    says: { milk: 'milk', porridge: 'porridge', syrup: 'syrup', yellow: 'yellow or smoking' },
  },
  clamps: {
    about: 'shot',
    asks: 'Clamped',
    says: { opposite: 'opposite corners', 'same-side': 'one side', none: 'not' },
  },
  mold: { about: 'shot', asks: 'The mold', says: { warm: 'warm', cold: 'cold', preheated: 'preheated' } },
  injector: { about: 'shot', asks: 'Injector', says: { warm: 'warm', cold: 'cold' } },
  rods: { about: 'shot', asks: 'Rods', says: { oiled: 'oiled, dry', bare: 'bare', wet: 'wet' } },
  insert: { about: 'shot', asks: 'Insert', says: { in: 'in', out: 'out' } },
  tilt: { about: 'shot', asks: 'Stood', says: { tilted: 'tilted', upright: 'upright' } },
  level: { about: 'shot', asks: 'The mold stands', says: { level: 'level', askew: 'askew' } },
  surface: {
    about: 'shot',
    asks: 'The layer before',
    says: { melted: 'melted', hot: 'still hot', cold: 'cold' },
  },
  felt: { about: 'shot', asks: 'It felt', says: { smooth: 'smooth', clogged: 'clogged', light: 'empty early' } },
  held: { about: 'shot', asks: 'Held', says: { yes: 'to the end', no: 'let go' } },
  topped: { about: 'shot', asks: 'Topped up', says: { yes: 'yes', no: 'no' } },
  lie: { about: 'shot', asks: 'The baits lie', says: { flat: 'flat', hung: 'hung', heaped: 'in a heap' } },
  quench: { about: 'shot', asks: 'Quenched', says: { water: 'in water', air: 'in air' } },
} as const satisfies Record<string, Tick>;

export type TickId = keyof typeof TICKS;
export const TICK_IDS = Object.keys(TICKS) as TickId[];

/** Whether that may be said of it. */
export const maySay = (what: TickId, said: string): boolean => said in TICKS[what].says;

/** In words, "corner to opposite corner". */
export const saysOf = (what: TickId, said: string): string =>
  (TICKS[what].says as Record<string, string>)[said] ?? said;

/** One that stands. */
export interface Ticked {
  id: string;
  what: TickId;
  said: string;
  moldId: string | null;
  /** Which shot of its mold in this cup, from 1. */
  nth: number | null;
  layer: number | null;
  at: string;
}

/** What was said last of a shot and a layer of it; undefined: nothing, so it is not known. */
export const saidOf = (
  ticks: Ticked[],
  what: TickId,
  shot?: { moldId: string; nth: number; layer?: number },
): Ticked | undefined =>
  ticks.findLast(
    (tick) =>
      tick.what === what &&
      (!shot || (tick.moldId === shot.moldId && tick.nth === shot.nth && (tick.layer ?? 0) === (shot.layer ?? 0))),
  );

/** What stands between a maker and 175 °C, in words of its own; sheets and local rules win. */
export const BEFORE_THE_HEAT = [
  'Air moves outside: fan or hood on, window open',
  'Respirator with organic-vapour and acid-gas cartridges',
  'Long sleeves and trousers, closed shoes',
  'Heat gloves, dry',
  'Eyes covered',
  'No water, no wet hands, rods or pigments near the cup',
  'Lid and extinguisher within reach; children and pets out',
] as const;
