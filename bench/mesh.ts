// Meshes of 20 k, 100 k and 500 k triangles: each judgement beside a plain loop over the triangles, and beside admesh where
// that is installed.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { airTraps, bestTilt, terrainOf } from '../core/shape/airTraps.ts';
import { measure } from '../core/shape/measure.ts';
import type { Mesh } from '../core/shape/mesh.ts';
import { bestParting, parting } from '../core/shape/parting.ts';
import { readMesh } from '../core/shape/read.ts';
import { loadModeller, sculpt } from '../core/shape/sculpt.ts';
import { STARTS } from '../core/shape/starts.ts';
import { thickness } from '../core/shape/thickness.ts';
import { toolReach } from '../core/shape/toolReach.ts';
import { weld } from '../core/shape/weld.ts';
import { writeStl } from '../core/shape/write.ts';
import { ribbed, timed } from './timing.ts';

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
  const { mesh } = weld(readMesh(bytes).places);
  const runs = wanted > 200_000 ? 3 : 7;
  const floor = timed(() => plainLoop(mesh), runs);
  console.log(`\n${mesh.triangles.length / 3} triangles: the plain loop takes ${floor.toFixed(2)} ms`);
  const whole = () => measure(weld(readMesh(readFileSync(file)).places).mesh);
  if (hasAdmesh) {
    const admesh = timed(() => spawnSync('admesh', [file]), runs);
    line('admesh FILE, the whole command', admesh, floor);
    line('file read, welded, measured', timed(whole, runs), floor, ['admesh', admesh]);
    const command = timed(
      () =>
        spawnSync(process.execPath, ['scripts/calc.mjs', 'mesh.measure', '--file', file], {
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
console.log('\nA starting shape as a solid, draft and fine:');
for (const { id, spec } of STARTS) {
  const [draft, fine] = (['draft', 'fine'] as const).map((grain) => timed(() => sculpt(kit, spec, grain), 5));
  console.log(`  ${id.padEnd(10)}${draft?.toFixed(0).padStart(5)} ms${fine?.toFixed(0).padStart(6)} ms`);
}
