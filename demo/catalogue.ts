// What Skerry Lane Softbaits owns: all of it made up.

export const MATERIALS = [
  {
    name: 'Soft 22',
    kind: 'plastisol',
    hardnessScale: '00',
    hardness: 22,
    densityGPerMl: 1.02,
    pricePerKgMinor: 1450,
    reorderG: 2500,
    leadDays: 5,
  },
  {
    name: 'Firm 58',
    kind: 'plastisol',
    hardnessScale: '00',
    hardness: 58,
    densityGPerMl: 1.02,
    pricePerKgMinor: 1600,
    reorderG: 1000,
    leadDays: 5,
  },
  { name: 'Loft Ease', kind: 'softener', densityGPerMl: 0.98, pricePerKgMinor: 900, reorderG: 200 },
  { name: 'Loft Steady', kind: 'stabilizer', densityGPerMl: 0.95, pricePerKgMinor: 2400, reorderG: 100 },
  { name: 'Harbour Blue liquid', kind: 'colourant', hex: '#1f5f8b', dropsPerMl: 22, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Kelp Green liquid', kind: 'colourant', hex: '#55702c', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Net Brown liquid', kind: 'colourant', hex: '#7a4b27', dropsPerMl: 21, densityGPerMl: 1.06, reorderG: 30 },
  { name: 'Coal liquid', kind: 'colourant', hex: '#1b1c20', dropsPerMl: 19, densityGPerMl: 1.08, reorderG: 30 },
  { name: 'Buoy Red liquid', kind: 'colourant', hex: '#c33a4a', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Lamp Yellow liquid', kind: 'colourant', hex: '#e6b422', dropsPerMl: 20, densityGPerMl: 1.05, reorderG: 30 },
  { name: 'Shell pearl', kind: 'powder', hex: '#e9e4da', bulkGPerMl: 0.42, reorderG: 20 },
  {
    name: 'Fine gold flake 0.4',
    kind: 'flake',
    hex: '#c9a13b',
    bulkGPerMl: 0.85,
    sizeMm: 0.4,
    cut: 'hex',
    reorderG: 40,
  },
  { name: 'Silver flake 0.9', kind: 'flake', hex: '#c3ccd0', bulkGPerMl: 0.78, sizeMm: 0.9, cut: 'hex', reorderG: 40 },
  {
    name: 'Limpet flake 0.6',
    kind: 'flake',
    hex: '#b0713e',
    bulkGPerMl: 0.8,
    sizeMm: 0.6,
    cut: 'square',
    limitC: 171,
    reorderG: 40,
  },
  {
    name: 'Ground sea salt',
    kind: 'salt',
    hex: '#f0f0ec',
    bulkGPerMl: 1.15,
    sizeMm: 0.08,
    pricePerKgMinor: 250,
    reorderG: 300,
  },
  {
    name: 'Loft Soft',
    kind: 'silicone',
    hardnessScale: 'A',
    hardness: 13,
    tearKnPerM: 19,
    cure: 'platinum',
    mix: { by: 'mass', partA: 10, partB: 1, densityAGPerMl: 1.1, densityBGPerMl: 1.02 },
    potLifeMin: 20,
    demoldMin: 240,
    ratedC: 23,
    pricePerKgMinor: 2900,
    reorderG: 1000,
    leadDays: 5,
  },
  {
    name: 'Loft Firm',
    kind: 'silicone',
    hardnessScale: 'A',
    hardness: 28,
    tearKnPerM: 22,
    cure: 'platinum',
    mix: { by: 'volume', partA: 1, partB: 1, densityAGPerMl: 1.16, densityBGPerMl: 1.14 },
    potLifeMin: 12,
    demoldMin: 75,
    ratedC: 23,
    pricePerKgMinor: 3300,
    reorderG: 800,
  },
  { name: 'Worm oil', kind: 'oil', densityGPerMl: 0.9, reorderG: 200 },
  { name: 'Eyes, 4 mm', kind: 'eyes', reorderG: 20 },
  { name: 'Laminated bags', kind: 'bags', reorderG: 200 },
  { name: 'Round labels', kind: 'labels', reorderG: 100 },
] as const;

/** Steps of the colours that they measured; the yellow goes by its look. */
export const STEPS: { of: string; thicknessMm: number; mlPerL: number; overBlack: number[]; overWhite: number[] }[] = [
  {
    of: 'Harbour Blue liquid',
    thicknessMm: 1,
    mlPerL: 3,
    overBlack: [0.061, 0.0912, 0.1003],
    overWhite: [0.3158, 0.7731, 0.9451],
  },
  {
    of: 'Kelp Green liquid',
    thicknessMm: 1,
    mlPerL: 3,
    overBlack: [0.028, 0.0303, 0.0264],
    overWhite: [0.7165, 0.8479, 0.633],
  },
  {
    of: 'Net Brown liquid',
    thicknessMm: 1,
    mlPerL: 3,
    overBlack: [0.0371, 0.0331, 0.0141],
    overWhite: [0.8904, 0.7046, 0.0825],
  },
  {
    of: 'Coal liquid',
    thicknessMm: 1,
    mlPerL: 0.6,
    overBlack: [0.0027, 0.0029, 0.004],
    overWhite: [0.2621, 0.3142, 0.6911],
  },
  {
    of: 'Buoy Red liquid',
    thicknessMm: 1,
    mlPerL: 3,
    overBlack: [0.0864, 0.0673, 0.0764],
    overWhite: [0.949, 0.5562, 0.7332],
  },
];

/** What a new bottle, bag or kit holds, g. */
/** What a kilogram of each kind costs them, or a thousand pieces, where the drum says no other. */
export const PRICE_PER_KG: Record<string, number> = {
  colourant: 6200,
  powder: 5400,
  flake: 4600,
  oil: 1900,
  salt: 150,
  eyes: 4000,
  bags: 9000,
  labels: 1500,
};

export const NEW_LOT_G: Record<string, number> = {
  plastisol: 5000,
  softener: 1000,
  stabilizer: 500,
  colourant: 120,
  powder: 100,
  flake: 250,
  salt: 2000,
  silicone: 5500,
  oil: 1000,
  eyes: 60,
  bags: 900,
  labels: 500,
};

export const MASTERS = [
  {
    name: 'Sandlance 110',
    shape: 'paddle',
    kind: 'clay',
    lengthMm: 110,
    widthMm: 16.5,
    heightMm: 17,
    thickestMm: 15.5,
    volumeMl: 12.6,
    pack: 8,
    price: 720,
    wanted: 34,
  },
  {
    name: 'Ragworm 140',
    shape: 'ribbon',
    kind: 'wood',
    lengthMm: 140,
    widthMm: 12,
    heightMm: 10,
    thickestMm: 10,
    volumeMl: 7.8,
    pack: 10,
    price: 690,
    wanted: 26,
  },
  {
    name: 'Squattie 70',
    shape: 'claws',
    kind: 'clay',
    lengthMm: 70,
    widthMm: 25,
    heightMm: 14,
    thickestMm: 13,
    volumeMl: 9.4,
    pack: 8,
    price: 740,
    wanted: 38,
  },
  {
    name: 'Sprat Tube 80',
    shape: 'tube',
    kind: 'print',
    lengthMm: 80,
    widthMm: 13,
    heightMm: 13,
    thickestMm: 13,
    volumeMl: 4.6,
    pack: 10,
    price: 650,
    wanted: 30,
  },
  {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
    volumeMl: 46,
    pack: 2,
    price: 980,
    wanted: 40,
  },
  {
    name: 'Prawnlet 55',
    shape: 'shrimp',
    kind: 'clay',
    lengthMm: 55,
    widthMm: 14,
    heightMm: 12,
    thickestMm: 11,
    volumeMl: 3.7,
    pack: 12,
    price: 640,
    wanted: 28,
  },
] as const;

export const DENSITY = { clay: 1.75, wood: 0.62, print: 1.24 } as const;

export const RECIPES: { name: string; hex: string; items: [material: string, amount: number, unit: string][] }[] = [
  {
    name: 'Bladderwrack',
    hex: '#66752b',
    items: [
      ['Kelp Green liquid', 22, 'drop'],
      ['Net Brown liquid', 9, 'drop'],
      ['Fine gold flake 0.4', 0.5, 'tsp'],
      ['Ground sea salt', 2, 'tbsp'],
    ],
  },
  {
    name: 'Slack Tide',
    hex: '#4f8796',
    items: [
      ['Harbour Blue liquid', 14, 'drop'],
      ['Kelp Green liquid', 5, 'drop'],
      ['Silver flake 0.9', 0.5, 'tsp'],
    ],
  },
  {
    name: 'Night Ferry',
    hex: '#2b3358',
    items: [
      ['Harbour Blue liquid', 26, 'drop'],
      ['Coal liquid', 14, 'drop'],
      ['Silver flake 0.9', 0.25, 'tsp'],
      ['Ground sea salt', 1, 'tbsp'],
    ],
  },
  {
    name: 'Sea Pink',
    hex: '#dd7f9b',
    items: [
      ['Buoy Red liquid', 8, 'drop'],
      ['Shell pearl', 0.5, 'tsp'],
    ],
  },
  {
    name: 'Lantern',
    hex: '#eda928',
    items: [
      ['Lamp Yellow liquid', 24, 'drop'],
      ['Buoy Red liquid', 3, 'drop'],
      ['Fine gold flake 0.4', 0.75, 'tsp'],
    ],
  },
  {
    name: 'Limpet',
    hex: '#a5733f',
    items: [
      ['Net Brown liquid', 16, 'drop'],
      ['Limpet flake 0.6', 1, 'tsp'],
      ['Ground sea salt', 2, 'tbsp'],
    ],
  },
  {
    name: 'Ebb Glass',
    hex: '#9fcbb9',
    items: [
      ['Kelp Green liquid', 2, 'drop'],
      ['Harbour Blue liquid', 1, 'drop'],
      ['Shell pearl', 0.25, 'tsp'],
      ['Silver flake 0.9', 0.25, 'tsp'],
    ],
  },
];

type Layer = [
  place: string,
  melt: string,
  much:
    | { measure: 'share'; shareFraction: number }
    | { measure: 'ml'; eachMl: number }
    | { measure: 'level'; heightFraction: number }
    | { measure: 'rest' },
  joins: string | null,
];

/** Colours of several melts: what goes in first stands first. */
export const LAYERED: { name: string; hex: string; notes: string; layers: Layer[] }[] = [
  {
    name: 'Gannet Coat',
    hex: '#4d6f86',
    notes: 'Belly first, the mold flat; warm the halves before closing.',
    layers: [
      ['belly', 'Ebb Glass', { measure: 'level', heightFraction: 0.4 }, null],
      ['side', 'Lantern', { measure: 'ml', eachMl: 2 }, 'melted'],
      ['back', 'Night Ferry', { measure: 'rest' }, 'melted'],
    ],
  },
  {
    name: 'Night Tide',
    hex: '#3c4f77',
    notes: 'Two cups at one heat, both injectors warm.',
    layers: [
      ['belly', 'Ebb Glass', { measure: 'share', shareFraction: 0.5 }, null],
      ['back', 'Night Ferry', { measure: 'rest' }, 'together'],
    ],
  },
];

export const CUSTOMERS = [
  ['Quayside Chandlery', 'the shop on the quay, open till six', 'shop'],
  ['Ellary Kayak Hire', 'slipway hut', 'private'],
  ['North Stack Anglers’ Club', 'meets on the first Thursday', 'club'],
  ['Tideline', 'guide school, beginners’ sets each spring', 'private'],
] as const;
