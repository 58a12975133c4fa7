import { type Mesh, triangleCount } from './mesh.ts';

export interface Topology {
  /** For each triangle side the triangle across it, or −1 where the side is open: length 3·triangles. */
  across: Int32Array;
  /** 1 where the neighbour across a side runs the same way along it, so that one of the two is turned. */
  turned: Uint8Array;
  /** Edges that are not shared by exactly two triangles. */
  openEdges: number;
  /** Edges whose two triangles run the same way along it. */
  turnedEdges: number;
}

/** Neighbours of all triangles. Sides are bucketed by their lower corner, each bucket sorted by the other one. */
export function topologyOf(mesh: Mesh): Topology {
  const { triangles: t, positions } = mesh;
  const corners = positions.length / 3;
  const start = new Int32Array(corners + 1);
  for (let i = 0; i < t.length; i++) {
    const a = t[i] as number;
    const b = t[i % 3 === 2 ? i - 2 : i + 1] as number;
    (start[Math.min(a, b) + 1] as number)++;
  }
  for (let c = 0; c < corners; c++) (start[c + 1] as number) += start[c] as number;
  const fill = start.slice(0, corners);
  const sides = new Int32Array(t.length);
  const others = new Uint32Array(t.length);
  for (let i = 0; i < t.length; i++) {
    const a = t[i] as number;
    const b = t[i % 3 === 2 ? i - 2 : i + 1] as number;
    const low = Math.min(a, b);
    const slot = (fill[low] as number)++;
    sides[slot] = i;
    others[slot] = Math.max(a, b);
  }
  const out: Topology = {
    across: new Int32Array(t.length).fill(-1),
    turned: new Uint8Array(t.length),
    openEdges: 0,
    turnedEdges: 0,
  };
  for (let c = 0; c < corners; c++) {
    const from = start[c] as number;
    const to = start[c + 1] as number;
    if (to - from > 24) sortSlice(others, sides, from, to);
    else insertionSort(others, sides, from, to);
    for (let i = from; i < to; ) {
      let j = i + 1;
      while (j < to && others[j] === others[i]) j++;
      if (j - i === 2) pair(out, t, sides[i] as number, sides[i + 1] as number);
      else out.openEdges++;
      i = j;
    }
  }
  return out;
}

function pair(out: Topology, t: Uint32Array, one: number, two: number): void {
  out.across[one] = Math.floor(two / 3);
  out.across[two] = Math.floor(one / 3);
  if (t[one] !== t[two]) return;
  out.turnedEdges++;
  out.turned[one] = 1;
  out.turned[two] = 1;
}

function insertionSort(keys: Uint32Array, values: Int32Array, from: number, to: number): void {
  for (let i = from + 1; i < to; i++) {
    const key = keys[i] as number;
    const value = values[i] as number;
    let j = i - 1;
    for (; j >= from && (keys[j] as number) > key; j--) {
      keys[j + 1] = keys[j] as number;
      values[j + 1] = values[j] as number;
    }
    keys[j + 1] = key;
    values[j + 1] = value;
  }
}

/** A fan of thousands of triangles round one corner must not cost their square. */
function sortSlice(keys: Uint32Array, values: Int32Array, from: number, to: number): void {
  const order = Array.from({ length: to - from }, (_, i) => from + i).sort(
    (a, b) => (keys[a] as number) - (keys[b] as number),
  );
  const sortedKeys = order.map((at) => keys[at] as number);
  const sortedValues = order.map((at) => values[at] as number);
  keys.set(sortedKeys, from);
  values.set(sortedValues, from);
}

/** Parts that hang together across shared edges: a number from 0 for each triangle, and how many there are. */
export function shellsOf(mesh: Mesh, { across }: Topology): { shell: Int32Array; shells: number } {
  const count = triangleCount(mesh);
  const shell = new Int32Array(count).fill(-1);
  const stack = new Int32Array(count);
  let shells = 0;
  for (let first = 0; first < count; first++) {
    if (shell[first] !== -1) continue;
    let top = 0;
    stack[top++] = first;
    shell[first] = shells;
    while (top > 0) {
      const at = stack[--top] as number;
      for (let k = 0; k < 3; k++) {
        const next = across[3 * at + k] as number;
        if (next >= 0 && shell[next] === -1) {
          shell[next] = shells;
          stack[top++] = next;
        }
      }
    }
    shells++;
  }
  return { shell, shells };
}
