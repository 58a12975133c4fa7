import { usual } from '../defaults.ts';
import { axisOf } from './axis.ts';
import {
  type FIN_PLACES,
  type INSERTS,
  type LIMBS,
  type ShapeSpec,
  type Station,
  tailReachMm,
  USUAL_STRANDS,
  WITHOUT_MORE,
} from './spec.ts';

const station = (at: number, topMm: number, bottomMm: number, widthMm: number): Station => ({
  at,
  topMm,
  bottomMm,
  widthMm,
});

/** What each kind of tail begins with when it is chosen, mm and degrees: workshop practice, all of it to be changed. */
export const USUAL_TAIL: Record<ShapeSpec['tail']['kind'], Omit<ShapeSpec['tail'], 'kind'>> = {
  paddle: { lengthMm: 12, acrossMm: 14, thicknessMm: 4, angleDeg: 10, strands: USUAL_STRANDS },
  boot: { lengthMm: 18, acrossMm: 11, thicknessMm: 4, angleDeg: 35, strands: USUAL_STRANDS },
  heel: { lengthMm: 17, acrossMm: 11, thicknessMm: 3.4, angleDeg: 20, strands: USUAL_STRANDS },
  ribbon: { lengthMm: 50, acrossMm: 8, thicknessMm: 1.8, angleDeg: 24, strands: USUAL_STRANDS },
  curl: { lengthMm: 44, acrossMm: 9, thicknessMm: 1.7, angleDeg: 190, strands: USUAL_STRANDS },
  straight: { lengthMm: 24, acrossMm: 6, thicknessMm: 3, angleDeg: 0, strands: USUAL_STRANDS },
  twin: { lengthMm: 30, acrossMm: 4, thicknessMm: 2.4, angleDeg: 14, strands: USUAL_STRANDS },
  fork: { lengthMm: 26, acrossMm: 9, thicknessMm: 2.4, angleDeg: 26, strands: USUAL_STRANDS },
  beaver: { lengthMm: 22, acrossMm: 16, thicknessMm: 3, angleDeg: 0, strands: USUAL_STRANDS },
  skirt: { lengthMm: 34, acrossMm: 8, thicknessMm: 1.8, angleDeg: 8, strands: USUAL_STRANDS },
};

/** What every other part begins with when it is switched on; the same holds of them. */
export const USUAL_PART = {
  ribs: { count: 8, depthMm: 0.8, widthMm: 3, fromAt: 0.2, toAt: 0.85 },
  fin: { fromAt: 0.35, toAt: 0.7, heightMm: 6, thicknessMm: 2.4 },
  eyes: { diameterMm: 4, at: 0.12, upMm: 1.5 },
  bellySlot: { fromAt: 0.35, toAt: 0.7, widthMm: 2.4, depthMm: 6 },
  topSlot: { fromAt: 0.35, toAt: 0.7, widthMm: 2.4, depthMm: 6 },
  bore: { diameterMm: 3, fromAt: 0, toAt: 1.5, upMm: 0 },
  gills: { at: 0.2, acrossMm: 9, raiseMm: 0.5 },
  mouth: { depthMm: 6, gapMm: 2.4, upMm: -1 },
  texture: { kind: 'scales', sizeMm: 2.4, depthMm: 0.25, fromAt: 0.22, toAt: 0.95 },
  hollow: { skinMm: 2.4, fromAt: 0.15, toAt: 0.85 },
  cutFlatMm: 1,
} satisfies Partial<ShapeSpec>;

export const USUAL_LIMB: Record<(typeof LIMBS)[number], ShapeSpec['limbs'][number]> = {
  claw: { kind: 'claw', pairs: 1, at: 0.85, stepMm: 0, lengthMm: 24, thicknessMm: 4, angleDeg: 24, dropDeg: 0 },
  pincer: { kind: 'pincer', pairs: 1, at: 0.3, stepMm: 0, lengthMm: 26, thicknessMm: 3.6, angleDeg: 150, dropDeg: 0 },
  leg: { kind: 'leg', pairs: 3, at: 0.4, stepMm: 6, lengthMm: 9, thicknessMm: 2, angleDeg: 60, dropDeg: 20 },
};

export const USUAL_FIN: Record<(typeof FIN_PLACES)[number], ShapeSpec['fins'][number]> = {
  back: { place: 'back', fromAt: 0.6, toAt: 0.85, heightMm: 4, thicknessMm: 2, sweepMm: 3, upMm: 0 },
  belly: { place: 'belly', fromAt: 0.62, toAt: 0.85, heightMm: 4, thicknessMm: 2, sweepMm: 3, upMm: 0 },
  sides: { place: 'sides', fromAt: 0.28, toAt: 0.42, heightMm: 6, thicknessMm: 2, sweepMm: 5, upMm: -1.5 },
};

/** A bend as it is added: the rear half, a little down. */
export const USUAL_BEND: ShapeSpec['bends'][number] = { fromAt: 0.45, toAt: 1, turnDeg: 30 };

type InsertKind = (typeof INSERTS)[number];

/** Room that an insert of this mass takes, mL to a thousandth. Source: mass ÷ density. */
export const insertRoomMl = (kind: InsertKind, massG: number): number =>
  Math.round(
    (massG / usual(({ wire: 'stainlessGPerMl', tube: 'tubeGPerMl', weight: 'leadGPerMl' } as const)[kind])) * 1000,
  ) / 1000;

/** An insert as it is added: under the axis, in the front third. */
export function usualInsert(kind: InsertKind): ShapeSpec['inserts'][number] {
  const massG = kind === 'weight' ? 5 : 0.6;
  return { kind, massG, volumeMl: insertRoomMl(kind, massG), at: 0.35, upMm: -3 };
}

const PLAIN: ShapeSpec = {
  bodyMm: 80,
  noseMm: 8,
  stations: [station(0, 4, 4, 8), station(0.3, 8, 8, 15), station(0.7, 6, 6, 11)],
  flatBelly: 0,
  ribs: null,
  wrist: { thicknessMm: 4, heightMm: 6, lengthMm: 12 },
  tail: { kind: 'paddle', ...USUAL_TAIL.paddle },
  limbs: [],
  fin: null,
  ...WITHOUT_MORE,
  eyes: null,
  bellySlot: null,
  topSlot: null,
  bore: null,
  inserts: [],
  cutFlatMm: null,
  carved: { taper: 0, bendMm: 0 },
};

export interface Start {
  id: string;
  name: string;
  says: string;
  /** How the record's drawing goes by. */
  shape: 'paddle' | 'ribbon' | 'claws' | 'tube' | 'shrimp' | 'stick';
  spec: ShapeSpec;
}

/** Shapes to begin with: none is a copy of anything, all want changing. */
export const STARTS: Start[] = [
  {
    id: 'paddle',
    name: 'Paddle minnow',
    says: 'a slim body, a thin wrist, a paddle across the stream',
    shape: 'paddle',
    spec: {
      ...PLAIN,
      bodyMm: 82,
      stations: [
        station(0, 4, 4, 8),
        station(0.28, 8.6, 8.2, 16),
        station(0.62, 6.6, 6.4, 12),
        station(0.86, 4, 4.2, 7),
      ],
      eyes: { diameterMm: 4, at: 0.11, upMm: 1.8 },
      bellySlot: { fromAt: 0.34, toAt: 0.7, widthMm: 2.4, depthMm: 6 },
    },
  },
  {
    id: 'ribbon',
    name: 'Ribbed ribbon worm',
    says: 'rings along the body, a long thin tail that waves',
    shape: 'ribbon',
    spec: {
      ...PLAIN,
      bodyMm: 80,
      noseMm: 6,
      stations: [station(0, 3.4, 3.4, 7), station(0.3, 5, 5, 11), station(0.8, 4, 4, 9)],
      ribs: { count: 14, depthMm: 0.9, widthMm: 3, fromAt: 0.16, toAt: 0.92 },
      wrist: { thicknessMm: 3.2, heightMm: 6, lengthMm: 5 },
      tail: { kind: 'ribbon', lengthMm: 55, acrossMm: 8, thicknessMm: 1.8, angleDeg: 24, strands: USUAL_STRANDS },
    },
  },
  {
    id: 'claws',
    name: 'Squat claws',
    says: 'a broad flat-bellied body, two claws, a row of legs',
    shape: 'claws',
    spec: {
      ...PLAIN,
      bodyMm: 44,
      noseMm: 7,
      flatBelly: 0.6,
      stations: [station(0, 4, 3.4, 9), station(0.35, 7.2, 5.6, 17), station(0.8, 6, 5, 14)],
      ribs: { count: 5, depthMm: 0.8, widthMm: 3, fromAt: 0.1, toAt: 0.55 },
      wrist: { thicknessMm: 8, heightMm: 7, lengthMm: 3 },
      tail: { kind: 'beaver', lengthMm: 10, acrossMm: 12, thicknessMm: 3, angleDeg: 0, strands: USUAL_STRANDS },
      limbs: [
        { kind: 'claw', pairs: 1, at: 0.85, stepMm: 0, lengthMm: 26, thicknessMm: 4, angleDeg: 24, dropDeg: 0 },
        { kind: 'leg', pairs: 3, at: 0.42, stepMm: 6, lengthMm: 9, thicknessMm: 2, angleDeg: 62, dropDeg: 18 },
      ],
    },
  },
  {
    id: 'tube',
    name: 'Tube',
    says: 'a thin wall round a bore that clears the hook',
    shape: 'tube',
    spec: {
      ...PLAIN,
      bodyMm: 62,
      noseMm: 6,
      stations: [station(0, 4.5, 4.5, 9), station(0.2, 6.4, 6.4, 12.8), station(0.95, 6.2, 6.2, 12.4)],
      wrist: { thicknessMm: 12.4, heightMm: 12.4, lengthMm: 2 },
      tail: { kind: 'straight', lengthMm: 16, acrossMm: 12.4, thicknessMm: 12, angleDeg: 0, strands: USUAL_STRANDS },
      bore: { diameterMm: 8.6, fromAt: 0.14, toAt: 1.5, upMm: 0 },
    },
  },
  {
    id: 'prawn',
    name: 'Little prawn',
    says: 'a bent back, legs, a fan of a tail',
    shape: 'shrimp',
    spec: {
      ...PLAIN,
      bodyMm: 40,
      noseMm: 6,
      flatBelly: 0.3,
      stations: [station(0, 2.4, 2.4, 5), station(0.35, 6, 4.6, 10), station(0.8, 4, 3.4, 7)],
      ribs: { count: 5, depthMm: 0.6, widthMm: 2.4, fromAt: 0.4, toAt: 0.95 },
      wrist: { thicknessMm: 4.4, heightMm: 4, lengthMm: 3 },
      tail: { kind: 'beaver', lengthMm: 11, acrossMm: 13, thicknessMm: 2, angleDeg: 0, strands: USUAL_STRANDS },
      limbs: [
        { kind: 'leg', pairs: 4, at: 0.3, stepMm: 4.5, lengthMm: 7, thicknessMm: 1.5, angleDeg: 48, dropDeg: 40 },
      ],
      eyes: { diameterMm: 2, at: 0.14, upMm: 1.2 },
      bends: [
        { fromAt: 0.42, toAt: 0.98, turnDeg: 52 },
        { fromAt: 0.98, toAt: 1.2, turnDeg: -26 },
      ],
    },
  },
  {
    id: 'stick',
    name: 'Stick',
    says: 'nothing but a body: it sinks level and says little',
    shape: 'stick',
    spec: {
      ...PLAIN,
      bodyMm: 90,
      noseMm: 9,
      stations: [station(0, 4.2, 4.2, 8.4), station(0.5, 6, 6, 12), station(0.92, 4.8, 4.8, 9.6)],
      wrist: { thicknessMm: 8, heightMm: 8, lengthMm: 4 },
      tail: { kind: 'straight', lengthMm: 22, acrossMm: 8, thicknessMm: 4, angleDeg: 0, strands: USUAL_STRANDS },
    },
  },
  {
    id: 'curl',
    name: 'Curl tail',
    says: 'a short ribbed body and a sickle that beats',
    shape: 'ribbon',
    spec: {
      ...PLAIN,
      bodyMm: 44,
      noseMm: 5,
      stations: [station(0, 3.6, 3.6, 7.4), station(0.3, 5.2, 5.2, 10.6), station(0.85, 3.4, 3.4, 6.4)],
      ribs: { count: 8, depthMm: 0.8, widthMm: 2.6, fromAt: 0.15, toAt: 0.9 },
      wrist: { thicknessMm: 3, heightMm: 5, lengthMm: 3 },
      tail: { kind: 'curl', lengthMm: 48, acrossMm: 9, thicknessMm: 1.6, angleDeg: 190, strands: USUAL_STRANDS },
    },
  },
  {
    id: 'crayfish',
    name: 'Crayfish',
    says: 'open pincers held forward, walking legs, a jointed tail with its fan',
    shape: 'claws',
    spec: {
      ...PLAIN,
      bodyMm: 58,
      noseMm: 9,
      flatBelly: 0.35,
      stations: [
        station(0, 2.2, 2.2, 4.5),
        station(0.16, 5.2, 4.4, 10),
        station(0.4, 7, 5.4, 14.5),
        station(0.52, 5.6, 4.6, 12.4),
        station(0.9, 4, 3.4, 9.6),
      ],
      ribs: { count: 6, depthMm: 0.9, widthMm: 2.6, fromAt: 0.52, toAt: 1 },
      wrist: { thicknessMm: 8.6, heightMm: 4, lengthMm: 2 },
      tail: { kind: 'beaver', lengthMm: 14, acrossMm: 21, thicknessMm: 2.4, angleDeg: 0, strands: USUAL_STRANDS },
      limbs: [
        { kind: 'pincer', pairs: 1, at: 0.24, stepMm: 0, lengthMm: 30, thicknessMm: 4, angleDeg: 152, dropDeg: 0 },
        { kind: 'leg', pairs: 3, at: 0.32, stepMm: 4.6, lengthMm: 13, thicknessMm: 1.9, angleDeg: 78, dropDeg: 22 },
        { kind: 'leg', pairs: 1, at: 0.09, stepMm: 0, lengthMm: 26, thicknessMm: 1.3, angleDeg: 166, dropDeg: -12 },
      ],
      eyes: null,
      bends: [{ fromAt: 0.55, toAt: 1, turnDeg: 16 }],
    },
  },
  {
    id: 'boot',
    name: 'Boot shad',
    says: 'deep and scaled, gills, a back fin, and a boot with its heel',
    shape: 'paddle',
    spec: {
      ...PLAIN,
      bodyMm: 76,
      noseMm: 9,
      stations: [
        station(0, 3.4, 3.2, 6.4),
        station(0.16, 8, 7.4, 11.5),
        station(0.38, 11, 11, 14),
        station(0.66, 7.6, 7.6, 10),
        station(0.88, 4, 4.2, 6.2),
      ],
      wrist: { thicknessMm: 4.2, heightMm: 6.4, lengthMm: 11 },
      tail: { kind: 'heel', lengthMm: 17, acrossMm: 11.5, thicknessMm: 3.4, angleDeg: 7, strands: USUAL_STRANDS },
      eyes: { diameterMm: 4.4, at: 0.13, upMm: 2 },
      mouth: { depthMm: 5.5, gapMm: 2, upMm: -0.8 },
      gills: { at: 0.235, acrossMm: 11, raiseMm: 0.55 },
      texture: { kind: 'scales', sizeMm: 2.8, depthMm: 0.3, fromAt: 0.32, toAt: 0.96 },
      fins: [
        { place: 'back', fromAt: 0.34, toAt: 0.66, heightMm: 5, thicknessMm: 2.4, sweepMm: 3, upMm: 0 },
        { place: 'belly', fromAt: 0.66, toAt: 0.84, heightMm: 3.4, thicknessMm: 2, sweepMm: 3, upMm: 0 },
      ],
    },
  },
];

/** How long and how high a shape is, its axis bent as it is; limbs and fins come on top. */
function extentOf(spec: ShapeSpec): { long: number; high: number } {
  const axis = axisOf(spec);
  const end = spec.bodyMm + spec.wrist.lengthMm + tailReachMm(spec);
  const points = [
    axis.place(0, 0),
    axis.place(end, 0),
    ...spec.stations.flatMap((one) => [
      axis.place(one.at * spec.bodyMm, one.topMm),
      axis.place(one.at * spec.bodyMm, -one.bottomMm),
    ]),
  ];
  const over = (k: 0 | 1) => Math.max(...points.map((at) => at[k])) - Math.min(...points.map((at) => at[k]));
  return { long: over(0), high: over(1) };
}

const tenth = (mm: number) => Math.round(mm * 10) / 10;

function stretched(spec: ShapeSpec, x: number, y: number, z: number): ShapeSpec {
  return {
    ...spec,
    bodyMm: tenth(spec.bodyMm * x),
    stations: spec.stations.map((one) => ({
      at: one.at,
      topMm: tenth(one.topMm * z),
      bottomMm: tenth(one.bottomMm * z),
      widthMm: tenth(one.widthMm * y),
    })),
    wrist: { ...spec.wrist, lengthMm: tenth(spec.wrist.lengthMm * x) },
    tail: { ...spec.tail, lengthMm: tenth(spec.tail.lengthMm * x), acrossMm: tenth(spec.tail.acrossMm * z) },
    limbs: spec.limbs.map((limb) => ({
      ...limb,
      lengthMm: tenth(limb.lengthMm * Math.min(x, y)),
      thicknessMm: tenth(limb.thicknessMm * Math.min(1, y)),
      stepMm: tenth(limb.stepMm * x),
    })),
  };
}

/** Of the height of a bent bait so much is its body; the rest comes of the bend. */
const BODY_SHARE = 0.75;

/** A starting shape stretched to sizes that were measured by hand; a bent one is bent as far as its height asks. */
export function startFor(shape: string, lengthMm: number, widthMm: number, heightMm: number): ShapeSpec {
  const { spec } = (STARTS.find((one) => one.shape === shape) ?? STARTS[0]) as Start;
  const wide = Math.max(
    ...spec.stations.map((one) => one.widthMm),
    ...spec.limbs.map((limb) => 14 + 2 * limb.lengthMm * Math.sin((limb.angleDeg * Math.PI) / 180)),
  );
  const isBent = spec.bends.length > 0;
  const z = ((isBent ? BODY_SHARE : 1) * heightMm) / extentOf({ ...spec, bends: [] }).high;
  const made = (share: number): ShapeSpec => {
    const bent = { ...spec, bends: spec.bends.map((one) => ({ ...one, turnDeg: tenth(one.turnDeg * share) })) };
    const x = lengthMm / extentOf(bent).long;
    // Longer it lies a little flatter: once more.
    const first = stretched(bent, x, widthMm / wide, z);
    return isBent ? stretched(bent, (x * lengthMm) / extentOf(first).long, widthMm / wide, z) : first;
  };
  if (!isBent) return made(1);
  let [low, high] = [0, 1.5];
  for (let turn = 0; turn < 12; turn++) {
    const middle = (low + high) / 2;
    if (extentOf(made(middle)).high < heightMm) low = middle;
    else high = middle;
  }
  return made(low);
}
