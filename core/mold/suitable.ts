export type Cure = 'platinum' | 'tin';
export type MasterStuff = 'clay' | 'wood' | 'print' | 'cast' | 'own-bait' | 'natural' | 'sulphur clay bed';
export type Risk = 'stops' | 'test' | 'fine';

export interface Pairing {
  risk: Risk;
  why: string;
}

/** What a master's material does to a rubber's cure; the rubber's own sheet wins. */
const PLATINUM: Record<MasterStuff, Pairing> = {
  clay: { risk: 'test', why: 'Baked polymer clay is mostly fine, some plasticizers slow it: cure a spot first.' },
  wood: {
    risk: 'test',
    why: 'Bare wood and some varnishes slow it: seal thin with shellac or acrylic, cure a spot first.',
  },
  print: {
    risk: 'test',
    why: 'Filament is fine. Resin prints stop it unless washed, post-cured and warmed for hours: cure a spot first.',
  },
  cast: {
    risk: 'test',
    why: 'Resins with amines stay tacky under it: let them cure for days, seal, cure a spot first.',
  },
  'own-bait': {
    risk: 'test',
    why: 'Plasticizer creeps out of a soft bait: wash it with dish soap, cure a spot first.',
  },
  natural: { risk: 'test', why: 'Moisture and latex stop it: frozen dry, sealed, and a spot cured first.' },
  'sulphur clay bed': { risk: 'stops', why: 'Sulphur stops it: bed in sulphur-free clay.' },
};
const TIN: Record<MasterStuff, Pairing> = {
  clay: { risk: 'fine', why: 'Tin-cure rubber sets against it.' },
  wood: { risk: 'fine', why: 'Tin-cure rubber sets against sealed wood.' },
  print: { risk: 'fine', why: 'Tin-cure rubber sets against prints.' },
  cast: { risk: 'fine', why: 'Tin-cure rubber sets against cast resin.' },
  'own-bait': {
    risk: 'test',
    why: 'Plasticizer creeps out of a soft bait: wash it with dish soap, cure a spot first.',
  },
  natural: { risk: 'test', why: 'It needs a trace of moisture but not a wet face: cure a spot first.' },
  'sulphur clay bed': { risk: 'fine', why: 'Sulphur does nothing to tin-cure rubber.' },
};

/** How a master's material and a rubber's cure get on; an unknown cure is taken for the touchier one. */
export const pairing = (stuff: MasterStuff, cure: Cure | null): Pairing => (cure === 'tin' ? TIN : PLATINUM)[stuff];

export interface RubberFacts {
  hardnessScale: 'A' | '00' | null;
  hardness: number | null;
  /** Tear strength, kN/m, from its sheet. */
  tearKnPerM: number | null;
}

export interface MoldNeed {
  pour: 'open-face' | 'wrap' | 'two-piece';
  /** What a straight pull does not free, mm²; 0 where it is not known. */
  undercutMm2: number;
}

/** Shore A that a kind of mold asks for, and the tear strength that cutting and undercuts ask for. */
const WANTS: Record<MoldNeed['pour'], { low: number; high: number; say: string }> = {
  'open-face': { low: 10, high: 25, say: 'soft to middling: the bait is flexed out of it' },
  wrap: { low: 5, high: 18, say: 'soft and hard to tear: it is cut, and bends round undercuts' },
  'two-piece': { low: 20, high: 40, say: 'stiff: the halves have to register, or the seam shows' },
};
const UNDERCUT_MM2 = 30;
const TOUGH_KN_PER_M = 15;

/** Shore 00 to A roughly, over the range of mold rubbers. Source: usual conversion charts, 00 45 ≈ A 10, 00 70 ≈ A 25. */
const asShoreA = (scale: 'A' | '00', value: number) => (scale === 'A' ? value : Math.max(0, 10 + (value - 45) * 0.6));

export interface Suited {
  /** 0 fits; larger fits worse; null: its sheet was not written down, so nothing can be said. */
  miss: number | null;
  say: string;
}

/**
 * How well a rubber suits what a mold needs, with the reason.
 * A mold with undercuts wants the softer end and a tear strength of 15 kN/m or more. Source: what makers choose; Shore A.
 */
export function suits({ hardnessScale, hardness, tearKnPerM }: RubberFacts, { pour, undercutMm2 }: MoldNeed): Suited {
  const want = WANTS[pour];
  const caught = undercutMm2 > UNDERCUT_MM2 && pour !== 'two-piece';
  const high = caught ? want.high - 5 : want.high;
  if (hardness === null || hardnessScale === null)
    return { miss: null, say: `Wanted ${want.say}. How hard this one is was not written down.` };
  const shore = asShoreA(hardnessScale, hardness);
  const hard = Math.max(0, want.low - shore, shore - high);
  const tears = (pour === 'wrap' || caught) && tearKnPerM !== null && tearKnPerM < TOUGH_KN_PER_M;
  const reasons = [
    shore > high && (caught ? 'too stiff for its undercuts' : 'stiffer than this mold wants'),
    shore < want.low && (pour === 'two-piece' ? 'too soft: the halves shift' : 'softer than need be: it bulges'),
    tears && 'tears easily where it is cut or bent',
  ].filter((one): one is string => Boolean(one));
  const asks = `asks for Shore A ${want.low}–${high}, ${want.say}`;
  return {
    miss: hard + (tears ? 10 : 0),
    say:
      reasons.length === 0
        ? `Fits: this mold ${asks}.`
        : `${reasons[0]?.charAt(0).toUpperCase()}${reasons.join(', ').slice(1)}: this mold ${asks}.`,
  };
}
