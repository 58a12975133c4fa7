import { ROD_FIT_MM } from '../../../core/mold/build.ts';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { LOCATING_MM } from '../../../core/mold/electrode.ts';
import { SCREW_MM, SLOT_FIT_MM } from '../../../core/mold/slot.ts';
import { SPARK_LEAVE_MM } from '../../../core/mold/spark.ts';
import { GROOVE_MM } from '../../../core/mold/vents.ts';
import { type Cutter, TRIAL_BALL_MM } from '../../../core/shape/toolReach.ts';
import type { DrawnMold } from '../../workers/molder.ts';

export const mm = (value: number) => value.toFixed(1);

/** What is left on each face of the stock for squaring it. */
const SQUARING_MM = 1.5;

/** Two plates, each a little larger than its half; pins that are part of the lower one stand out of it. */
function stockOf({ blockMm: [long, wide], halfMm: [lower, upper], pinTallMm }: DrawnMold): string {
  const up = (size: number) => Math.ceil(size + 2 * SQUARING_MM);
  return [lower + pinTallMm, upper].map((high) => `${up(long)} × ${up(wide)} × ${up(high)}`).join(' and ');
}

function finishing(cutter: Cutter | null): string {
  if (cutter === null) return 'being worked out';
  const left = `a ${TRIAL_BALL_MM} mm ball leaves ${cutter.leftoverMm.toFixed(2)}`;
  if (cutter.largestBallMm !== null) return `ball of ${cutter.largestBallMm} mm at most; ${left}`;
  return `none of the usual balls from ${cutter.knownFromMm.toFixed(1)} mm on reaches all: ${left}; ease the corners or spark them`;
}

/** What a machine shop needs in words: sizes, fits, cutter, stock, how it is held. All mm. */
export function setUpRows(mold: DrawnMold, wish: MoldWish, cutter: Cutter | null): [string, string][] {
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
      wish.pins.dowels
        ? `${mold.layout.pins.length} steel dowels of ${mm(wish.pins.diameterMm)}, pressed into the lower half, the upper half’s holes ${wish.pins.clearanceMm.toFixed(2)} wider a side`
        : `${mold.layout.pins.length} × ${mm(wish.pins.diameterMm)}, ${mm(mold.pinTallMm)} out of the lower half, sockets ${wish.pins.clearanceMm.toFixed(2)} wider a side`,
    ],
    [
      'Vents',
      mold.vents
        .map((vent) =>
          vent.kind === 'groove' ? `groove ${mm(wish.ventMm)} × ${mm(GROOVE_MM)}` : `hole ${mm(wish.ventMm)}`,
        )
        .join(', ') || 'none',
    ],
    ['Finishing cutter', finishing(cutter)],
    [
      'Smallest inside radius',
      cutter === null
        ? 'being worked out'
        : cutter.largestBallMm === null
          ? `under ${mm(cutter.knownFromMm / 2)}`
          : `${mm(cutter.largestBallMm / 2)} or more`,
    ],
    ['Thinnest wall', `${mold.thinnestWall.mm.toFixed(2)}, ${mold.thinnestWall.where}`],
  ];
  if (wish.coreRodMm)
    rows.push([
      'Core rods',
      `${mold.layout.noses.length} × ${mm(wish.coreRodMm)}, channel ${mm(ROD_FIT_MM)} wider${wish.rodHeld === 'both' ? `; a pin of ${mm(wish.rodPinMm)} through nose and gate, seated in the wall before the runner` : ''}`,
    ]);
  if (wish.hookSlot)
    rows.push([
      'Slot inserts',
      `${mold.layout.noses.length}, ${mm(wish.hookSlot.lengthMm)} long, blade ${mm(wish.hookSlot.widthMm)} × ${mm(wish.hookSlot.depthMm)}; hole ${SLOT_FIT_MM.toFixed(2)} wider a side, through the lower half; turned over they cast no slot; each held by an M3 grub screw, core hole ${mm(SCREW_MM.core)} × ${mm(SCREW_MM.long)}, reached through ${mm(SCREW_MM.access)} from the tail’s end`,
    ]);
  if (wish.sparkGapMm)
    rows.push([
      'Electrodes',
      `finishing: one a half, ${wish.sparkGapMm.toFixed(2)} smaller all round${wish.sparkRoughGapMm ? `; roughing: one a half, ${(wish.sparkRoughGapMm + SPARK_LEAVE_MM).toFixed(2)} smaller (gap ${wish.sparkRoughGapMm.toFixed(2)}, and ${SPARK_LEAVE_MM.toFixed(2)} left for finishing)` : ''}; depth ${mm(mold.depthMm[0])} lower, ${mm(mold.depthMm[1])} upper; both plates and halves set by two holes of ${LOCATING_MM}`,
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
