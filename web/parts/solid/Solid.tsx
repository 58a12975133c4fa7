import { type Remote, transfer, wrap } from 'comlink';
import { memo, useEffect, useRef, useState } from 'react';
import { PerspectiveCamera, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { boundsOf, length, minus, plus, type Vec3 } from '../../../core/shape/mesh.ts';
import type { Drawn } from '../../workers/solid.ts';
import type { StageWorker } from '../../workers/stage.ts';
import { useTheme } from '../theme.ts';

export interface Layer extends Drawn {
  /** A CSS variable of the theme. */
  colour: string;
  /** See-through, for the older of two shapes. */
  ghost?: boolean;
  /** A share from 0 to 1 for each triangle; below 0: drawn in the plain colour. */
  shares?: Float32Array | null;
  /** Linear red, green and blue of each triangle. */
  tints?: Float32Array | null;
  /** Where it is set down, mm. */
  offset?: Vec3;
}

interface Props {
  layers: Layer[];
  marks?: { at: Vec3; colour: string }[];
  says: string;
  /** Where it is looked at from at first. */
  from?: 'quarter' | 'side';
  /** At least; it takes what room there is beside the other drawings. */
  heightPx: number;
}

const QUARTER: Vec3 = [-0.75, -1, 0.65];
const SIDE: Vec3 = [0, -1, 0.0001];
const VIEWS: [name: string, from: Vec3][] = [
  ['¾', QUARTER],
  ['side', SIDE],
  ['top', [0, -0.0001, 1]],
  ['front', [-1, 0, 0.0001]],
  ['below', [0, -0.0001, -1]],
  ['behind', [1, -0.35, 0.25]],
];
const LOOK_WORDS: Record<string, string> = {
  '¾': 'Look from the quarter',
  below: 'Look from below',
  behind: 'Look from behind',
};
const FIELD_OF_VIEW = 28;
const HERE: Vec3 = [0, 0, 0];

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Where the eye is. What it sees is drawn by a worker, so that a slow graphics driver never holds the page up. */
class View {
  private readonly camera = new PerspectiveCamera(FIELD_OF_VIEW, 1, 1, 5000);
  private readonly controls: OrbitControls;
  private readonly worker = new Worker(new URL('../../workers/stage.ts', import.meta.url), { type: 'module' });
  private readonly stage: Remote<StageWorker> = wrap<StageWorker>(this.worker);
  private readonly canvas = document.createElement('canvas');
  /** How large what was last framed is; 0 before anything was. */
  private framed = 0;
  private told = 0;
  private centre = new Vector3();
  private radius = 60;

  constructor(
    private readonly box: HTMLElement,
    private readonly first: Vec3,
    onFail: () => void,
  ) {
    this.canvas.className = 'absolute inset-0 w-full h-full';
    this.canvas.setAttribute('aria-hidden', 'true');
    box.append(this.canvas);
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, box);
    this.controls.addEventListener('change', () => this.tell());
    const drawn = this.canvas.transferControlToOffscreen();
    this.stage.open(transfer(drawn, [drawn])).then((draws) => {
      if (!draws) onFail();
    }, onFail);
    this.resize();
  }

  /** Tells the worker where the eye is, once a frame. */
  private tell(): void {
    if (this.told) return;
    this.told = requestAnimationFrame(() => {
      this.told = 0;
      this.camera.updateMatrix();
      const { fov, aspect, near, far } = this.camera;
      void this.stage.look({ matrix: this.camera.matrix.toArray(), fov, aspect, near, far });
    });
  }

  resize(): void {
    const { clientWidth, clientHeight } = this.box;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.camera.aspect = clientWidth / clientHeight;
    void this.stage.resize(clientWidth, clientHeight, Math.min(devicePixelRatio, 2));
    this.tell();
  }

  show(layers: Layer[], marks: Props['marks'] = []): void {
    if (layers.length === 0) return;
    const bounds = layers.map(({ positions, offset = HERE }) => {
      const { min, max } = boundsOf(positions);
      return { min: plus(min, offset), max: plus(max, offset) };
    });
    const most = (pick: (one: (typeof bounds)[number]) => number, of: typeof Math.min) => of(...bounds.map(pick));
    const min = [0, 1, 2].map((k) => most((one) => one.min[k] as number, Math.min)) as Vec3;
    const max = [0, 1, 2].map((k) => most((one) => one.max[k] as number, Math.max)) as Vec3;
    this.centre
      .set(...min)
      .add(new Vector3(...max))
      .multiplyScalar(0.5);
    this.radius = Math.max(2, length(minus(max, min)) / 2);
    void this.stage.show(
      layers.map(({ positions, normals, colour, ghost, shares, tints, offset }) => ({
        positions,
        normals,
        colour: css(colour),
        ghost: ghost === true,
        shares: shares ?? null,
        tints: tints ?? null,
        offset: offset ?? HERE,
      })),
      marks.map(({ at, colour }) => ({ at, colour: css(colour) })),
      this.radius * 0.022,
      [css('--heat'), css('--sheet'), css('--rest')],
    );
    const change = this.radius / this.framed;
    if (change > 0.7 && change < 1.4) return;
    const { x, y, z } = this.camera.position.clone().sub(this.controls.target);
    this.look(this.framed === 0 ? this.first : [x, y, z]);
    this.framed = this.radius;
  }

  look(from: Vec3): void {
    const half = Math.tan((FIELD_OF_VIEW * Math.PI) / 360);
    // A bait is long: it fills the width, and a little over half the height is enough.
    const far = Math.max((1.06 * this.radius) / (half * this.camera.aspect), (0.6 * this.radius) / half);
    this.camera.position.copy(new Vector3(...from).normalize().multiplyScalar(far).add(this.centre));
    this.camera.near = far / 50;
    this.camera.far = far * 10;
    this.controls.target.copy(this.centre);
    this.controls.update();
    this.tell();
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
    this.tell();
  }

  end(): void {
    cancelAnimationFrame(this.told);
    this.controls.dispose();
    this.worker.terminate();
    this.canvas.remove();
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
export const Solid = memo(function Solid({ layers, marks, says, from = 'quarter', heightPx }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<View | null>(null);
  const theme = useTheme();
  const [failed, setFailed] = useState(false);
  const [large, setLarge] = useState(false);
  useEffect(() => {
    if (!box.current) return;
    const made = new View(box.current, from === 'side' ? SIDE : QUARTER, () => setFailed(true));
    view.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(box.current);
    return () => {
      watch.disconnect();
      made.end();
      view.current = null;
    };
  }, [from]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: colours are read from the theme
  useEffect(() => view.current?.show(layers, marks), [layers, marks, theme]);
  return (
    <div
      className={large ? 'fixed inset-0 z-40 bg-[var(--paper)] flex' : 'relative grow shrink-0 flex'}
      style={large ? undefined : { minHeight: heightPx }}
    >
      <div
        ref={box}
        className="grow min-w-0 relative touch-none cursor-grab"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a picture that is turned by the arrow keys
        tabIndex={0}
        role="img"
        aria-label={`${says} Arrow keys turn it, plus and minus come nearer; the figures stand in the table.`}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && large) return setLarge(false);
          const turn = TURNS[event.key];
          if (!turn) return;
          event.preventDefault();
          view.current?.turn(...turn);
        }}
      />
      {failed && (
        <p className="absolute inset-0 grid place-items-center soft">
          This browser draws no solids (WebGL is off). Both outlines and all figures are still here.
        </p>
      )}
      <div className="absolute right-2 bottom-2 flex flex-wrap justify-end gap-1">
        <button
          type="button"
          className="btn btn-xs bg-[var(--sheet)] border-[var(--edge)]"
          aria-pressed={large}
          onClick={() => setLarge(!large)}
        >
          {large ? 'smaller' : 'larger'}
        </button>
        {VIEWS.map(([name, from]) => (
          <button
            key={name}
            type="button"
            className="btn btn-xs bg-[var(--sheet)] border-[var(--edge)]"
            aria-label={LOOK_WORDS[name] ?? `Look from the ${name}`}
            onClick={() => view.current?.look(from)}
          >
            {name}
          </button>
        ))}
      </div>
    </div>
  );
});
