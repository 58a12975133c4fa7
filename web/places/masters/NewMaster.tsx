import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { MASTER_KINDS, type Master } from '../../../contract/masters.ts';
import type { MeshRow } from '../../../contract/meshes.ts';
import { SHAPES, type Shape } from '../../../contract/workshop.ts';
import { outlineOf } from '../../../core/shape/outline.ts';
import { type ShapeSpec, tailReachMm } from '../../../core/shape/spec.ts';
import { STARTS } from '../../../core/shape/starts.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { NumberField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page } from '../../parts/Page.tsx';
import { BringMesh } from '../shape/BringMesh.tsx';
import {
  complete,
  DimensionFields,
  EMPTY,
  MasterDrawing,
  type Volume,
  VolumeFields,
  volumeBodyOf,
} from './Measures.tsx';
import { DENSITY_G_PER_ML, KIND_WORDS, SHAPE_WORDS } from './words.ts';

const WAYS = { sculpt: 'Sculpt it here', bring: 'Bring a mesh', measure: 'Measure what you have' } as const;
type Way = keyof typeof WAYS;

/** Three ways to a master: sculpted, brought, or measured by hand. */
export function NewMaster() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('way');
  const way: Way = asked === 'sculpt' || asked === 'bring' ? asked : 'measure';
  return (
    <Page title="A new master" tab="New master" under={UNDER[way]}>
      <fieldset className="flex flex-wrap gap-2" aria-label="How it comes">
        {(Object.keys(WAYS) as Way[]).map((one) => (
          <button
            key={one}
            type="button"
            className={`btn ${one === way ? 'btn-primary' : 'btn-line'}`}
            aria-pressed={one === way}
            onClick={() => setSearch({ way: one }, { replace: true })}
          >
            {WAYS[one]}
          </button>
        ))}
      </fieldset>
      {way === 'sculpt' && <Starts />}
      {way === 'bring' && <Bring />}
      {way === 'measure' && <Measured />}
    </Page>
  );
}

const UNDER: Record<Way, string> = {
  sculpt: 'Pick the nearest; every figure can be changed, and what it will do is judged beside it.',
  bring: 'An STL or OBJ from elsewhere: it is measured, mended if need be, and judged.',
  measure: 'Four measures and a weighing; the rest is computed.',
};

function Starts() {
  return (
    <ul className="grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-4 gap-5">
      {STARTS.map((start) => (
        <li key={start.id}>
          <Link
            to={`/masters/sculpt?start=${start.id}`}
            className="sheet p-4 flex flex-col gap-2 h-full hover:border-[var(--ink)]"
          >
            <SpecDrawing spec={start.spec} />
            <span className="font-display font-bold text-lg">{start.name}</span>
            <span className="soft text-sm">{start.says}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** A spec, small: from the side, or from above where limbs or a flat tail are what there is to see. */
function SpecDrawing({ spec }: { spec: ShapeSpec }) {
  const { sectionAt, endMm } = outlineOf(spec);
  const above = spec.limbs.length > 0 || spec.tail.kind === 'beaver';
  const long = endMm + tailReachMm(spec);
  const scale =
    210 / (above ? Math.max(long, ...spec.limbs.map((limb) => limb.at * spec.bodyMm + limb.lengthMm)) : long);
  const at = Array.from({ length: 61 }, (_, i) => (endMm * i) / 60);
  const over = (x: number) => (above ? sectionAt(x).half : sectionAt(x).top);
  const under = (x: number) => (above ? sectionAt(x).half : sectionAt(x).bottom);
  const path = [
    ...at.map((x, i) => `${i === 0 ? 'M' : 'L'}${(x * scale).toFixed(1)} ${(-over(x) * scale).toFixed(1)}`),
    ...[...at].reverse().map((x) => `L${(x * scale).toFixed(1)} ${(under(x) * scale).toFixed(1)}`),
  ].join('');
  const tall = (spec.tail.acrossMm / 2) * scale;
  const reach = Math.max(4, tailReachMm(spec) * scale);
  const from = endMm * scale - 1;
  const tail = {
    paddle: `M${from} ${-tall} h${reach} v${2 * tall} h${-reach}Z`,
    boot: `M${from} ${-tall} h${reach} v${2 * tall} h${-reach}Z`,
    ribbon: `M${from} ${-tall} L${from + reach} ${-tall * 0.4} V${tall * 0.4} L${from} ${tall}Z`,
    curl: `M${from} ${-tall} C${from + reach * 0.7} ${-tall} ${from + reach * 0.7} ${tall * 4} ${from + reach * 0.1} ${tall * 4} C${from + reach * 0.4} ${tall * 3} ${from + reach * 0.4} ${tall} ${from} ${tall}Z`,
    straight: `M${from} ${-tall} L${from + reach} -2 V2 L${from} ${tall}Z`,
    twin: `M${from} ${-tall} L${from + reach} ${-tall - 6} L${from} 0 L${from + reach} ${tall + 6} L${from} ${tall}Z`,
    beaver: `M${from} -4 C${from + reach * 0.3} ${-tall} ${from + reach} ${-tall} ${from + reach} 0 C${from + reach} ${tall} ${from + reach * 0.3} ${tall} ${from} 4Z`,
  }[spec.tail.kind];
  const limbs = spec.limbs.flatMap((limb) =>
    Array.from({ length: limb.pairs }, (_, pair) => pair).flatMap((pair) =>
      [1, -1].map((side) => {
        const x = limb.at * spec.bodyMm + pair * limb.stepMm;
        const turn = (limb.angleDeg * Math.PI) / 180;
        return {
          key: `${limb.kind} ${pair} ${side}`,
          wide: limb.thicknessMm * scale,
          x1: x * scale,
          y1: side * sectionAt(x).half * scale * 0.8,
          x2: (x + limb.lengthMm * Math.cos(turn)) * scale,
          y2: side * (sectionAt(x).half + limb.lengthMm * Math.sin(turn)) * scale,
          claw: limb.kind === 'claw',
        };
      }),
    ),
  );
  return (
    <svg viewBox="-4 -46 222 92" width="100%" height={92} aria-hidden>
      {limbs.map(({ key, wide, claw, ...line }) => (
        <g key={key}>
          <line {...line} stroke="var(--bait)" strokeWidth={wide} strokeLinecap="round" />
          {claw && <ellipse cx={line.x2} cy={line.y2} rx={wide * 1.5} ry={wide} fill="var(--bait)" />}
        </g>
      ))}
      <path d={tail} fill="var(--bait)" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
      <path d={path} fill="var(--bait)" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
    </svg>
  );
}

function Bring() {
  const navigate = useNavigate();
  const [mesh, setMesh] = useState<MeshRow | null>(null);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<(typeof MASTER_KINDS)[number]>('print');
  const [shape, setShape] = useState<Shape>('paddle');
  const add = useWrite<Master>(
    () => ({ path: '/masters', body: { name, kind, shape, meshId: mesh?.id } }),
    (master) => navigate(`/masters/${master.id}/shape`),
  );
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,560px)_minmax(320px,400px)] gap-12">
      <BringMesh action="This is the master" onReady={setMesh} />
      {mesh && (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() !== '') add.mutate();
          }}
        >
          <TextField label="Name of the bait" value={name} onChange={setName} autoFocus />
          <SelectField
            label="Made of"
            value={kind}
            options={MASTER_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
            onChange={setKind}
          />
          <SelectField
            label="Drawn as"
            value={shape}
            options={SHAPES.map((value) => ({ value, label: SHAPE_WORDS[value] }))}
            onChange={setShape}
          />
          <Refusal error={add.error} />
          <button type="submit" className="btn btn-primary self-start" disabled={name.trim() === '' || add.isPending}>
            Keep this master
          </button>
          <Caution about={['design']} />
        </form>
      )}
    </div>
  );
}

function Measured() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<(typeof MASTER_KINDS)[number]>('clay');
  const [shape, setShape] = useState<Shape>('paddle');
  const [dimensions, setDimensions] = useState(EMPTY);
  const [packCount, setPackCount] = useState<number | null>(8);
  const [volume, setVolume] = useState<Volume>({
    how: 'weighed',
    grams: null,
    densityGPerMl: DENSITY_G_PER_ML.clay,
    ml: null,
  });
  const changeKind = (next: typeof kind) => {
    setKind(next);
    setVolume({ ...volume, densityGPerMl: DENSITY_G_PER_ML[next] });
  };
  const add = useWrite<Master, { sure: boolean }>(
    ({ sure }) => ({
      path: '/masters',
      body: { name, kind, shape, packCount: packCount ?? 8, ...dimensions, volume: volumeBodyOf(volume), sure },
    }),
    (master) => navigate(`/masters/${master.id}`),
  );
  const ready = name.trim() !== '' && complete(dimensions);
  return (
    <form
      className="grid grid-cols-1 lg:grid-cols-[minmax(340px,460px)_minmax(0,1fr)] gap-12"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) add.mutate({ sure: false });
      }}
    >
      <div className="flex flex-col gap-4">
        <TextField
          label="Name of the bait"
          value={name}
          onChange={setName}
          autoFocus
          hint="the name it goes by in molds, pours and orders"
        />
        <div className="grid grid-cols-2 gap-4">
          <SelectField
            label="Made of"
            value={kind}
            options={MASTER_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
            onChange={changeKind}
          />
          <SelectField
            label="Drawn as"
            value={shape}
            options={SHAPES.map((value) => ({ value, label: SHAPE_WORDS[value] }))}
            onChange={setShape}
          />
        </div>
        <DimensionFields value={dimensions} onChange={setDimensions} />
        <VolumeFields value={volume} onChange={setVolume} usualDensity={DENSITY_G_PER_ML[kind]} canWait />
        <NumberField
          label="Baits to a pack"
          value={packCount}
          onChange={setPackCount}
          min={1}
          isDefault={packCount === 8}
          className="w-40"
        />
        <Refusal error={add.error} onSure={() => add.mutate({ sure: true })} />
        <button type="submit" className="btn btn-primary btn-lg self-start" disabled={!ready || add.isPending}>
          Keep this master
        </button>
      </div>
      <div className="flex flex-col gap-6">
        {complete(dimensions) ? (
          <MasterDrawing shape={shape} {...dimensions} />
        ) : (
          <p className="soft text-lg max-w-md">
            Type length, width, height and thickest section: the bait is drawn here to scale, as a check that no figure
            slipped.
          </p>
        )}
        {kind === 'own-bait' && (
          <p className="max-w-md">
            Wash it with dish soap to get the oil off, cut injection nubs flush, and lay it on its flat back.
          </p>
        )}
        {kind === 'natural' && (
          <p className="max-w-md">
            Pin it straight, freeze it, mold it cold, then cast a hard master in resin that can be reworked.
          </p>
        )}
        <Caution about={['design']} />
      </div>
    </form>
  );
}
