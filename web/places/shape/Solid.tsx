import { useEffect, useRef, useState } from 'react';
import {
  AmbientLight,
  Box3,
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
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { Vec3 } from '../../../core/shape/mesh.ts';
import { useTheme } from '../../shell/theme.ts';
import type { Drawn } from '../../workers/solid.ts';

export interface Layer extends Drawn {
  /** A CSS variable of the theme. */
  colour: string;
  /** See-through, for the older of two shapes. */
  ghost?: boolean;
  /** A share from 0 to 1 for each triangle; below 0: drawn in the plain colour. */
  shares?: Float32Array | null;
}

interface Props {
  layers: Layer[];
  marks?: { at: Vec3; colour: string }[];
  says: string;
  heightPx: number;
}

const VIEWS: [name: string, from: Vec3][] = [
  ['¾', [-0.75, -1, 0.65]],
  ['side', [0, -1, 0.0001]],
  ['top', [0, -0.0001, 1]],
  ['front', [-1, 0, 0.0001]],
];

const css = (name: string) => new Color(getComputedStyle(document.documentElement).getPropertyValue(name).trim());

/** From what wants looking at (0) to what is fine (1): heat, paper, rest. */
function ramp(share: number, low: Color, middle: Color, high: Color): Color {
  const out = new Color();
  return share < 0.5 ? out.lerpColors(low, middle, share * 2) : out.lerpColors(middle, high, share * 2 - 1);
}

function geometryOf(layer: Layer): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(layer.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(layer.normals, 3));
  if (layer.shares) {
    const [plain, low, middle, high] = [css(layer.colour), css('--heat'), css('--sheet'), css('--rest')];
    const colours = new Float32Array(layer.positions.length);
    for (let t = 0; t < layer.positions.length / 9; t++) {
      const share = layer.shares[t] ?? -1;
      const { r, g, b } = share < 0 ? plain : ramp(Math.min(1, share), low, middle, high);
      for (let k = 0; k < 3; k++) colours.set([r, g, b], 9 * t + 3 * k);
    }
    geometry.setAttribute('color', new BufferAttribute(colours, 3));
  }
  return geometry;
}

class Stage {
  readonly renderer: WebGLRenderer;
  readonly scene = new Scene();
  readonly camera = new PerspectiveCamera(28, 1, 1, 5000);
  readonly controls: OrbitControls;
  private bodies: Mesh[] = [];
  /** Kept from one solid to the next: a material that is made anew compiles its shader anew. */
  private readonly materials = new Map<string, MeshPhongMaterial>();
  private framed = false;
  private waiting = 0;
  private size = { centre: new Vector3(), radius: 60 };

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true, powerPreference: 'low-power' });
    // To ask the driver whether a shader compiled means to wait for it.
    this.renderer.debug.checkShaderErrors = false;
    this.camera.up.set(0, 0, 1);
    const key = new DirectionalLight('#ffffff', 2.1);
    key.position.set(-0.4, -1, 1.6);
    const fill = new DirectionalLight('#ffffff', 0.7);
    fill.position.set(1, 0.8, 0.2);
    this.scene.add(new AmbientLight('#ffffff', 0.95), key, fill);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.addEventListener('change', () => this.draw());
  }

  /** Drawn once however often it is asked for before the next frame. */
  draw(): void {
    if (this.waiting) return;
    this.waiting = requestAnimationFrame(() => {
      this.waiting = 0;
      this.renderer.render(this.scene, this.camera);
    });
  }

  resize(): void {
    const { clientWidth, clientHeight } = this.canvas.parentElement as HTMLElement;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.renderer.setSize(clientWidth, clientHeight, false);
    this.camera.aspect = clientWidth / clientHeight;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  private material(key: string, make: () => MeshPhongMaterial, colour: Color): MeshPhongMaterial {
    const found = this.materials.get(key) ?? make();
    this.materials.set(key, found);
    found.color = colour;
    return found;
  }

  private skin({ shares, ghost, colour }: Layer): MeshPhongMaterial {
    const make = () =>
      new MeshPhongMaterial({
        vertexColors: Boolean(shares),
        specular: '#2a2a2a',
        shininess: 22,
        transparent: ghost === true,
        opacity: ghost ? 0.38 : 1,
        depthWrite: !ghost,
        side: ghost ? DoubleSide : FrontSide,
      });
    return this.material(
      `skin ${Boolean(shares)} ${ghost === true}`,
      make,
      shares ? new Color('#ffffff') : css(colour),
    );
  }

  show(layers: Layer[], marks: Props['marks']): void {
    for (const body of this.bodies) {
      this.scene.remove(body);
      body.geometry.dispose();
    }
    this.bodies = layers.map((layer) => new Mesh(geometryOf(layer), this.skin(layer)));
    const box = new Box3();
    for (const body of this.bodies) box.expandByObject(body);
    if (!box.isEmpty()) {
      box.getCenter(this.size.centre);
      this.size.radius = Math.max(2, box.getSize(new Vector3()).length() / 2);
    }
    for (const { at, colour } of marks ?? []) {
      const dot = new Mesh(
        new SphereGeometry(this.size.radius * 0.022, 16, 12),
        this.material(
          `mark ${colour}`,
          () => new MeshPhongMaterial({ depthTest: false, transparent: true }),
          css(colour),
        ),
      );
      dot.position.set(...at);
      dot.renderOrder = 2;
      this.bodies.push(dot);
    }
    for (const body of this.bodies) this.scene.add(body);
    if (!this.framed && layers.length > 0) {
      this.framed = true;
      this.look([-0.75, -1, 0.65]);
    }
    this.draw();
  }

  look(from: Vec3): void {
    const { centre, radius } = this.size;
    const half = Math.tan((this.camera.fov * Math.PI) / 360);
    // A bait is long: it fills the width, and a little over half the height is enough.
    const far = Math.max((1.06 * radius) / (half * this.camera.aspect), (0.6 * radius) / half);
    this.camera.position.copy(new Vector3(...from).normalize().multiplyScalar(far).add(centre));
    this.camera.near = far / 50;
    this.camera.far = far * 10;
    this.camera.updateProjectionMatrix();
    this.controls.target.copy(centre);
    this.controls.update();
    this.draw();
  }

  /** Turns about the upright by `side` and tips by `up`, radians; comes nearer by a factor. */
  turn(side: number, up: number, nearer = 1): void {
    const from = this.camera.position.clone().sub(this.controls.target);
    const flat = Math.hypot(from.x, from.y);
    const lift = Math.min(1.55, Math.max(-1.55, Math.atan2(from.z, flat) + up));
    const about = Math.atan2(from.y, from.x) + side;
    const far = from.length() / nearer;
    this.camera.position.set(
      this.controls.target.x + far * Math.cos(lift) * Math.cos(about),
      this.controls.target.y + far * Math.cos(lift) * Math.sin(about),
      this.controls.target.z + far * Math.sin(lift),
    );
    this.controls.update();
    this.draw();
  }

  end(): void {
    cancelAnimationFrame(this.waiting);
    this.controls.dispose();
    for (const body of this.bodies) body.geometry.dispose();
    for (const material of this.materials.values()) material.dispose();
    this.renderer.dispose();
  }
}

const TURNS: Record<string, [side: number, up: number, nearer?: number]> = {
  ArrowLeft: [-0.2, 0],
  ArrowRight: [0.2, 0],
  ArrowUp: [0, 0.15],
  ArrowDown: [0, -0.15],
  '+': [0, 0, 1.15],
  '=': [0, 0, 1.15],
  '-': [0, 0, 1 / 1.15],
};

/** The solid in the round: dragged, pinched or turned by arrow keys. */
export function Solid({ layers, marks, says, heightPx }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<Stage | null>(null);
  const theme = useTheme();
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (!canvas.current) return;
    let made: Stage;
    try {
      made = new Stage(canvas.current);
    } catch {
      setFailed(true);
      return;
    }
    stage.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(canvas.current.parentElement as HTMLElement);
    made.resize();
    return () => {
      watch.disconnect();
      made.end();
      stage.current = null;
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: colours are read from the theme
  useEffect(() => stage.current?.show(layers, marks), [layers, marks, theme]);
  return (
    <div className="relative shrink-0" style={{ height: heightPx }}>
      <canvas
        ref={canvas}
        className="block w-full h-full touch-none cursor-grab"
        tabIndex={0}
        role="img"
        aria-label={`${says} Arrow keys turn it, plus and minus come nearer; the figures stand in the table.`}
        onKeyDown={(event) => {
          const turn = TURNS[event.key];
          if (!turn) return;
          event.preventDefault();
          stage.current?.turn(...turn);
        }}
      />
      {failed && (
        <p className="absolute inset-0 grid place-items-center soft">
          This browser draws no solids (WebGL is off). Both outlines and all figures are still here.
        </p>
      )}
      <div className="absolute right-2 bottom-2 flex gap-1">
        {VIEWS.map(([name, from]) => (
          <button
            key={name}
            type="button"
            className="btn btn-xs bg-[var(--sheet)] border-[var(--edge)]"
            aria-label={`Look from the ${name === '¾' ? 'quarter' : name}`}
            onClick={() => stage.current?.look(from)}
          >
            {name}
          </button>
        ))}
      </div>
    </div>
  );
}
