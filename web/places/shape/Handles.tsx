import { factsOf } from '../../../core/schema.ts';
import { axisOf } from '../../../core/shape/axis.ts';
import { type ShapeSpec, type Station, shapeSpecSchema } from '../../../core/shape/spec.ts';
import { useTaste } from '../../parts/taste.tsx';
import { Handle } from './Handle.tsx';
import { acrossPx, alongMm, type Geometry } from './outlineGeometry.ts';

interface Props {
  spec: ShapeSpec;
  geometry: Geometry;
  /** Which station the figures beside the drawing are of. */
  station: number;
  onStation(index: number): void;
  onChange(spec: ShapeSpec, about: string | null): void;
  onSettle(): void;
  onHold(held: boolean): void;
}

/** A tenth of a millimetre, within what the schema keeps at this path. */
function kept(path: string, mm: number): number {
  const { least = 0, most = Number.POSITIVE_INFINITY } = factsOf(shapeSpecSchema, path.split('.'));
  return Math.min(most, Math.max(least, Math.round(mm * 10) / 10));
}

/** Between its neighbours, and short of the wrist. */
function between(stations: Station[], index: number, at: number): number {
  const before = stations[index - 1]?.at;
  const after = stations[index + 1]?.at ?? 1;
  return Math.min(0.985, after - 0.01, Math.max(before === undefined ? 0 : before + 0.01, at));
}

type Figure = 'topMm' | 'bottomMm' | 'widthMm';
/** Which way a figure of a station grows on the paper, and how many times what the hand moves. */
const SIDES: { figure: Figure; name: string; view: 'sideY' | 'topY'; up: 1 | -1; times: 1 | 2 }[] = [
  { figure: 'topMm', name: 'back', view: 'sideY', up: 1, times: 1 },
  { figure: 'bottomMm', name: 'belly', view: 'sideY', up: -1, times: 1 },
  { figure: 'widthMm', name: 'width', view: 'topY', up: -1, times: 2 },
];

/** Each station's back, belly and width. */
export function StationHandles({ spec, geometry, station, onStation, onChange, onSettle, onHold }: Props) {
  const { text } = useTaste();
  const { stations, bodyMm } = spec;
  const axis = axisOf(spec);
  const put = (index: number, part: Partial<Station>, about: string) =>
    onChange({ ...spec, stations: stations.map((row, i) => (i === index ? { ...row, ...part } : row)) }, about);
  return stations.flatMap((one, i) =>
    SIDES.map(({ figure, name, view, up, times }) => {
      const mm = one[figure];
      const set = (at: number, to: number, about: string) =>
        put(i, { at: between(stations, i, at), [figure]: kept(`stations.0.${figure}`, to) }, `${about} ${i} ${name}`);
      return (
        <Handle
          // biome-ignore lint/suspicious/noArrayIndexKey: stations are known by their order from nose to tail
          key={`${i} ${name}`}
          label={`Station ${i + 1}, ${name}`}
          cx={acrossPx(
            geometry,
            view === 'sideY' ? axis.place(one.at * bodyMm, up * mm)[0] : axis.at(one.at * bodyMm).xMm,
          )}
          cy={
            geometry[view] -
            (view === 'sideY' ? axis.place(one.at * bodyMm, up * mm)[1] : (up * mm) / times) * geometry.scale
          }
          chosen={i === station}
          value={mm}
          shown={text(mm, 'length')}
          onGrab={() => onStation(i)}
          onMove={(px, py) => {
            const [x, z] = [alongMm(geometry, px), (geometry[view] - py) / geometry.scale];
            const here = one.at * bodyMm;
            if (view === 'topY')
              return set(
                (here + (x - axis.at(here).xMm) / Math.cos(axis.at(here).turn)) / bodyMm,
                up * times * z,
                'station',
              );
            const [along, over] = axis.from(here, x, z);
            set(along / bodyMm, up * over, 'station');
          }}
          onNudge={(dx, dy) => set(one.at + dx / bodyMm, mm + up * times * dy, 'nudge')}
          onSettle={onSettle}
          onHold={onHold}
        />
      );
    }),
  );
}

const WRIST: { figure: 'thicknessMm' | 'heightMm'; name: string; view: 'sideY' | 'topY'; up: 1 | -1 }[] = [
  { figure: 'thicknessMm', name: 'thickness side to side', view: 'topY', up: -1 },
  { figure: 'heightMm', name: 'height', view: 'sideY', up: 1 },
];

/** The wrist: half of each figure lies to each side of the middle. */
export function WristHandles({ spec, geometry, onChange, onSettle, onHold }: Omit<Props, 'station' | 'onStation'>) {
  const { text } = useTaste();
  const { wrist, bodyMm } = spec;
  const axis = axisOf(spec);
  const middle = bodyMm + wrist.lengthMm / 2;
  return WRIST.map(({ figure, name, view, up }) => {
    const mm = wrist[figure];
    const set = (to: number) =>
      onChange({ ...spec, wrist: { ...wrist, [figure]: kept(`wrist.${figure}`, to) } }, `wrist ${name}`);
    return (
      <Handle
        key={figure}
        label={`Wrist, ${name}`}
        square
        cx={acrossPx(geometry, view === 'sideY' ? axis.place(middle, mm / 2)[0] : axis.at(middle).xMm)}
        cy={geometry[view] - (view === 'sideY' ? axis.place(middle, mm / 2)[1] : (up * mm) / 2) * geometry.scale}
        chosen={false}
        value={mm}
        shown={text(mm, 'length')}
        onGrab={() => {}}
        onMove={(px, py) => {
          const z = (geometry[view] - py) / geometry.scale;
          set(view === 'sideY' ? 2 * axis.from(middle, alongMm(geometry, px), z)[1] : 2 * up * z);
        }}
        onNudge={(_, dy) => set(mm + 2 * up * dy)}
        onSettle={onSettle}
        onHold={onHold}
      />
    );
  });
}
