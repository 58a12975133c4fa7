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
  colourantGPerMl: of(1, 'g/mL', 'liquid colour', 'close to water; pearls up to 1.2'),
  flakeBulkGPerMl: of(0.5, 'g/mL', 'flake, levelled', 'loose polyester flake, 0.3 to 0.7; weigh a spoon'),
  powderBulkGPerMl: of(0.5, 'g/mL', 'powder, levelled', 'loose pigment and pearl, 0.3 to 0.8; weigh a spoon'),
  saltBulkGPerMl: of(1.2, 'g/mL', 'fine salt, levelled', 'loose fine salt, 1.1 to 1.3; weigh a spoon'),
  nominalSdPoints: of(
    6,
    'points',
    'a label’s hardness is off by',
    'starting guess: standard deviation between label and cured bait',
  ),
  readingSdPoints: of(
    2,
    'points',
    'two readings of one bait differ by',
    'a hand durometer on a soft bait, standard deviation',
  ),
  additiveMost: of(
    0.1,
    'of the plastisol',
    'softener or hardener at most',
    'starting guess: more of a softener sweats out; its data sheet wins',
  ),
  tiredShare: of(
    0.2,
    'of the cup',
    'a tired share that shows',
    'workshop practice: less of it does not yellow the whole',
  ),
  heatsMost: of(5, 'heats', 'remelt is cooked at most', 'workshop practice; it yellows and hardens with each'),
  oilGPerMl: of(0.92, 'g/mL', 'oil', 'vegetable and fish oils'),
  saltGPerMl: of(2.165, 'g/mL', 'salt', 'sodium chloride, handbook of chemistry and physics'),
  waterGPerMl: of(1, 'g/mL', 'fresh water', 'fresh water at room temperature, to three digits'),
  seaGPerMl: of(1.025, 'g/mL', 'sea water', 'ocean mean at the surface; an estuary lies between'),
  leadGPerMl: of(11.34, 'g/mL', 'lead', 'handbook of chemistry and physics'),
  stainlessGPerMl: of(7.95, 'g/mL', 'stainless wire', 'handbook of chemistry and physics'),
  tubeGPerMl: of(1.2, 'g/mL', 'plastic tube', 'between polyethylene (0.95) and vinyl (1.4)'),
  acrossCd: of(1.1, '1', 'drag of a body lying across the stream', 'Hoerner 1965, a cylinder across the flow'),
  scorchC: of(195, '°C', 'scorch', 'plastisol yellows and smokes from 190 to 200 °C; its data sheet wins'),
  cookC: of(175, '°C', 'cooked', 'common practice: clear and gelled all through'),
  demoldC: of(80, '°C', 'opened at, mean of the bait', 'starting guess: makers open while the heart is hot'),
  dipC: of(155, '°C', 'a dip cup is kept at; walls a dip are told for it', 'common practice, 140 to 180 °C'),
  dipWallMm: of(0.7, 'mm', 'wall a dip', 'starting guess; your own log replaces it'),
  dipPerDegree: of(0.03, 'per °C', 'less wall, each degree hotter', 'starting guess; your own log replaces it'),
  dipNoseMm: of(2, 'mm', 'solid nose of a dipped tube', 'common practice'),
  dripFraction: of(0.1, 'of the tubes', 'drips off while dipping', 'starting guess'),
  dipCupMm: of(75, 'mm', 'dip cup across', 'a common jar'),
  walkingMPerS: of(0.6, 'm/s', 'drawn at', 'a slow walk; time it over a metre'),
  drawnBaitMl: of(10, 'mL', 'bait that layers are drawn for', 'a common size; a mold that is chosen wins'),
  packCount: of(8, 'baits', 'to a pack', 'a common bag; each bait has its own'),
  rubberGPerMl: of(1.1, 'g/mL', 'mold rubber, each part', 'typical data sheet; the tin’s figure wins'),
  epoxyAGPerMl: of(1.13, 'g/mL', 'bed of epoxy, part A', 'typical data sheet of a resin; the bottle’s figure wins'),
  epoxyBGPerMl: of(0.97, 'g/mL', 'bed of epoxy, part B', 'typical data sheet of a hardener; the bottle’s figure wins'),
  bakeMinPer6Mm: of(15, 'min per 6 mm', 'polymer clay bakes', 'the usual packet’s rule; your packet wins'),
  bakeC: of(132, '°C', 'polymer clay bakes at', 'the usual packet; an oven’s own dial is often 10 °C off'),
  roomC: of(20, '°C', 'room', 'set it under Settings'),
  stillAirWPerM2K: of(12, 'W/m²K', 'still air', 'natural convection and radiation, 5 to 15'),
  fanAirWPerM2K: of(40, 'W/m²K', 'a fan on it', 'forced convection, 25 to 60'),
  dropsPerMl: of(20, 'drops/mL', 'drops', 'medical drop of water; liquids of colour lie between 18 and 30'),
  glassMl: of(473.176473, 'mL', 'cooking glass', 'US pint, a common heatproof glass'),
  frothHeadroom: of(
    0.15,
    'of the glass',
    'left free for froth',
    'workshop practice; more where it is put under vacuum',
  ),
  feedFraction: of(0.06, 'of the shot', 'shrinks and is fed', 'plastisol from 170 °C to the room'),
  deadMl: of(3, 'mL', 'stays in the injector', 'common nozzle and tip'),
  cupFilmMl: of(8, 'mL', 'stays in the cup', 'scraped 500 mL glass'),
  siliconeWallMm: of(10, 'mm', 'wall of silicone', 'common practice, 8 to 15'),
  siliconeGapMm: of(8, 'mm', 'between two masters', 'common practice, 6 to 12'),
  siliconeCoverMm: of(10, 'mm', 'over the highest point', 'common practice, 8 to 15'),
  siliconeWasteFraction: of(0.07, 'of the mix', 'stays in the mixing cup', 'common practice, 5 to 10 %'),
  ratedC: of(23, '°C', 'pot life is told for', 'usual on data sheets of rubber'),
  blockWallMm: of(10, 'mm', 'wall of a printed or milled block', 'common practice, 8 to 15'),
  metalWallMm: of(12, 'mm', 'wall of metal', 'common practice for small blocks'),
  openBetweenS: of(60, 's', 'open between two shots', 'starting guess: empty it, look, close it'),
  fillS: of(30, 's', 'to fill a mold', 'starting guess: draw, push, top up'),
  fillSPerCavity: of(10, 's', 'more for each cavity', 'starting guess'),
  setUpMin: of(25, 'min', 'to cook and clear up', 'starting guess: one cup, one evening'),
  eveningH: of(3, 'h', 'given to an evening', 'common practice after a day’s work; set it under Settings'),
  oneEveningH: of(
    12,
    'h',
    'cups laid out after each other are one evening',
    'from the first cup to the last, and not the next day',
  ),
  otherWaterC: of(5, '°C', 'waters differ by', 'starting guess: less tells a fish little'),
  returnFraction: of(
    0.8,
    'of what is no bait',
    'melted again',
    'common practice: sprues go back, film and spills do not',
  ),
  leastWaitS: of(
    60,
    's',
    'shortest wait',
    'small baits in cold metal take one to three minutes; contact is never perfect',
  ),
  cureH: of(24, 'h', 'cure', 'common practice: full strength after about a day'),
  colourUsualMlPerL: of(7.4, 'mL/L', 'an ordinary dose of liquid colour', '35 drops of 0.05 mL to a US cup'),
  powderUsualMlPerL: of(20, 'mL/L', 'an ordinary dose of powder or pearl', 'a level teaspoon to a US cup'),
  nominalScatterPerMm: of(
    0.12,
    '1/mm',
    'an ordinary dose scatters',
    'starting guess: 10 mm of it hide about half of a ground; a measured step replaces it',
  ),
  saltScatterMm2PerG: of(
    0.0003,
    '1/mm a g/L',
    'salt clouds',
    'starting guess: 200 g/L look milky at 10 mm; a measured step replaces it',
  ),
  flakeGPerMl: of(1.38, 'g/mL', 'flake', 'polyester film, data sheets'),
  flakeThickMm: of(0.05, 'mm', 'flake, thick', 'common glitter film, 0.02 to 0.1'),
  flakeSizeMm: of(0.6, 'mm', 'flake, across', 'between the fine 0.4 and the coarse 1.0; read it off the bag'),
  saltGrainMm: of(0.1, 'mm', 'ground salt', 'ground to flour; table salt is 0.3 to 0.5'),
  cupDeepMm: of(60, 'mm', 'plastic in a cup, deep', 'a pint glass half full'),
  matchedAtMm: of(8, 'mm', 'colours are matched at', 'the body of a common bait'),
  seenDepthM: of(3, 'm', 'water above a bait', 'starting guess: where it is fished is the maker’s to say'),
  colourMostMlPerL: of(25, 'mL/L', 'a colourant at most', 'a liquid pearl may take a hundred drops a cup'),
  hotMeltGPerMl: of(1, 'g/mL', 'plastisol, hot', 'starting guess: 1.02 at room temperature, less when hot'),
  hotMeltPaS: of(
    0.35,
    'Pa·s',
    'hot plastisol flows like',
    'starting guess: a thin syrup; your own stirring log replaces it',
  ),
  staleReadingS: of(300, 's', 'a reading is believed for', 'a small cup loses 5 to 10 °C in that time'),
} as const satisfies Record<string, Default>;

export type DefaultName = keyof typeof DEFAULTS;

/** The value alone. */
export const usual = (name: DefaultName): number => DEFAULTS[name].value;
