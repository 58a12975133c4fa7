import { usual } from '../defaults.ts';
import { type INSERTS, type ShapeSpec, type Station, tailReachMm } from './spec.ts';

const station = (at: number, topMm: number, bottomMm: number, widthMm: number): Station => ({
  at,
  topMm,
  bottomMm,
  widthMm,
});

/** What each kind of tail begins with when it is chosen, mm and degrees: workshop practice, all of it to be changed. */
export const USUAL_TAIL: Record<ShapeSpec['tail']['kind'], Omit<ShapeSpec['tail'], 'kind'>> = {
  paddle: { lengthMm: 12, acrossMm: 14, thicknessMm: 4, angleDeg: 10 },
  boot: { lengthMm: 18, acrossMm: 11, thicknessMm: 4, angleDeg: 35 },
  ribbon: { lengthMm: 50, acrossMm: 8, thicknessMm: 1.8, angleDeg: 24 },
  curl: { lengthMm: 44, acrossMm: 9, thicknessMm: 1.7, angleDeg: 190 },
  straight: { lengthMm: 24, acrossMm: 6, thicknessMm: 3, angleDeg: 0 },
  twin: { lengthMm: 30, acrossMm: 4, thicknessMm: 2.4, angleDeg: 14 },
  beaver: { lengthMm: 22, acrossMm: 16, thicknessMm: 3, angleDeg: 0 },
};

/** What every other part begins with when it is switched on; the same holds of them. */
export const USUAL_PART = {
  ribs: { count: 8, depthMm: 0.8, widthMm: 3, fromAt: 0.2, toAt: 0.85 },
  fin: { fromAt: 0.35, toAt: 0.7, heightMm: 6, thicknessMm: 2.4 },
  eyes: { diameterMm: 4, at: 0.12, upMm: 1.5 },
  bellySlot: { fromAt: 0.35, toAt: 0.7, widthMm: 2.4, depthMm: 6 },
  topSlot: { fromAt: 0.35, toAt: 0.7, widthMm: 2.4, depthMm: 6 },
  bore: { diameterMm: 3, fromAt: 0, toAt: 1.5, upMm: 0 },
  cutFlatMm: 1,
} satisfies Partial<ShapeSpec>;

export const USUAL_LIMB: Record<'claw' | 'leg', ShapeSpec['limbs'][number]> = {
  claw: { kind: 'claw', pairs: 1, at: 0.85, stepMm: 0, lengthMm: 24, thicknessMm: 4, angleDeg: 24, dropDeg: 0 },
  leg: { kind: 'leg', pairs: 3, at: 0.4, stepMm: 6, lengthMm: 9, thicknessMm: 2, angleDeg: 60, dropDeg: 20 },
};

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
      tail: { kind: 'ribbon', lengthMm: 55, acrossMm: 8, thicknessMm: 1.8, angleDeg: 24 },
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
      tail: { kind: 'beaver', lengthMm: 10, acrossMm: 12, thicknessMm: 3, angleDeg: 0 },
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
      tail: { kind: 'straight', lengthMm: 16, acrossMm: 12.4, thicknessMm: 12, angleDeg: 0 },
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
      tail: { kind: 'beaver', lengthMm: 11, acrossMm: 13, thicknessMm: 2, angleDeg: 0 },
      limbs: [
        { kind: 'leg', pairs: 4, at: 0.3, stepMm: 4.5, lengthMm: 7, thicknessMm: 1.5, angleDeg: 48, dropDeg: 40 },
      ],
      eyes: { diameterMm: 2, at: 0.14, upMm: 1.2 },
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
      tail: { kind: 'straight', lengthMm: 22, acrossMm: 8, thicknessMm: 4, angleDeg: 0 },
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
      tail: { kind: 'curl', lengthMm: 48, acrossMm: 9, thicknessMm: 1.6, angleDeg: 190 },
    },
  },
];

/** A starting shape stretched to sizes that were measured by hand. */
export function startFor(shape: string, lengthMm: number, widthMm: number, heightMm: number): ShapeSpec {
  const start = STARTS.find((one) => one.shape === shape) ?? STARTS[0];
  const { spec } = start as (typeof STARTS)[number];
  const own = {
    length: spec.bodyMm + spec.wrist.lengthMm + tailReachMm(spec),
    width: Math.max(
      ...spec.stations.map((one) => one.widthMm),
      ...spec.limbs.map((limb) => 14 + 2 * limb.lengthMm * Math.sin((limb.angleDeg * Math.PI) / 180)),
    ),
    height: Math.max(...spec.stations.map((one) => one.topMm + one.bottomMm)),
  };
  const [x, y, z] = [lengthMm / own.length, widthMm / own.width, heightMm / own.height];
  const tenth = (mm: number) => Math.round(mm * 10) / 10;
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
