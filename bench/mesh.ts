// Meshes of 20 k, 100 k and 500 k triangles: each judgement beside a plain loop over the triangles, and beside admesh where
// that is installed.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildMold } from '../core/mold/build.ts';
import { wishSchema } from '../core/mold/buildWish.ts';
import { decideMold } from '../core/mold/decide.ts';
import { Shop } from '../core/mold/shop.ts';
import { airTraps, bestTilt, terrainOf } from '../core/shape/airTraps.ts';
import { measure } from '../core/shape/measure.ts';
import { type Mesh, moved } from '../core/shape/mesh.ts';
import { bestParting, parting } from '../core/shape/parting.ts';
import { readMesh } from '../core/shape/read.ts';
import { loadModeller, sculpt } from '../core/shape/sculpt.ts';
import { Bench, meshOf } from '../core/shape/solids.ts';
import { STARTS } from '../core/shape/starts.ts';
import { sphere } from '../core/shape/testing.ts';
import { thickness } from '../core/shape/thickness.ts';
import { toolReach } from '../core/shape/toolReach.ts';
import { weld } from '../core/shape/weld.ts';
import { writeStl } from '../core/shape/write.ts';
import { check } from '../core/validate.ts';

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

function timed(run: () => unknown, runs: number): number {
  run();
  return median(
    Array.from({ length: runs }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    }),
  );
}

/** As long as a bait, with twelve ribs: nothing in it is flat, and the ribs are undercut from the front. */
const ribbed = (triangles: number) =>
  moved(sphere(1, triangles), ([x, y, z]) => {
    const swell = 1 + 0.06 * Math.cos(12 * Math.PI * x);
    return [55 * x, 9 * y * swell, 8 * z * swell];
  });

/** The floor: area and volume in one loop, nothing looked at, nothing checked. */
function plainLoop({ positions: p, triangles: t }: Mesh): number {
  const at = (corner: number, k: number) => p[3 * (t[corner] as number) + k] as number;
  let volume = 0;
  let area = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [ax, ay, az] = [at(i, 0), at(i, 1), at(i, 2)];
    const ux = at(i + 1, 0) - ax;
    const uy = at(i + 1, 1) - ay;
    const uz = at(i + 1, 2) - az;
    const vx = at(i + 2, 0) - ax;
    const vy = at(i + 2, 1) - ay;
    const vz = at(i + 2, 2) - az;
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    area += Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    volume += (ax * nx + ay * ny + az * nz) / 6;
  }
  return volume + area;
}

const hasAdmesh = spawnSync('admesh', ['--version']).status === 0;
const folder = mkdtempSync(join(tmpdir(), 'blunko-bench-'));
const line = (what: string, ms: number, floor: number, beside?: [name: string, ms: number]) =>
  console.log(
    `  ${what.padEnd(34)}${ms.toFixed(1).padStart(9)} ms${`${(ms / floor).toFixed(1)} × the loop`.padStart(20)}${beside ? `   ${(ms / beside[1]).toFixed(2)} × ${beside[0]}` : ''}`,
  );

for (const wanted of [20_000, 100_000, 500_000]) {
  const file = join(folder, `${wanted}.stl`);
  writeFileSync(file, writeStl(ribbed(wanted)));
  const bytes = readFileSync(file);
  const { mesh } = weld(readMesh(bytes).soup);
  const runs = wanted > 200_000 ? 3 : 7;
  const floor = timed(() => plainLoop(mesh), runs);
  console.log(`\n${mesh.triangles.length / 3} triangles: the plain loop takes ${floor.toFixed(2)} ms`);
  const whole = () => measure(weld(readMesh(readFileSync(file)).soup).mesh);
  if (hasAdmesh) {
    const admesh = timed(() => spawnSync('admesh', [file]), runs);
    line('admesh FILE, the whole command', admesh, floor);
    line('file read, welded, measured', timed(whole, runs), floor, ['admesh', admesh]);
    const command = timed(
      () =>
        spawnSync(process.execPath, ['--import', 'tsx', 'scripts/calc.ts', 'mesh.measure', '--file', file], {
          stdio: ['ignore', 'ignore', 'inherit'],
        }),
      3,
    );
    line('npm run calc, the whole command', command, floor, ['admesh', admesh]);
  } else {
    console.log('  admesh is not installed: no ratio to it');
    line('file read, welded, measured', timed(whole, runs), floor);
  }
  line(
    'mesh.measure, once read',
    timed(() => measure(mesh), runs),
    floor,
  );
  line(
    'mesh.thickness',
    timed(() => thickness(mesh), Math.min(3, runs)),
    floor,
  );
  line(
    'mesh.airTraps',
    timed(() => airTraps(terrainOf(mesh), [0, 0, 1]), runs),
    floor,
  );
  line(
    'mesh.bestTilt',
    timed(() => bestTilt(terrainOf(mesh), [0, 0, 1], 30), Math.min(3, runs)),
    floor,
  );
  line(
    'mesh.parting, one pull',
    timed(() => parting(mesh, [0, 0, 1]), Math.min(3, runs)),
    floor,
  );
  line(
    'mesh.parting, the best pull',
    timed(() => bestParting(mesh), 1),
    floor,
  );
  line(
    'mesh.toolReach, 3 mm ball',
    timed(() => toolReach(mesh, [0, 0, 1], 3, 0), 1),
    floor,
  );
}
rmSync(folder, { recursive: true, force: true });

const kit = await loadModeller();
const hasOpenScad = spawnSync('openscad', ['--version']).status === 0;
const scadFolder = mkdtempSync(join(tmpdir(), 'blunko-scad-'));

/** The same cavities and runner cut from the same halves, by plain calls to the modeller. */
function plainHalves(mesh: Mesh, count: number, highMm: number): void {
  const bench = new Bench(kit);
  const bait = bench.solid(mesh);
  const baits = Array.from({ length: count }, (_, i) => bench.keep(bait.translate([0, 26 * (i - (count - 1) / 2), 0])));
  const runner = bench.keep(
    kit.Manifold.cylinder(26 * count, 4, 4, 32)
      .rotate([90, 0, 0])
      .translate([-55, 13 * count, 0]),
  );
  const all = bench.keep(kit.Manifold.union([...baits, runner]));
  meshOf(all);
  for (const z of [-highMm / 4, highMm / 4]) {
    const half = bench.keep(kit.Manifold.cube([140, 30 + 26 * count, highMm / 2], true).translate([0, 0, z]));
    meshOf(bench.keep(kit.Manifold.difference([half, all])));
  }
  bench.clear();
}

/** The same two halves by OpenSCAD, whole commands; null where it gives up. */
function scadHalves(mesh: Mesh, count: number, highMm: number): number | null {
  const stl = join(scadFolder, 'bait.stl');
  writeFileSync(stl, writeStl(mesh));
  const baits = Array.from(
    { length: count },
    (_, i) => `translate([0,${26 * (i - (count - 1) / 2)},0]) import("${stl}");`,
  );
  const start = performance.now();
  for (const z of [-highMm / 4, highMm / 4]) {
    const file = join(scadFolder, 'half.scad');
    writeFileSync(
      file,
      `difference(){translate([0,0,${z}]) cube([140,${30 + 26 * count},${highMm / 2}],center=true);
       union(){${baits.join('')} translate([-55,${13 * count},0]) rotate([90,0,0]) cylinder(h=${26 * count},r=4,$fn=32);}}`,
    );
    const { status } = spawnSync('openscad', ['-o', join(scadFolder, 'half.stl'), file], { timeout: 300_000 });
    if (status !== 0) return null;
  }
  return performance.now() - start;
}

console.log('\nmold.build, beside the same cavities cut from the same block by plain calls to the modeller:');
for (const [count, triangles] of [
  [2, 20_000],
  [4, 100_000],
] as const) {
  const mesh = ribbed(triangles);
  const wish = check(wishSchema, { kind: 'machined', count, direction: [0, 0, 1], planeMm: 0 });
  const { blockMm } = buildMold(kit, mesh, wish);
  const built = timed(() => buildMold(kit, mesh, wish), 5);
  const decided = timed(() => {
    const shop = new Shop(kit);
    decideMold(shop, mesh, wish);
    shop.clear();
  }, 5);
  const plain = timed(() => plainHalves(mesh, count, blockMm[2]), 5);
  const ratio = (ms: number) => `${(ms / plain).toFixed(2)} × the plain calls`;
  console.log(`  ${count} cavities from ${mesh.triangles.length / 3} triangles: plain calls ${plain.toFixed(0)} ms`);
  console.log(`    whole build ${built.toFixed(0)} ms, ${ratio(built)}`);
  console.log(`    of it judging and laying out ${decided.toFixed(0)} ms`);
  console.log(`    of it cutting the solids ${(built - decided).toFixed(0)} ms, ${ratio(built - decided)}`);
  if (hasOpenScad) {
    const scad = scadHalves(mesh, count, blockMm[2]);
    console.log(
      scad === null
        ? '    OpenSCAD: nothing within five minutes'
        : `    OpenSCAD, two whole commands ${scad.toFixed(0)} ms: this build takes ${(built / scad).toFixed(3)} of it`,
    );
  } else console.log('    OpenSCAD is not installed: no ratio to it');
}
rmSync(scadFolder, { recursive: true, force: true });

console.log('\nA starting shape as a solid, draft and fine:');
for (const { id, spec } of STARTS) {
  const [draft, fine] = (['draft', 'fine'] as const).map((grain) => timed(() => sculpt(kit, spec, grain), 5));
  console.log(`  ${id.padEnd(10)}${draft?.toFixed(0).padStart(5)} ms${fine?.toFixed(0).padStart(6)} ms`);
}
