/** A figure that is used until a maker, a data sheet or a fit gives a better one. */
export interface Default {
  value: number;
  unit: string;
  name: string;
  source: string;
}

const of = (value: number, unit: string, name: string, source: string): Default => ({ value, unit, name, source });

/** Every default of the workshop: its one home. Schemas, screens and their "default" marks read it here. */
export const DEFAULTS = {
  plastisolGPerMl: of(1.02, 'g/mL', 'plastisol, unsalted', 'typical data sheet; weigh a poured measure of yours'),
  waterGPerMl: of(1, 'g/mL', 'fresh water', 'fresh water at room temperature, to three digits'),
  leadGPerMl: of(11.34, 'g/mL', 'lead', 'handbook of chemistry and physics'),
  steelGPerMl: of(7.9, 'g/mL', 'steel wire', 'handbook figure, carbon and stainless wire within 2 %'),
  tubeGPerMl: of(1.1, 'g/mL', 'plastic tube', 'between polyethylene (0.95) and vinyl (1.3)'),
  scorchC: of(195, '°C', 'scorch', 'plastisol yellows and smokes from 190 to 200 °C; its data sheet wins'),
  cookC: of(175, '°C', 'cooked', 'common practice: clear and gelled all through'),
  demoldC: of(80, '°C', 'opened at, mean of the bait', 'starting guess: makers open while the heart is hot'),
  roomC: of(20, '°C', 'room', 'set it under Settings'),
  stillAirWPerM2K: of(12, 'W/m²K', 'still air', 'natural convection and radiation, 5 to 15'),
  fanAirWPerM2K: of(40, 'W/m²K', 'a fan on it', 'forced convection, 25 to 60'),
  dropsPerMl: of(20, 'drops/mL', 'drops', 'medical drop of water; liquids of colour lie between 18 and 30'),
  glassMl: of(473.176473, 'mL', 'cooking glass', 'US pint, a common heatproof glass'),
  siliconeWallMm: of(10, 'mm', 'wall of silicone', 'common practice, 8 to 15'),
  metalWallMm: of(12, 'mm', 'wall of metal', 'common practice for small blocks'),
  thicknessMm: of(14, 'mm', 'thickest section', 'a bait of a finger’s length'),
  openBetweenS: of(60, 's', 'open between two shots', 'starting guess: empty it, look, close it'),
  leastWaitS: of(
    60,
    's',
    'shortest wait',
    'small baits in cold metal take one to three minutes; contact is never perfect',
  ),
  cureH: of(24, 'h', 'cure', 'common practice: full strength after about a day'),
  staleReadingS: of(300, 's', 'a reading is believed for', 'a small cup loses 5 to 10 °C in that time'),
} as const satisfies Record<string, Default>;

export type DefaultName = keyof typeof DEFAULTS;

/** The value alone. */
export const usual = (name: DefaultName): number => DEFAULTS[name].value;
