import type { Parting } from './parting.ts';

export const MOLD_WAYS = ['open-face', 'wrap', 'two-piece', 'printed', 'machined', 'dip'] as const;
export type MoldWay = (typeof MOLD_WAYS)[number];

export interface Verdict {
  way: MoldWay;
  /** yes; with care; no. */
  suits: 'yes' | 'care' | 'no';
  because: string;
}

export interface ShapeFacts {
  parting: Pick<Parting, 'undercutFraction' | 'flatUndercutMm2' | 'flatBack' | 'undercutMm2'> & { areaMm2: number };
  thinnestMm: number;
  thickestMm: number;
  /** Most stock that the chosen cutter leaves, mm, and the largest ball that leaves none; null when not looked at. */
  leftoverMm: number | null;
  largestBallMm: number | null;
  /** A bore from end to end, with its wall: can be dipped over a rod. */
  boreMm: number | null;
  round: boolean;
}

const percent = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;

/** Soft rubber gives way round undercuts up to about this share of the surface. */
const RUBBER_GIVES = 0.08;
const HARD_GIVES = 0.004;

/** Which molds a shape suits, and why not the others: a first judgement, the maker's own counts more. */
export function moldWays(facts: ShapeFacts): Verdict[] {
  const { undercutFraction, flatBack, flatUndercutMm2, areaMm2 } = facts.parting;
  const caught = `${percent(undercutFraction)} of its surface is undercut`;
  const flatShare = areaMm2 > 0 ? flatUndercutMm2 / areaMm2 : 0;
  const rubber = (way: MoldWay, fine: string): Verdict => {
    if (undercutFraction > RUBBER_GIVES)
      return { way, suits: 'care', because: `${caught}: soft, tear-resistant rubber, and cut it free slowly.` };
    return { way, suits: 'yes', because: fine };
  };
  const openFace: Verdict = flatBack
    ? rubber('open-face', 'Its flat back lies on the board, and it lifts straight out.')
    : {
        way: 'open-face',
        suits: 'no',
        because: 'No flat back to lie on: plastic would creep under. Cut one, or choose two halves.',
      };
  const wrap: Verdict = rubber('wrap', 'Stands in one block that is slit open; it bends out of the slit.');
  const twoPiece: Verdict = flatBack
    ? { way: 'two-piece', suits: 'care', because: 'It would do, but a flat back needs only one pour.' }
    : rubber('two-piece', 'Each half pulls free of it.');
  const hard = (way: MoldWay, fine: string): Verdict =>
    undercutFraction > HARD_GIVES
      ? {
          way,
          suits: undercutFraction > 0.03 ? 'no' : 'care',
          because: `${caught}, and a hard half cannot give: it would tear there.`,
        }
      : { way, suits: 'yes', because: fine };
  const printed: Verdict =
    facts.thinnestMm < 0.8
      ? {
          way: 'printed',
          suits: 'care',
          because: `At ${facts.thinnestMm.toFixed(1)} mm its thinnest place is about two lines wide: it will not fill well.`,
        }
      : hard(
          'printed',
          flatShare > 0.02
            ? 'Pulls free along a wavy split that follows the thin edge.'
            : 'Pulls free along a flat split.',
        );
  const left = facts.leftoverMm;
  let machined = hard(
    'machined',
    left === null ? 'Whether a cutter reaches all of it was not judged.' : 'A ball cutter reaches all of it.',
  );
  if (machined.suits === 'yes' && left === null) machined = { ...machined, suits: 'care' };
  if (machined.suits === 'yes' && left !== null && left >= 0.1)
    machined = {
      way: 'machined',
      suits: 'care',
      because:
        facts.largestBallMm === null
          ? `The cutter leaves ${left.toFixed(2)} mm in sharp corners, and so would any: ease them, or spark them.`
          : `The cutter leaves ${left.toFixed(2)} mm; ${facts.largestBallMm} mm or smaller reaches all.`,
    };
  const dip: Verdict =
    facts.boreMm !== null && facts.round
      ? { way: 'dip', suits: 'yes', because: 'A round wall over a rod: dip it.' }
      : { way: 'dip', suits: 'no', because: 'Only a round tube is dipped over a rod.' };
  return [openFace, wrap, twoPiece, printed, machined, dip];
}
