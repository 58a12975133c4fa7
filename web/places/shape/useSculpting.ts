import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Master, MasterRow, Revision } from '../../../contract/masters.ts';
import { type ShapeSpec, shapeSpecSchema } from '../../../core/shape/spec.ts';
import { check } from '../../../core/validate.ts';
import { CONE_DEG, POINT_SHARE, WAYS_UP } from '../../../core/water/assumed.ts';
import { queries } from '../../api/queries.ts';
import type { Layer } from '../../parts/solid/Solid.tsx';
import { useJudged, useSculpted } from '../../parts/solid/useSolid.ts';
import { type Shown, sharesOf } from '../judge/show.ts';
import { useAssumed } from '../judge/useAssumed.ts';
import { useHistory } from './history.ts';
import type { BroughtMesh } from './Joined.tsx';
import type { Donor } from './SpecForm.tsx';
import { differences } from './words.ts';

const shelf = (place: string) => `blunko.shape.${place}`;

/** What was not kept yet, from before a reload or a power cut; rubbish is no work. */
function unsaved(place: string): ShapeSpec | null {
  try {
    const text = localStorage.getItem(shelf(place));
    return text === null ? null : check(shapeSpecSchema, JSON.parse(text));
  } catch {
    return null;
  }
}

export interface SculptingProps {
  place: string;
  first: ShapeSpec;
  master?: Master;
  revision?: Revision;
  startShape?: string;
  startName?: string;
}

/** Sculpted shapes whose tails can be taken over: this master's other revisions, and the newest of the others. */
function donorsFor(masters: MasterRow[], master?: Master, revision?: Revision): Donor[] {
  const own = (master?.revisions ?? [])
    .filter((row) => row.id !== revision?.id)
    .map((row) => ({ id: row.id, label: `v${row.number}: ${row.reason}`, spec: row.spec }));
  const others = masters
    .filter((row) => row.id !== master?.id)
    .map((row) => ({ id: row.latest.id, label: `${row.name} v${row.latest.number}`, spec: row.latest.spec }));
  return [...own, ...others].flatMap(({ spec, ...row }) => (spec ? [{ ...row, spec }] : []));
}

/** Closed meshes of masters that were brought: what a shape can be joined with. */
function broughtOf(masters: MasterRow[]): BroughtMesh[] {
  return masters.flatMap(({ name, latest: { spec, meshId, mesh, number } }) =>
    !spec && meshId && mesh && mesh.volumeMl !== null && !mesh.flipped
      ? [{ meshId, label: `${name} v${number}`, sizeMm: mesh.sizeMm }]
      : [],
  );
}

/** The shape as it is now, kept over a reload until it is kept for good, with its undo by keys. */
function useShape(place: string, first: ShapeSpec) {
  const history = useHistory(unsaved(place) ?? first);
  const { now: spec, undo, redo } = history;
  const changes = useMemo(() => differences(first, spec), [first, spec]);
  useEffect(() => {
    if (changes.length === 0) localStorage.removeItem(shelf(place));
    else localStorage.setItem(shelf(place), JSON.stringify(spec));
  }, [place, spec, changes]);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [undo, redo]);
  const kept = useCallback(() => localStorage.removeItem(shelf(place)), [place]);
  return { ...history, spec, changes, kept };
}

/** The solid of a shape and what was judged of it, coloured by what is asked for. */
function useShown(spec: ShapeSpec, master: Master | undefined) {
  const { solid, fine, problem: refused } = useSculpted(spec);
  const [assumed, assume] = useAssumed(master);
  const [shown, show] = useState<Shown>('plain');
  const [judgedOf, setJudgedOf] = useState<Float32Array | null>(null);
  useEffect(() => {
    if (fine && solid) setJudgedOf(solid.positions);
  }, [fine, solid]);
  const { judged, done, problem } = useJudged(judgedOf, {
    ballMm: assumed.ballMm,
    coneDeg: CONE_DEG,
    up: WAYS_UP[assumed.wayUp],
    bored: spec.bore !== null,
  });
  const hook = useMemo(
    () => (assumed.withHook ? { ...assumed.hook, pointShare: POINT_SHARE } : null),
    [assumed.withHook, assumed.hook],
  );
  // Colours belong to the solid that was judged; a newer one is drawn plain until it is.
  const layers = useMemo<Layer[]>(() => {
    if (!solid) return [];
    const shares = solid.positions === judgedOf ? sharesOf(shown, judged, solid.positions.length / 9) : null;
    return [{ ...solid, colour: '--bait', shares }];
  }, [solid, judgedOf, shown, judged]);
  const marks = useMemo(
    () =>
      shown === 'air' && solid?.positions === judgedOf
        ? (judged.traps ?? []).map((trap) => ({ at: trap.pointMm, colour: trap.pour ? '--rest' : '--heat' }))
        : [],
    [shown, judged.traps, solid, judgedOf],
  );
  return { solid, fine, refused, assumed, assume, shown, show, judged, done, problem, hook, layers, marks };
}

/** All that the shape bench knows and does, without its looks. */
export function useSculpting({ place, first, master, revision }: SculptingProps) {
  const shape = useShape(place, first);
  const view = useShown(shape.spec, master);
  const [station, setStation] = useState(1);
  const [tailFrom, setTailFrom] = useState('');
  const tests = useQuery({ ...queries.waterTests(master?.id ?? ''), enabled: master !== undefined }).data?.items ?? [];
  const materials = useQuery(queries.materials).data?.items ?? [];
  const { data: masters } = useQuery(queries.masters);
  const donors = useMemo(() => donorsFor(masters?.items ?? [], master, revision), [masters, master, revision]);
  const meshes = useMemo(() => broughtOf(masters?.items ?? []), [masters]);
  const { spec, set } = shape;
  const takeTail = useCallback(
    (donor: Donor) => {
      set({ ...spec, wrist: donor.spec.wrist, tail: donor.spec.tail }, null);
      setTailFrom(donor.id);
    },
    [spec, set],
  );
  return {
    shape,
    view,
    station,
    setStation,
    donors,
    meshes,
    takeTail,
    tailFrom,
    tests: tests.filter((test) => test.revisionId === revision?.id),
    materials,
  };
}

export type SculptingState = ReturnType<typeof useSculpting>;
