import { strToU8, zipSync } from 'fflate';
import { boundsOf, doubleNormals, type Mesh, triangleCount } from './mesh.ts';

export const EXPORT_FORMATS = ['stl', 'obj', '3mf'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** Binary STL, mm. Source: the format as it is commonly described: 80 bytes, a count, 50 bytes a triangle. */
export function writeStl(mesh: Mesh): Uint8Array {
  const count = triangleCount(mesh);
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  // Must not begin with "solid", or a reader takes it for text.
  bytes.set(strToU8('Blunko, millimetres'));
  view.setUint32(80, count, true);
  const normals = doubleNormals(mesh);
  for (let t = 0, at = 84; t < count; t++, at += 50) {
    const [x, y, z] = [normals[3 * t] as number, normals[3 * t + 1] as number, normals[3 * t + 2] as number];
    const size = Math.hypot(x, y, z) || 1;
    view.setFloat32(at, x / size, true);
    view.setFloat32(at + 4, y / size, true);
    view.setFloat32(at + 8, z / size, true);
    for (let k = 0; k < 9; k++) {
      const from = 3 * (mesh.triangles[3 * t + Math.floor(k / 3)] as number) + (k % 3);
      view.setFloat32(at + 12 + 4 * k, mesh.positions[from] as number, true);
    }
  }
  return bytes;
}

/** A figure short enough for a file and exact to a ten-thousandth of a millimetre. */
const short = (value: number) => String(Number(value.toFixed(5)));

/** OBJ, mm, corners shared. */
export function writeObj({ positions: p, triangles: t }: Mesh, name = 'bait'): Uint8Array {
  const lines = ['# millimetres', `o ${name.replace(/\s+/g, '-')}`];
  for (let i = 0; i < p.length; i += 3)
    lines.push(`v ${short(p[i] as number)} ${short(p[i + 1] as number)} ${short(p[i + 2] as number)}`);
  for (let i = 0; i < t.length; i += 3)
    lines.push(`f ${(t[i] as number) + 1} ${(t[i + 1] as number) + 1} ${(t[i + 2] as number) + 1}`);
  return strToU8(`${lines.join('\n')}\n`);
}

/** One object of a package: what it is called, and how many of it are laid out. */
export interface Object3mf {
  mesh: Mesh;
  name?: string;
  count?: number;
}

/** Room between objects that are laid out beside each other, mm. */
const BESIDE_MM = 10;

const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

function object3mf({ mesh: { positions: p, triangles: t }, name }: Object3mf, id: number): string[] {
  const rows = [`<object id="${id}" type="model"${name ? ` name="${escaped(name)}"` : ''}><mesh><vertices>`];
  for (let i = 0; i < p.length; i += 3)
    rows.push(
      `<vertex x="${short(p[i] as number)}" y="${short(p[i + 1] as number)}" z="${short(p[i + 2] as number)}"/>`,
    );
  rows.push('</vertices><triangles>');
  for (let i = 0; i < t.length; i += 3) rows.push(`<triangle v1="${t[i]}" v2="${t[i + 1]}" v3="${t[i + 2]}"/>`);
  rows.push('</triangles></mesh></object>');
  return rows;
}

/** Where each object lies: one alone as it is, several in a row along x, all standing on the plate. */
function items3mf(objects: Object3mf[]): string[] {
  const alone = objects.length === 1 && (objects[0]?.count ?? 1) === 1;
  if (alone) return ['<item objectid="1"/>'];
  let x = 0;
  return objects.flatMap(({ mesh, count = 1 }, index) => {
    const { min, max } = boundsOf(mesh.positions);
    return Array.from({ length: count }, () => {
      const by = [x - min[0], -min[1], -min[2]].map(short).join(' ');
      x += max[0] - min[0] + BESIDE_MM;
      return `<item objectid="${index + 1}" transform="1 0 0 0 1 0 0 0 1 ${by}"/>`;
    });
  });
}

/** 3MF core package, mm; several objects lie beside each other. Source: 3MF Core Specification 1.x. */
export function write3mf(objects: Object3mf[]): Uint8Array {
  const rows = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>',
    ...objects.flatMap((one, index) => object3mf(one, index + 1)),
    `</resources><build>${items3mf(objects).join('')}</build></model>`,
  ];
  return zipSync({
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
    ),
    '3D/3dmodel.model': strToU8(rows.join('\n')),
  });
}

export function writeMesh(mesh: Mesh, format: ExportFormat, name?: string): Uint8Array {
  if (format === 'stl') return writeStl(mesh);
  return format === 'obj' ? writeObj(mesh, name) : write3mf([{ mesh, ...(name ? { name } : {}) }]);
}
