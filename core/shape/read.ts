import earcut from 'earcut';
import { strFromU8 } from 'fflate';
import { Failure } from '../failure.ts';
import { boundsOf, type Soup } from './mesh.ts';
import { type Places, placesIn, placesOf } from './places.ts';

/** Most bytes and triangles of one file. */
export const FILE_LIMIT = 64 * 1024 * 1024;
export const TRIANGLE_LIMIT = 2_000_000;
/** Beyond this no bait is meant, whatever the unit, mm. */
const FAR_MM = 1e5;

export const UNIT_MM = { mm: 1, cm: 10, in: 25.4, m: 1000 } as const;
export type MeshUnit = keyof typeof UNIT_MM;
export type MeshFormat = 'stl' | 'stl-text' | 'obj';

export interface MeshFile {
  format: MeshFormat;
  /** Corners of all triangles. */
  places: Places;
}

const bad = (message: string) => new Failure('bad-mesh', message, 'mesh');
const again = 'export it again as STL or OBJ';

function checkCount(triangles: number): void {
  if (triangles === 0) throw bad(`There is not one triangle in this file; ${again}.`);
  if (triangles > TRIANGLE_LIMIT) {
    throw new Failure(
      'too-large',
      `${triangles} triangles are more than ${TRIANGLE_LIMIT}; make the mesh coarser.`,
      'mesh',
    );
  }
}

function readBinaryStl(view: DataView, scale: number): Places {
  const triangles = view.getUint32(80, true);
  checkCount(triangles);
  return placesIn({ view, from: 96, stride: 50, size: 12, triangles }, scale);
}

/** Room for numbers whose count is not known before. */
class Numbers {
  private room = new Float64Array(9216);
  length = 0;
  push(value: number): void {
    if (this.length === this.room.length) {
      const larger = new Float64Array(2 * this.length);
      larger.set(this.room);
      this.room = larger;
    }
    this.room[this.length++] = value;
  }
  at = (index: number) => this.room[index] as number;
  done = () => this.room.slice(0, this.length);
}

/** No writer of meshes needs more for a number. */
const LONGEST_NUMBER = 64;
// Linear: no digit can be taken by two parts of it.
const NUMBER = /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?$/i;

function numberOf(word: string | undefined, line: number): number {
  if (word === undefined || word.length > LONGEST_NUMBER || !NUMBER.test(word)) {
    throw bad(
      `Line ${line} has ${word === undefined ? 'nothing' : `“${word.slice(0, 20)}”`} where a number belongs; ${again}.`,
    );
  }
  return Number(word);
}

/** Lines of a text, one at a time: a list of them all would take many times the file's size. */
function* linesOf(text: string): Generator<[line: string, number: number]> {
  let number = 0;
  for (let from = 0; from < text.length; ) {
    const end = text.indexOf('\n', from);
    const to = end < 0 ? text.length : end;
    yield [text.slice(from, to).trim(), ++number];
    from = to + 1;
  }
}

function readTextStl(text: string): Soup {
  const soup = new Numbers();
  let inFacet = 0;
  let ended = false;
  for (const [line, number] of linesOf(text)) {
    const words = line.split(/\s+/);
    const word = words[0]?.toLowerCase();
    if (word === 'vertex') {
      if (++inFacet > 3) throw bad(`The facet at line ${number} has more than three corners; ${again}.`);
      for (let k = 1; k <= 3; k++) soup.push(numberOf(words[k], number));
    } else if (word === 'endfacet') {
      if (inFacet !== 3)
        throw bad(`The facet that ends at line ${number} has ${inFacet} corners, not three; ${again}.`);
      inFacet = 0;
      if (soup.length / 9 > TRIANGLE_LIMIT) checkCount(soup.length / 9);
    } else if (word === 'endsolid') ended = true;
  }
  if (inFacet !== 0 || !ended) throw bad(`The file breaks off before its end (no “endsolid”); ${again}.`);
  checkCount(soup.length / 9);
  return soup.done();
}

/** Cuts a face with more than three corners into triangles; the corners are in order round it. */
function cut(points: Numbers, face: number[]): number[] {
  if (face.length === 3) return face;
  // Newell's normal says which two axes to lay the face flat on.
  const normal = [0, 0, 0];
  for (const [i, from] of face.entries()) {
    const to = face[(i + 1) % face.length] as number;
    for (let k = 0; k < 3; k++) {
      const [u, w] = [(k + 1) % 3, (k + 2) % 3];
      (normal[k] as number) +=
        (points.at(3 * from + u) - points.at(3 * to + u)) * (points.at(3 * from + w) + points.at(3 * to + w));
    }
  }
  const drop = [0, 1, 2].reduce((a, b) => (Math.abs(normal[b] as number) > Math.abs(normal[a] as number) ? b : a));
  const [u, w] = (normal[drop] as number) >= 0 ? [(drop + 1) % 3, (drop + 2) % 3] : [(drop + 2) % 3, (drop + 1) % 3];
  const flat = face.flatMap((index) => [points.at(3 * index + u), points.at(3 * index + w)]);
  const ears = earcut(flat);
  if (ears.length === 0) return face.slice(2).flatMap((_, i) => [face[0], face[i + 1], face[i + 2]] as number[]);
  // The ears come in the turn of the flat outline or against it: turn them so that they go with the face.
  const area = (a: number, b: number, c: number) =>
    ((flat[2 * b] as number) - (flat[2 * a] as number)) * ((flat[2 * c + 1] as number) - (flat[2 * a + 1] as number)) -
    ((flat[2 * c] as number) - (flat[2 * a] as number)) * ((flat[2 * b + 1] as number) - (flat[2 * a + 1] as number));
  let turn = 0;
  for (let i = 0; i < ears.length; i += 3)
    turn += area(ears[i] as number, ears[i + 1] as number, ears[i + 2] as number);
  const order = turn >= 0 ? ears : [...ears].reverse();
  return order.map((ear) => face[ear] as number);
}

function readObj(text: string): Soup {
  const points = new Numbers();
  const soup = new Numbers();
  for (const [line, number] of linesOf(text)) {
    const words = line.split(/\s+/);
    if (words[0] === 'v') for (let k = 1; k <= 3; k++) points.push(numberOf(words[k], number));
    else if (words[0] === 'f') {
      const count = points.length / 3;
      const face = words.slice(1).map((word) => {
        const index = Number(word.split('/')[0]);
        const at = index < 0 ? count + index : index - 1;
        if (!Number.isInteger(index) || index === 0 || at < 0 || at >= count) {
          throw bad(
            `The face at line ${number} points to corner “${word.slice(0, 20)}”, which is not there; ${again}.`,
          );
        }
        return at;
      });
      if (face.length < 3) throw bad(`The face at line ${number} has fewer than three corners; ${again}.`);
      if (face.length > 10_000) throw bad(`The face at line ${number} has too many corners; ${again}.`);
      for (const index of cut(points, face)) for (let k = 0; k < 3; k++) soup.push(points.at(3 * index + k));
      if (soup.length / 9 > TRIANGLE_LIMIT) checkCount(soup.length / 9);
    }
  }
  checkCount(soup.length / 9);
  return soup.done();
}

/** What the bytes are, by their content and never by a name. */
function read(bytes: Uint8Array, scale: number): MeshFile {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const declared = bytes.byteLength >= 84 ? 84 + 50 * view.getUint32(80, true) : -1;
  if (declared === bytes.byteLength) return { format: 'stl', places: readBinaryStl(view, scale) };
  const start = strFromU8(bytes.subarray(0, 4096), true);
  const isText = !/[^\t\r\n\x20-\x7e\x80-\xff]/.test(start);
  if (!isText) {
    if (declared < 0) throw bad(`This is neither STL nor OBJ; ${again}.`);
    throw bad(
      `Its header says ${view.getUint32(80, true)} triangles, which needs ${declared} bytes; there are ${bytes.byteLength}. The file is cut short or no mesh; ${again}.`,
    );
  }
  const text = strFromU8(bytes);
  if (/^\s*solid\b/i.test(start) && /\bfacet\b|\bendsolid\b/i.test(text))
    return { format: 'stl-text', places: placesOf(readTextStl(text), scale) };
  if (/^\s*(v|f|o|g|vn|vt|s|mtllib|usemtl)\s/m.test(start))
    return { format: 'obj', places: placesOf(readObj(text), scale) };
  throw bad(`This is neither STL nor OBJ; ${again}.`);
}

/**
 * Reads a binary STL, a text STL or an OBJ.
 * @param bytes the whole file.
 * @param unit what one step of the file is; corners come back in mm.
 * @throws Failure `bad-mesh` (no mesh, cut short, NaN, a header that lies, no triangle with area), `too-large`.
 */
export function readMesh(bytes: Uint8Array, unit: MeshUnit = 'mm'): MeshFile {
  if (bytes.byteLength > FILE_LIMIT) throw new Failure('too-large', 'A mesh file may have up to 64 MB.', 'mesh');
  const file = read(bytes, UNIT_MM[unit]);
  const { points, of } = file.places;
  for (let i = 0; i < points.length; i++) {
    const value = points[i] as number;
    // Neither NaN nor infinity is nothing less itself.
    if (value - value !== 0)
      throw bad(`Corner ${of.indexOf(Math.floor(i / 3)) + 1} is not at any place (NaN); ${again}.`);
  }
  const { min, max } = boundsOf(points);
  const far = Math.max(...min.map(Math.abs), ...max.map(Math.abs));
  if (far > FAR_MM)
    throw bad(`It reaches ${far.toPrecision(3)} mm from the origin; check its unit, and move it near the origin.`);
  if (Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]) < 1e-3)
    throw bad('It is smaller than a thousandth of a millimetre; check its unit.');
  return file;
}

/** What a size in file units looks like: no bait is 5 mm long, and none is 300 mm thick. */
export function unitGuess(largest: number): MeshUnit {
  if (largest < 0.5) return 'm';
  return largest < 13 ? 'in' : 'mm';
}
