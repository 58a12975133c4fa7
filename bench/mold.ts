// Molds built from baits of 20 k and 100 k triangles, beside plain calls to the modeller for the same solids, and beside
// OpenSCAD where that is installed.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Manifold } from 'manifold-3d';
import { type BuiltMold, buildMold } from '../core/mold/build.ts';
import { type MoldWish, wishSchema } from '../core/mold/buildWish.ts';
import { decideMold } from '../core/mold/decide.ts';
import { Shop } from '../core/mold/shop.ts';
import type { Mesh } from '../core/shape/mesh.ts';
import { loadModeller } from '../core/shape/sculpt.ts';
import { meshOf } from '../core/shape/solids.ts';
import { writeStl } from '../core/shape/write.ts';
import { check } from '../core/validate.ts';
import { ribbed, timed } from './timing.ts';

const kit = await loadModeller();
const hasOpenScad = spawnSync('openscad', ['--version']).status === 0;
const folder = mkdtempSync(join(tmpdir(), 'blunko-scad-'));

/**
 * The same halves as the builder's by plain calls: cavities, gates, runner, sprue, vents, pins, sockets and pry slots at the
 * places that are already known, each half cut in one go; nothing judged, nothing refused, no volume told.
 */
function plain(mesh: Mesh, wish: MoldWish, { blockMm, halfMm, layout, vents }: BuiltMold): Mesh[] {
  const shop = new Shop(kit);
  const [long, wide] = blockMm;
  const scale = 1 + wish.shrinkFraction;
  const bait = shop.keep(shop.solid(mesh).scale(scale));
  const noseX = 55 * scale;
  const baits: Manifold[] = [];
  const gates: Manifold[] = [];
  const air: Manifold[] = [];
  for (const { x, y, tail } of layout.noses) {
    const turned = tail === 'left' ? shop.keep(bait.rotate([0, 0, 180])) : bait;
    const way = tail === 'left' ? -1 : 1;
    baits.push(shop.moved(turned, [x + way * noseX, y, 0]));
    gates.push(shop.rod('x', way > 0 ? [x - 10, y, 0] : [x - 0.6, y, 0], 10.6, wish.gateMm / 2));
    for (const { atMm } of vents) {
      const at = x + way * (atMm[0] + noseX);
      air.push(shop.box([Math.min(at, way > 0 ? at : 0), y - 0.5, 0], [way > 0 ? long : at, y + 0.5, 0.2]));
    }
  }
  const runner = layout.runner as NonNullable<typeof layout.runner>;
  const trunk = [
    shop.rod('y', [runner.x, 0, 0], runner.toY, wish.runnerMm / 2),
    shop.ball([runner.x, runner.toY, 0], wish.runnerMm / 2),
    shop.rod('y', [runner.x, -1, 0], 15, wish.sprueMm / 2, wish.runnerMm / 2),
  ];
  const voids = shop.all([...baits, ...gates, ...trunk]);
  const { diameterMm, clearanceMm } = wish.pins;
  const pegs = layout.pins.map(({ x, y }) => shop.rod('z', [x, y, -0.5], 5.5, diameterMm / 2));
  const sockets = layout.pins.map(({ x, y }) =>
    shop.rod('z', [x, y, -0.5], 5.5 + clearanceMm, diameterMm / 2 + clearanceMm),
  );
  const pry = [
    shop.box([long / 2 + 8, -1, -0.01], [long / 2 + 20, 4, 2.5]),
    shop.box([long / 2 - 6, wide - 4, -0.01], [long / 2 + 6, wide + 1, 2.5]),
  ];
  const lower = shop.less(shop.all([shop.box([0, 0, -halfMm[0]], [long, wide, 0]), ...pegs]), [voids, ...air]);
  const upper = shop.less(shop.box([0, 0, 0], [long, wide, halfMm[1]]), [voids, ...air, ...sockets, ...pry]);
  const made = [voids, lower, upper].map(meshOf);
  shop.clear();
  return made;
}

/** Both halves by OpenSCAD, block less baits and runner, whole commands; null where it gives up. */
function scad(mesh: Mesh, { blockMm, halfMm, layout }: BuiltMold): number | null {
  const stl = join(folder, 'bait.stl');
  writeFileSync(stl, writeStl(mesh));
  const [long, wide] = blockMm;
  const baits = layout.noses.map(
    ({ x, y, tail }) =>
      `translate([${tail === 'left' ? x - 55 : x + 55},${y},0]) rotate([0,0,${tail === 'left' ? 180 : 0}]) import("${stl}");`,
  );
  const runner = `translate([${layout.runner?.x},0,0]) rotate([-90,0,0]) cylinder(h=${layout.runner?.toY},r=4,$fn=32);`;
  const start = performance.now();
  for (const [low, high] of [
    [-halfMm[0], 0],
    [0, halfMm[1]],
  ] as const) {
    const file = join(folder, 'half.scad');
    writeFileSync(
      file,
      `difference(){translate([0,0,${low}]) cube([${long},${wide},${high - low}]); union(){${baits.join('')}${runner}}}`,
    );
    const { status } = spawnSync('openscad', ['-o', join(folder, 'half.stl'), file], { timeout: 150_000 });
    if (status !== 0) return null;
  }
  return performance.now() - start;
}

for (const [count, triangles] of [
  [2, 20_000],
  [4, 100_000],
] as const) {
  const mesh = ribbed(triangles);
  const wish = check(wishSchema, { kind: 'machined', count, direction: [0, 0, 1], planeMm: 0 });
  const known = buildMold(kit, mesh, wish);
  const built = timed(() => buildMold(kit, mesh, wish), 5);
  const decided = timed(() => {
    const shop = new Shop(kit);
    decideMold(shop, mesh, wish);
    shop.clear();
  }, 5);
  const raw = timed(() => plain(mesh, wish, known), 5);
  const ratio = (ms: number) => `${(ms / raw).toFixed(2)} × the plain calls`;
  console.log(`\n${count} cavities from ${mesh.triangles.length / 3} triangles: plain calls ${raw.toFixed(0)} ms`);
  console.log(`  the whole build           ${built.toFixed(0).padStart(6)} ms   ${ratio(built)}`);
  console.log(`  judged and laid out       ${decided.toFixed(0).padStart(6)} ms`);
  console.log(`  cut, the same solids      ${(built - decided).toFixed(0).padStart(6)} ms   ${ratio(built - decided)}`);
  if (hasOpenScad) {
    const ms = scad(mesh, known);
    console.log(
      ms === null
        ? '  OpenSCAD: not done within five minutes'
        : `  OpenSCAD, block less baits and runner, two commands: ${ms.toFixed(0)} ms, ${(ms / built).toFixed(0)} × this build`,
    );
  } else console.log('  OpenSCAD is not installed: no ratio to it');
}
rmSync(folder, { recursive: true, force: true });
