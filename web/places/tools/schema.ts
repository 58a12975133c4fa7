/** The part of JSON Schema that the catalogue uses. */
export interface Schema {
  type?: 'object' | 'array' | 'number' | 'integer' | 'string' | 'boolean';
  enum?: string[];
  properties?: Record<string, Schema>;
  required?: string[];
  /** One schema for every row, or one for each place of a fixed list. */
  items?: Schema | Schema[];
  anyOf?: Schema[];
  default?: unknown;
  maximum?: number;
  allOf?: Schema[];
}

export interface Tool {
  name: string;
  title: string;
  asks: string;
  formula: string;
  source: string;
  limits: string;
  takesMesh?: boolean;
  schema: Schema;
  example: { input: Record<string, unknown>; output: Record<string, unknown> };
}

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
  notes: 'To be looked at',
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
  goodG: 'Good',
  rejectG: 'Rejects',
  returnedG: 'Sprues',
  residueG: 'Left on the cup',
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
  onsetMPerS: 'Kicks from, m/s',
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
};

/** What a maker calls a field: our words, or its name without the unit. */
export function wordFor(name: string): string {
  const known = WORDS[name];
  if (known) return known;
  const words = name
    .replace(/(Mm2|Mm|Ml|Min|Minor|Fraction|MPerS|Deg|C|G)$/, '')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export type Kind = 'length' | 'volume' | 'mass' | 'temperature' | 'money' | 'percent' | 'minutes' | 'seconds' | 'plain';

/** What a number measures, by the unit that its name carries. */
export function kindOf(name: string): Kind {
  if (/PerMl$|PerKgMinor$|PerMm$|^centroidMm$|^atMm$/.test(name)) return name.endsWith('Minor') ? 'money' : 'plain';
  if (/Mm$|^wallPerDip$/.test(name)) return 'length';
  if (/Ml$|^ml[AB]?$|^mlPerTube$/.test(name)) return 'volume';
  if (/G$|^grams[AB]?$|^g$/.test(name)) return 'mass';
  if (/[a-z]C$|^c$/.test(name)) return 'temperature';
  if (/Minor$/.test(name)) return 'money';
  if (/Fraction$|^pBar$|^[ul]cl$/.test(name)) return 'percent';
  if (/Min$|^minutes/.test(name)) return 'minutes';
  if (/^seconds$|(?<!Per)S$/.test(name)) return 'seconds';
  return 'plain';
}

/** The example with the schema's defaults filled in, so that every assumption is there to be seen and changed. */
export function withDefaults(schema: Schema, value: unknown): unknown {
  if (schema.type === 'array')
    return Array.isArray(value) && !Array.isArray(schema.items)
      ? value.map((row) => withDefaults((schema.items as Schema | undefined) ?? {}, row))
      : (value ?? schema.default);
  if (schema.type !== 'object' || !schema.properties) return value ?? schema.default;
  if (value === undefined && schema.default === undefined) return undefined;
  const given = { ...(schema.default as object | undefined), ...(value as object | undefined) } as Record<
    string,
    unknown
  >;
  return Object.fromEntries(
    Object.entries(schema.properties)
      .map(([key, part]) => [key, withDefaults(part, given[key])] as const)
      .filter(([, part]) => part !== undefined && !(Array.isArray(part) && part.length === 0)),
  );
}

/** A first row for a list: the last one again, under a new name. */
export function anotherRow(rows: Record<string, unknown>[], schema: Schema | undefined): Record<string, unknown> {
  const last = rows.at(-1) ?? {};
  return schema?.properties?.id ? { ...last, id: `${String(last.id ?? 'row')} ${rows.length + 1}` } : { ...last };
}
