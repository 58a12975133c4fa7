import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { type Master, masterBody, measuredBody } from '../../../contract/masters.ts';
import type { MeshRow } from '../../../contract/meshes.ts';
import { SHAPES, type Shape } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';
import { MASTER_G_PER_ML, MASTER_KINDS, type MasterKind } from '../../../core/mold/masterStuff.ts';
import { outlineOf } from '../../../core/shape/outline.ts';
import { type ShapeSpec, tailReachMm } from '../../../core/shape/spec.ts';
import { STARTS } from '../../../core/shape/starts.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Page } from '../../parts/Page.tsx';
import { ChoiceIn, choices, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { KIND_WORDS, SHAPE_WORDS } from '../../parts/words/master.ts';
import { BringMesh } from './BringMesh.tsx';
import { MasterDrawing } from './MasterDrawing.tsx';
import {
  complete,
  DimensionFields,
  type Dimensions,
  EMPTY,
  toWeigh,
  type Volume,
  VolumeFields,
  volumeBodyOf,
} from './Measures.tsx';

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

interface Brought {
  name: string;
  kind: MasterKind;
  shape: Shape;
}

function Bring() {
  const [mesh, setMesh] = useState<MeshRow | null>(null);
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,560px)_minmax(320px,400px)] gap-12">
      <BringMesh action="This is the master" onReady={setMesh} />
      {mesh && <BroughtSheet meshId={mesh.id} />}
    </div>
  );
}

function BroughtSheet({ meshId }: { meshId: string }) {
  const navigate = useNavigate();
  const [begun] = useState<Brought>({ name: '', kind: 'print', shape: 'paddle' });
  const sheet = useSheet<Brought>({ schema: masterBody, keep: 'master/brought', seen: begun });
  const add = useWrite<Master>(
    () => ({ path: '/masters', body: { ...sheet.values, meshId } }),
    (master) => {
      sheet.done();
      navigate(`/masters/${master.id}/shape`);
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()}>
      <TextIn at="name" autoFocus />
      <ChoiceIn at="kind" options={choices(MASTER_KINDS, KIND_WORDS)} />
      <ChoiceIn at="shape" options={choices(SHAPES, SHAPE_WORDS)} />
      <Send className="">Keep this master</Send>
      <Caution about={['design']} />
    </Sheet>
  );
}

interface Typed extends Brought, Dimensions {
  packCount: number | null;
  volume: Volume;
}

const BEGUN: Typed = {
  name: '',
  kind: 'clay',
  shape: 'paddle',
  ...EMPTY,
  packCount: usual('packCount'),
  volume: toWeigh(MASTER_G_PER_ML.clay),
};

const bodyOf = ({ volume, ...master }: Typed) => ({ ...master, volume: volumeBodyOf(volume) });

const PREPARED: Partial<Record<MasterKind, string>> = {
  'own-bait': 'Wash it with dish soap to get the oil off, cut injection nubs flush, and lay it on its flat back.',
  natural: 'Pin it straight, freeze it, mold it cold, then cast a hard master in resin that can be reworked.',
};

function Measured() {
  const navigate = useNavigate();
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({ schema: measuredBody, keep: 'master', seen: begun, body: bodyOf });
  const { kind, shape, volume, lengthMm, widthMm, heightMm, thickestMm } = sheet.values;
  const sizes = { lengthMm, widthMm, heightMm, thickestMm };
  const add = useWrite<Master, { sure: boolean }>(
    ({ sure }) => ({ path: '/masters', body: { ...bodyOf(sheet.values), sure } }),
    (master) => {
      sheet.done();
      navigate(`/masters/${master.id}`);
    },
  );
  return (
    <Sheet
      of={sheet}
      by={add}
      onSend={(sure) => add.mutate({ sure })}
      className="grid grid-cols-1 lg:grid-cols-[minmax(340px,460px)_minmax(0,1fr)] gap-12"
    >
      <div className="flex flex-col gap-4">
        <TextIn at="name" autoFocus hint="the name it goes by in molds, pours and orders" />
        <div className="grid grid-cols-2 gap-4">
          <ChoiceIn
            at="kind"
            options={choices(MASTER_KINDS, KIND_WORDS)}
            onPicked={(next) => sheet.set('volume', { ...volume, densityGPerMl: MASTER_G_PER_ML[next as MasterKind] })}
          />
          <ChoiceIn at="shape" options={choices(SHAPES, SHAPE_WORDS)} />
        </div>
        <DimensionFields />
        <VolumeFields under="volume." value={volume} usualDensity={MASTER_G_PER_ML[kind]} canWait />
        <FigureIn at="packCount" className="w-40" />
        <Send>Keep this master</Send>
      </div>
      <div className="flex flex-col gap-6">
        {complete(sizes) ? (
          <MasterDrawing shape={shape} {...sizes} />
        ) : (
          <p className="soft text-lg max-w-md">
            Type length, width, height and thickest section: the bait is drawn here to scale, as a check that no figure
            slipped.
          </p>
        )}
        {PREPARED[kind] && <p className="max-w-md">{PREPARED[kind]}</p>}
        <Caution about={['design']} />
      </div>
    </Sheet>
  );
}
