import type { Dimension } from './units/dimension.ts';

/** What a maker calls a field, by the name that it has in every schema; the unit is in the name. */
const WORDS: Record<string, string> = {
  kind: 'Kind of mold',
  layout: 'Noses to the runner from',
  planeMm: 'Parting plane at',
  shrinkFraction: 'Larger by, for shrinking',
  runnerMm: 'Runner across',
  gateMm: 'Gate across',
  sprueMm: 'Sprue across',
  ventMm: 'Vent across',
  pins: 'Pins',
  clearanceMm: 'Clearance',
  coreRodMm: 'Core rod across',
  stockMm: 'Stock that there is',
  pieces: 'Pieces',
  blockMm: 'Block',
  halfMm: 'Heights of the halves',
  ventsMl: 'Vents',
  clearanceMl: 'Sockets and pry slots',
  rubberMl: 'Rubber',
  caughtAtMm: 'Caught at',
  vents: 'Vents',
  notes: 'Notes',
  criterion: 'Cool enough by its',
  pourC: 'Poured at',
  demoldC: 'Open when it is at',
  moldC: 'Mold',
  ambientC: 'Air',
  outerWPerM2K: 'To the air, W/m²K',
  mold: 'The mold’s material',
  plastisol: 'The plastic',
  conductivityWPerMK: 'Conducts, W/mK',
  densityKgPerM3: 'Density, kg/m³',
  cpJPerKgK: 'Heat, J/kgK',
  openS: 'Open between shots, s',
  demoldS: 'Wait of each shot',
  seconds: 'Wait',
  lowC: 'From',
  highC: 'To',
  method: 'Method',
  flakeLimitsC: 'What the flakes bear',
  c: 'Bears',
  moldLimitC: 'The mold bears',
  scorchC: 'Scorches at',
  limitedBy: 'Who says so',
  conflict: 'Nothing is left',
  thicknessMm: 'Thickest section',
  minutesPer6mm: 'Minutes per 6 mm',
  masters: 'Masters',
  box: 'A box you have',
  wallMm: 'Wall',
  gapMm: 'Between',
  coverMm: 'Over the top',
  wasteFraction: 'For the cup’s walls',
  mix: 'Mixing ratio',
  by: 'Mixed by',
  partA: 'Part A',
  partB: 'Part B',
  densityAGPerMl: 'A, g/mL',
  densityBGPerMl: 'B, g/mL',
  potLifeMin: 'Pot life, min',
  demoldMin: 'Demold, min',
  ratedC: 'Rated at',
  basis: 'Worked out from its',
  roomC: 'Room',
  mixCupMl: 'Mixing cup holds',
  pricePerKgMinor: 'Price a kilogram',
  boxLengthMm: 'Box length',
  boxWidthMm: 'Box width',
  boxHeightMm: 'Box height',
  missingDepthMm: 'Below the line by',
  minutesSinceMixed: 'Minutes since mixed',
  minutesLeft: 'Minutes left',
  bondsToFirst: 'Bonds to the first',
  feedFraction: 'Feed',
  injectorMl: 'Injector holds',
  secondInjectorMl: 'Second injector holds',
  deadMl: 'Left in the injector',
  cupFilmMl: 'Film on the cup',
  cavityMl: 'One bait',
  channelsMl: 'Sprue and runner',
  estimate: 'As estimated',
  readings: 'Weighed',
  of: 'What',
  insertG: 'Set into each bait',
  insertMl: 'Room of it',
  cavityFrom: 'Baits weighed',
  channelsFrom: 'Shots or sprues weighed',
  spread: 'Readings differ by',
  toEstimate: 'Against the estimate',
  problem: 'What is wrong',
  log: 'Your dips',
  priorPerDipMm: 'Wall a dip to start from',
  priorPerDegree: 'Change a °C to start from',
  priorDips: 'Worth of the starting values, dips',
  missMm: 'A wall is missed by',
  sprueMl: 'Sprue',
  runnerMl: 'Runner',
  share: 'Share of this cup',
  heats: 'Heats',
  shareThreshold: 'A tired share that shows',
  nominal: 'By its label',
  priorSd: 'Labels are off by, points',
  noiseSd: 'Readings differ by, points',
  availableMl: 'In the cup',
  cookMl: 'Cook',
  cookG: 'Cook',
  returnMl: 'Comes back',
  leftoverMl: 'Left over',
  goodNeeded: 'Good baits needed',
  expectedGood: 'Good, on average',
  rejects: 'Rejects so far',
  confidence: 'Certainty',
  alpha: 'Prior bad',
  beta: 'Prior good',
  made: 'Made',
  rejected: 'Rejected',
  id: 'Name',
  dropsPerMl: 'Drops in a mL',
  bulkGPerMl: 'Bulk, g/mL',
  bottleStrength: 'Bottle strength',
  strength: 'Strength wanted',
  basisMl: 'Written for',
  batchMl: 'Batch',
  targets: 'Targets',
  fractions: 'Shares',
  grams: 'To weigh',
  batchG: 'Batch',
  pointsPerPercent: 'Points per percent',
  minFraction: 'At least',
  maxFraction: 'At most',
  parts: 'Plastics',
  additives: 'Softeners and hardeners',
  rodMm: 'Rod',
  lengthMm: 'Length',
  widthMm: 'Width',
  heightMm: 'Height',
  volumeMl: 'Volume',
  count: 'How many',
  wallPerDipMm: 'Wall a dip, at 155 °C',
  cupC: 'Cup',
  perDegree: 'Change a degree',
  noseMm: 'Nose',
  dripFraction: 'Drips',
  tubes: 'Tubes',
  cupDiameterMm: 'Cup across',
  wallPerDip: 'Wall a dip',
  mlPerTube: 'A tube',
  mpa: 'Stiffness, MPa',
  yieldFraction: 'Yield',
  unaccountedG: 'Unaccounted',
  unaccountedFraction: 'Unaccounted',
  cookedG: 'Cooked',
  goodG: 'Good baits',
  rejectG: 'Rejects',
  returnedG: 'Sprues and leftover',
  residueG: 'Left on glass and felt',
  degassedG: 'Lost in degassing',
  totalMixMl: 'Mix in all',
  vacuumCupMl: 'Vacuum cup, at least',
  costMinor: 'Cost',
  netMl: 'Net',
  mixMl: 'Mix',
  gramsA: 'Part A',
  gramsB: 'Part B',
  mlA: 'Part A',
  mlB: 'Part B',
  pBar: 'Mean rejects',
  ucl: 'Upper limit',
  lcl: 'Lower limit',
  p: 'Rejects',
  points: 'Pours',
  a: 'The first',
  b: 'The second',
  scale: 'Shore scale',
  wristThicknessMm: 'Wrist thick, side to side',
  wristHeightMm: 'Wrist high',
  wristLengthMm: 'Wrist long',
  paddleDiameterMm: 'Paddle across',
  paddleThicknessMm: 'Paddle thick',
  addedMassCoefficient: 'Moved water, share',
  strouhal: 'Strouhal number',
  plastisolDensityGPerMl: 'Plastic, g/mL',
  waterDensityGPerMl: 'Water, g/mL',
  saltDensityGPerMl: 'Salt, g/mL',
  onsetMPerS: 'Kicks from',
  naturalHz: 'Kicks a second',
  stiffnessNPerM: 'Wrist stiffness, N/m',
  modulusMpa: 'Plastic, MPa',
  levers: 'What one change does',
  massG: 'Mass',
  extraMassG: 'Hook and weight',
  extraVolumeMl: 'Their volume',
  planAreaMm2: 'Seen from above, mm²',
  cd: 'Drag',
  mmPerS: 'Sinks, mm/s',
  gramsPerCup: 'Salt, g to a cup',
  saltMassFraction: 'Salt by mass',
  target: 'Wanted',
  centroidMm: 'Centre of the bait, mm',
  extras: 'Hook, weights, inserts',
  atMm: 'Where, mm',
  inside: 'Set into the plastic',
  noseUpDeg: 'Nose up, °',
  rollDeg: 'Roll, °',
  outline: 'Outline',
  xMm: 'From the nose',
  topMm: 'Back',
  bottomMm: 'Belly',
  shankMm: 'Shank',
  eyeMm: 'Eye',
  boreMm: 'Bore',
  slotMm: 'Slot',
  pointOverBackMm: 'Point over the back',
  baitsWanted: 'Baits wanted',
  waitS: 'Wait in the mold, s',
  moldPerCavityMinor: 'Mold cost a cavity',
  moldFixedMinor: 'Mold cost, fixed',
  ballMm: 'Ball cutter',
  greatestMm: 'Most it leaves',
  largestBallMm: 'Largest that reaches all',
  direction: 'Up, or the pull, as x, y, z',
  pourPoint: 'Poured at, mm',
  coneDeg: 'Tilted by at most, °',
  unit: 'One step of the file is',
  areaMm2: 'Surface, mm²',
  undercutMm2: 'Undercut, mm²',
  densityGPerMl: 'Density, g/mL',
  measures: 'Your own measures',
  ml: 'One of it',
  name: 'Name',
  contact: 'How to reach them',
  note: 'Note',
  dueOn: 'Due on',
  packs: 'Packs',
  perPack: 'Baits to a pack',
  priceMinor: 'Price a pack',
  baitId: 'Bait',
  recipeId: 'Melt',
  colourwayId: 'Colour',
  customerId: 'Customer',
  newCustomer: 'New customer',
  lines: 'Line',
  packCount: 'Baits to a pack',
  thickestMm: 'Thickest section',
  flatBack: 'Flat back',
  reason: 'What changed',
  hex: 'Colour',
  limitC: 'Bears up to',
  hardness: 'Hardness',
  hardnessScale: 'Shore scale',
  wantedScale: 'Shore scale',
  reorderG: 'Order more below',
  tearKnPerM: 'Tear strength, kN/m',
  levelG: 'Left in it',
  cavities: 'Cavities',
  columns: 'Side by side',
  revisionId: 'Revision',
  rubberId: 'Silicone',
  baits: 'Baits',
  bags: 'Bags',
  lot: 'Lot',
  amount: 'Amount',
  materialId: 'What',
  amps: 'Amperes',
  fromMm: 'From',
  toMm: 'To',
  minutes: 'Minutes',
  walkingMPerS: 'Speed you draw at',
  mPerS: 'Speed',
  blend: 'Blend',
  placeName: 'The place, by your own name',
  rig: 'Rig',
  weightG: 'Weight',
  fish: 'Fish',
  sinkS: 'Sinks in, seconds',
  sinkDepthMm: 'Depth it sank',
  ending: 'And the bait',
  roll: 'Roll',
  runs: 'Runs',
  place: 'Where',
  efficiency: 'Share that cuts',
  electrode: 'Electrode',
  dips: 'Dips',
  moldId: 'Mold',
  recipe: 'Recipe',
  cups: 'Cups',
};

/** A field's name without its unit, as words. */
export function wordFor(name: string): string {
  const known = WORDS[name];
  if (known) return known;
  const words = name
    .replace(/(Mm2|Mm|Ml|Min|Minor|Fraction|MPerS|Deg|C|G|Id)$/, '')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export type Kind = Dimension | 'money' | 'percent' | 'minutes' | 'seconds' | 'plain';

/** What a number measures, by the unit that its name carries. */
export function kindOf(name: string): Kind {
  if (/PerMl$|PerKgMinor$|PerMm$|^centroidMm$|^atMm$/.test(name)) return name.endsWith('Minor') ? 'money' : 'plain';
  if (/Mm$|^wallPerDip$/.test(name)) return 'length';
  if (/Ml$|^ml[AB]?$|^mlPerTube$/.test(name)) return 'volume';
  if (/G$|^grams[AB]?$|^g$/.test(name)) return 'mass';
  if (/[a-z]C$|^c$/.test(name)) return 'temperature';
  if (/MPerS$|^mPerS$/.test(name) && !/mmPerS$/.test(name)) return 'speed';
  if (/Minor$/.test(name)) return 'money';
  if (/^efficiency$|Fraction$|^pBar$|^[ul]cl$/.test(name)) return 'percent';
  if (/Min$|^minutes/.test(name)) return 'minutes';
  if (/^seconds$|(?<!Per)S$/.test(name)) return 'seconds';
  return 'plain';
}

const isRow = (step: string | undefined) => step !== undefined && /^\d+$/.test(step);

/** The last named step of a path: what the value at its end measures goes by it. */
export const lastName = (path: string[]): string => [...path].reverse().find((step) => !isRow(step)) ?? '';

/** A path as a maker would say it: `lines.0.baitId` is "Line 1, bait". `titleOf` knows better words for a step. */
export function pathWords(path: string[], titleOf: (upTo: string[]) => string | undefined = () => undefined): string {
  const words: string[] = [];
  for (const [i, step] of path.entries()) {
    if (isRow(step)) continue;
    const word = titleOf(path.slice(0, i + 1)) ?? wordFor(step);
    const row = path[i + 1];
    words.push(isRow(row) ? `${word} ${Number(row) + 1}` : word);
  }
  return words
    .slice(-2)
    .map((word, i) => (i === 0 ? word : word.charAt(0).toLowerCase() + word.slice(1)))
    .join(', ');
}

interface JsonField {
  title?: string;
  anyOf?: JsonField[];
}

/** A title that the schema gives, also to what may be left empty. */
const ownTitle = ({ title, anyOf = [] }: JsonField): string | undefined =>
  title ?? anyOf.map(ownTitle).find((one) => one !== undefined);

/** JSON Schema with every field's title and, where its number is a quantity, what it measures. */
export function withTitles<S>(schema: S): S {
  if (Array.isArray(schema)) return schema.map(withTitles) as S;
  if (typeof schema !== 'object' || schema === null) return schema;
  const plain = Object.fromEntries(Object.entries(schema).map(([key, part]) => [key, withTitles(part)]));
  const fields = (schema as { properties?: Record<string, object> }).properties;
  if (!fields) return plain as S;
  const properties = Object.entries(fields).map(([name, part]) => {
    const kind = kindOf(name);
    return [
      name,
      {
        title: ownTitle(part) ?? wordFor(name),
        ...(kind === 'plain' ? {} : { 'x-measures': kind }),
        ...withTitles(part),
      },
    ];
  });
  return { ...plain, properties: Object.fromEntries(properties) } as S;
}
