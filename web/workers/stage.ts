import { expose } from 'comlink';
import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  FrontSide,
  Mesh,
  MeshPhongMaterial,
  PerspectiveCamera,
  Scene,
  SphereGeometry,
  WebGLRenderer,
} from 'three';
import type { Vec3 } from '../../core/shape/mesh.ts';

/** A solid to draw, its colours as CSS says them. */
export interface Body {
  /** Nine numbers a triangle, mm. */
  positions: Float32Array;
  normals: Float32Array;
  colour: string;
  /** See-through, for the older of two shapes. */
  ghost: boolean;
  /** A share from 0 to 1 for each triangle; below 0: drawn in the plain colour. */
  shares: Float32Array | null;
  /** Linear red, green and blue of each triangle, in place of the plain colour. */
  tints: Float32Array | null;
  /** Where it is set down, mm. */
  offset: Vec3;
}

export interface Dot {
  at: Vec3;
  colour: string;
}

export interface Eye {
  matrix: number[];
  /** Opening of the view from top to bottom, degrees. */
  fov: number;
  aspect: number;
  near: number;
  far: number;
}

/** From what wants looking at (0) over paper to what is fine (1). */
export type Ramp = [low: string, middle: string, high: string];

const camera = new PerspectiveCamera();
camera.matrixAutoUpdate = false;
const scene = new Scene();
let renderer: WebGLRenderer | null = null;
let shown: Mesh[] = [];
let waiting = 0;
/** Kept from one solid to the next: a material that is made anew compiles its shader anew. */
const materials = new Map<string, MeshPhongMaterial>();

function material(key: string, colour: string, make: () => MeshPhongMaterial): MeshPhongMaterial {
  const found = materials.get(key) ?? make();
  materials.set(key, found);
  found.color.set(colour);
  return found;
}

const skin = ({ shares, tints, ghost, colour }: Body) =>
  material(
    `skin ${shares !== null} ${tints !== null} ${ghost} ${colour}`,
    shares || tints ? '#ffffff' : colour,
    () =>
      new MeshPhongMaterial({
        vertexColors: shares !== null || tints !== null,
        specular: '#2a2a2a',
        shininess: 22,
        transparent: ghost,
        opacity: ghost ? 0.24 : 1,
        depthWrite: !ghost,
        side: ghost ? DoubleSide : FrontSide,
      }),
  );

function geometryOf({ positions, normals, colour, shares, tints }: Body, ramp: Ramp): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(normals, 3));
  if (tints) {
    const colours = new Float32Array(positions.length);
    for (let corner = 0; corner < positions.length / 3; corner++)
      for (let k = 0; k < 3; k++) colours[3 * corner + k] = tints[3 * Math.floor(corner / 3) + k] as number;
    geometry.setAttribute('color', new BufferAttribute(colours, 3));
    return geometry;
  }
  if (!shares) return geometry;
  const [low, middle, high] = ramp.map((name) => new Color(name)) as [Color, Color, Color];
  const plain = new Color(colour);
  const mixed = new Color();
  const colours = new Float32Array(positions.length);
  for (let t = 0; t < shares.length; t++) {
    const share = Math.min(1, shares[t] as number);
    if (share < 0) mixed.copy(plain);
    else if (share < 0.5) mixed.lerpColors(low, middle, share * 2);
    else mixed.lerpColors(middle, high, share * 2 - 1);
    for (let k = 0; k < 3; k++) mixed.toArray(colours, 9 * t + 3 * k);
  }
  geometry.setAttribute('color', new BufferAttribute(colours, 3));
  return geometry;
}

/** Drawn once however often it is asked for before the next frame. */
function draw(): void {
  if (waiting) return;
  waiting = requestAnimationFrame(() => {
    waiting = 0;
    renderer?.render(scene, camera);
  });
}

const stage = {
  /** @returns whether this browser draws solids at all. */
  open(canvas: OffscreenCanvas): boolean {
    try {
      renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true, powerPreference: 'low-power' });
    } catch {
      return false;
    }
    const key = new DirectionalLight('#ffffff', 2.1);
    key.position.set(-0.4, -1, 1.6);
    const fill = new DirectionalLight('#ffffff', 0.7);
    fill.position.set(1, 0.8, 0.2);
    scene.add(new AmbientLight('#ffffff', 0.95), key, fill);
    return true;
  },

  resize(width: number, height: number, ratio: number): void {
    renderer?.setPixelRatio(ratio);
    renderer?.setSize(width, height, false);
    draw();
  },

  look({ matrix, fov, aspect, near, far }: Eye): void {
    camera.fov = fov;
    camera.aspect = aspect;
    camera.near = near;
    camera.far = far;
    camera.updateProjectionMatrix();
    camera.matrix.fromArray(matrix);
    camera.updateMatrixWorld(true);
    draw();
  },

  show(bodies: Body[], dots: Dot[], dotMm: number, ramp: Ramp): void {
    for (const one of shown) {
      scene.remove(one);
      one.geometry.dispose();
    }
    shown = [
      ...bodies.map((body) => {
        const one = new Mesh(geometryOf(body, ramp), skin(body));
        one.position.set(...body.offset);
        return one;
      }),
      ...dots.map(({ at, colour }) => {
        const paint = () => new MeshPhongMaterial({ depthTest: false, transparent: true });
        const dot = new Mesh(new SphereGeometry(dotMm, 16, 12), material(`dot ${colour}`, colour, paint));
        dot.position.set(...at);
        dot.renderOrder = 2;
        return dot;
      }),
    ];
    scene.add(...shown);
    draw();
  },
};

export type StageWorker = typeof stage;
expose(stage);
