import { ROD_FIT_MM } from '../../../core/mold/build.ts';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { LOCATING_MM } from '../../../core/mold/electrode.ts';
import { SLOT_FIT_MM } from '../../../core/mold/slot.ts';
import { GROOVE_MM } from '../../../core/mold/vents.ts';
import { TRIAL_BALL_MM } from '../../../core/shape/toolReach.ts';
import type { DrawnMold } from '../../workers/molder.ts';
import type { useMolder } from './useMolder.ts';

export type Cutter = ReturnType<typeof useMolder>['cutter'];
export const mm = (value: number) => value.toFixed(1);

/** What is left on each face of the stock for squaring it. */
const SQUARING_MM = 1.5;

/** Two plates, each a little larger than its half. */
function stockOf({ blockMm: [long, wide], halfMm }: DrawnMold): string {
  const up = (size: number) => Math.ceil(size + 2 * SQUARING_MM);
  return halfMm.map((high) => `${up(long)} × ${up(wide)} × ${up(high)}`).join(' and ');
}

/** What a machine shop needs in words: sizes, fits, cutter, stock, how it is held. All mm. */
export function setUpRows(mold: DrawnMold, wish: MoldWish, cutter: Cutter): [string, string][] {
  const [long, wide, high] = mold.blockMm;
  const rows: [string, string][] = [
    [
      'Block, closed',
      `${mm(long)} × ${mm(wide)} × ${mm(high)}: lower half ${mm(mold.halfMm[0])}, upper ${mm(mold.halfMm[1])}`,
    ],
    ['Stock', `${stockOf(mold)}, ${SQUARING_MM} a face to square it (default)`],
    [
      'Seam',
      wish.split === 'wavy'
        ? `follows the bait’s edge, from ${mm(mold.seamMm.low)} to ${mm(mold.seamMm.high)} of the sprue’s plane; both faces from the files`
        : 'flat, in the sprue’s plane',
    ],
    ['Cavities', `${mold.layout.noses.length}, ${(wish.shrinkFraction * 100).toFixed(1)} % larger than the bait`],
    [
      'Sprue, runner, gates',
      `mouth ${mm(wish.sprueMm)}, runner ${mm(wish.runnerMm)}, gates ${mm(wish.gateMm)} across, half in each plate`,
    ],
    [
      'Pins',
      `${mold.layout.pins.length} × ${mm(wish.pins.diameterMm)}, sockets ${wish.pins.clearanceMm.toFixed(2)} wider a side`,
    ],
    [
      'Vents',
      mold.vents
        .map((vent) =>
          vent.kind === 'groove' ? `groove ${mm(wish.ventMm)} × ${mm(GROOVE_MM)}` : `hole ${mm(wish.ventMm)}`,
        )
        .join(', ') || 'none',
    ],
    [
      'Finishing cutter',
      cutter === null
        ? 'being worked out'
        : cutter.largestBallMm === null
          ? `none of the usual balls reaches all: a ${TRIAL_BALL_MM} mm ball leaves ${cutter.leftoverMm.toFixed(2)}; ease the corners or spark them`
          : `ball of ${cutter.largestBallMm} mm at most; a ${TRIAL_BALL_MM} mm ball leaves ${cutter.leftoverMm.toFixed(2)}`,
    ],
    [
      'Smallest inside radius',
      cutter === null
        ? 'being worked out'
        : cutter.largestBallMm === null
          ? `under ${mm(cutter.smallestBallMm / 2)}`
          : `${mm(cutter.largestBallMm / 2)} or more`,
    ],
    ['Thinnest wall', `${mold.thinnestWall.mm.toFixed(2)}, ${mold.thinnestWall.where}`],
  ];
  if (wish.coreRodMm)
    rows.push(['Core rods', `${mold.layout.noses.length} × ${mm(wish.coreRodMm)}, channel ${mm(ROD_FIT_MM)} wider`]);
  if (wish.hookSlot)
    rows.push([
      'Slot inserts',
      `${mold.layout.noses.length}, ${mm(wish.hookSlot.lengthMm)} long, blade ${mm(wish.hookSlot.widthMm)} × ${mm(wish.hookSlot.depthMm)}; hole ${SLOT_FIT_MM.toFixed(2)} wider a side, through the lower half; turned over they cast no slot`,
    ]);
  if (wish.sparkGapMm)
    rows.push([
      'Electrodes',
      `one a half, ${wish.sparkGapMm.toFixed(2)} smaller all round; both plates and halves set by two holes of ${LOCATING_MM}`,
    ]);
  rows.push(
    ['Ejectors', 'none: it is pulled apart by hand at the pry slots'],
    ['Tolerances', 'parting faces flat within 0.03; pins to each other ± 0.02; the rest ± 0.1 (defaults: agree them)'],
    ['Clamp faces', 'for cutting, the two long edges; both large faces stay free and square'],
    ['Clamps in use', `${mold.layout.clamps.length}, on opposite corners first, in the order drawn`],
  );
  return rows;
}

/** Places from the lower left corner of the lower half, seen from above. */
export function setUpPlaces({ layout }: DrawnMold): [string, string][] {
  return [
    ...layout.noses.map(({ x, y, tail }, i): [string, string] => [
      `Nose ${i + 1}`,
      `x ${mm(x)}, y ${mm(y)}, tail to the ${tail}`,
    ]),
    ...layout.pins.map(({ x, y }, i): [string, string] => [`Pin ${i + 1}`, `x ${mm(x)}, y ${mm(y)}`]),
  ];
}
