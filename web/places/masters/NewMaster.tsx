import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { type Master, masterBody, measuredBody } from '../../../contract/masters.ts';
import type { MeshRow } from '../../../contract/meshes.ts';
import { SHAPES, type Shape } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';
import { MASTER_G_PER_ML, MASTER_KINDS, type MasterKind } from '../../../core/mold/masterStuff.ts';
import type { Silhouette } from '../../../core/shape/silhouette.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import { STARTS } from '../../../core/shape/starts.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
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
import OUTLINES from './startOutlines.json' with { type: 'json' };

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
  const finished = (useQuery(queries.masters).data?.items ?? []).filter((row) => row.latest.spec !== null);
  return (
    <>
      <ul className="grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-4 gap-5">
        {STARTS.map((start) => (
          <li key={start.id}>
            <Link
              to={`/masters/sculpt?start=${start.id}`}
              className="sheet p-4 flex flex-col gap-2 h-full hover:border-[var(--ink)]"
            >
              <StartDrawing id={start.id} above={start.spec.limbs.length > 0 && !isCurved(start.spec)} />
              <span className="font-display font-bold text-lg">{start.name}</span>
              <span className="soft text-sm">{start.says}</span>
            </Link>
          </li>
        ))}
      </ul>
      {finished.length > 0 && (
        <section className="flex flex-col gap-2">
          <h2 className="text-xl">Or a copy of one of yours</h2>
          <p className="soft text-sm">Its figures to begin with; the master that they come from stays as it is.</p>
          <ul className="flex flex-wrap gap-2">
            {finished.map((row) => (
              <li key={row.id}>
                <Link to={`/masters/sculpt?copy=${row.id}`} className="btn btn-line flex gap-2 items-center">
                  <svg width={72} height={26} aria-hidden>
                    <BaitShape shape={row.shape} bait={row.baitId} x={1} y={1} lengthPx={70} widthPx={24} eye={false} />
                  </svg>
                  {row.name} <span className="figure">v{row.latest.number}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** Bent so far that it is known from the side. */
const isCurved = ({ bends }: ShapeSpec) => bends.some(({ turnDeg }) => Math.abs(turnDeg) > 30);

const DRAWN_PX = 210;
const TALL_PX = 92;

/** A starting shape as it is: from the side, or from above where limbs are what there is to see. */
function StartDrawing({ id, above }: { id: string; above: boolean }) {
  const outline = (OUTLINES as Record<string, Silhouette>)[id];
  if (!outline) return null;
  const share = above ? outline.wide : outline.tall;
  const long = Math.min(DRAWN_PX, (TALL_PX - 6) / share);
  const tall = long * share;
  return (
    <svg viewBox={`-4 0 ${DRAWN_PX + 8} ${TALL_PX}`} width="100%" height={TALL_PX} aria-hidden>
      <g transform={`translate(${(DRAWN_PX - long) / 2} ${(TALL_PX - tall) / 2}) scale(${long} ${tall})`}>
        <path
          d={above ? outline.above : outline.side}
          fill="var(--bait)"
          fillRule="evenodd"
          stroke="var(--ink)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
          strokeLinejoin="round"
        />
      </g>
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
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,780px)_minmax(300px,400px)] gap-10">
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
