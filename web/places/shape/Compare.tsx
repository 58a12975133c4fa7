import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { usual } from '../../../core/defaults.ts';
import { tried } from '../../../core/failure.ts';
import { USUAL_SHORE } from '../../../core/plastisol/hardness.ts';
import { tailOf } from '../../../core/shape/spec.ts';
import { END_PADDLE, kick } from '../../../core/water/kick.ts';
import { queries } from '../../api/queries.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { type Layer, Solid } from '../../parts/solid/Solid.tsx';
import { readMeshFile } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { Drawn } from '../../workers/solid.ts';
import { PLASTIC } from '../judge/judging.tsx';
import { useKick } from '../judge/useKick.ts';
import { differences, inWords } from './words.ts';

/** Two revisions laid over each other, with the figures that changed. */
export function Compare() {
  const { id = '' } = useParams();
  const { data: master, error } = useQuery(queries.master(id));
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master) return <Waiting />;
  return <Laid master={master} />;
}

function useMesh(meshId: string | null): Drawn | null {
  const [solid, setSolid] = useState<{ id: string; drawn: Drawn } | null>(null);
  useEffect(() => {
    let live = true;
    if (meshId) void readMeshFile(meshId).then((drawn) => live && setSolid({ id: meshId, drawn }));
    return () => {
      live = false;
    };
  }, [meshId]);
  return solid && solid.id === meshId ? solid.drawn : null;
}

/** The two that are laid over each other: asked for in the address, else the newest over what it came from. */
function usePair(revisions: Revision[]) {
  const [search, setSearch] = useSearchParams();
  const shaped = revisions.filter((row) => row.meshId);
  const pick = (key: string, fallback: Revision | undefined) =>
    shaped.find((row) => row.id === search.get(key)) ?? fallback;
  const newer = pick('b', shaped[0]);
  const older = pick('a', shaped.find((row) => row.id === newer?.parentId) ?? shaped[1] ?? shaped[0]);
  const choose = (key: 'a' | 'b', id: string) => {
    search.set(key, id);
    setSearch(search, { replace: true });
  };
  return { shaped, older, newer, choose };
}

function Laid({ master }: { master: Master }) {
  const { shaped, older, newer, choose } = usePair(master.revisions);
  if (!older || !newer || shaped.length < 2) {
    return (
      <Page title={`${master.name}: revisions compared`} tab="Compare">
        <p className="text-lg">
          Two revisions with a shape are needed; there {shaped.length === 1 ? 'is one' : 'is none'}.{' '}
          <Link to={`/masters/${master.id}/shape`} className="link">
            Sculpt the next on the shape bench.
          </Link>
        </p>
      </Page>
    );
  }
  const select = (key: 'a' | 'b', value: Revision, label: string, colour: string) => (
    <label className="flex items-center gap-2">
      <span className={`font-bold ${colour}`}>{label}</span>
      <select className="select select-sm w-72" value={value.id} onChange={(event) => choose(key, event.target.value)}>
        {shaped.map((row) => (
          <option key={row.id} value={row.id}>
            v{row.number}: {row.reason}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <Page
      title={
        <>
          {master.name}: v{older.number} under v{newer.number}
        </>
      }
      tab={`${master.name} compared`}
      under={
        <div className="flex gap-6 flex-wrap">
          {select('a', older, 'See-through', 'heat')}
          {select('b', newer, 'Solid', '')}
        </div>
      }
      actions={
        <Link to={`/masters/${master.id}`} className="btn btn-line">
          Back to the master
        </Link>
      }
    >
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_360px] gap-8">
        <Overlaid older={older} newer={newer} />
        <div className="flex flex-col gap-5">
          <FiguresOfBoth master={master} older={older} newer={newer} />
          <Changed older={older} newer={newer} />
        </div>
      </div>
    </Page>
  );
}

interface Pair {
  older: Revision;
  newer: Revision;
}

function Overlaid({ older, newer }: Pair) {
  const [oldSolid, newSolid] = [useMesh(older.meshId), useMesh(newer.meshId)];
  const layers = useMemo<Layer[]>(
    () => [
      ...(newSolid ? [{ ...newSolid, colour: '--bait' }] : []),
      ...(oldSolid ? [{ ...oldSolid, colour: '--heat', ghost: true }] : []),
    ],
    [oldSolid, newSolid],
  );
  return (
    <Solid layers={layers} heightPx={420} says={`v${newer.number} solid, v${older.number} see-through over it.`} />
  );
}

const SIZES = [
  ['lengthMm', 'Length'],
  ['widthMm', 'Width'],
  ['heightMm', 'Height'],
  ['thickestMm', 'Thickest'],
] as const;

function FiguresOfBoth({ master, older, newer }: Pair & { master: Master }) {
  const { text } = useTaste();
  const { own, constants } = useKick();
  const scale = master.bait.wantedScale ?? '00';
  const hardness = master.bait.wantedHardness ?? USUAL_SHORE[scale];
  const onsetOf = (revision: Revision) => {
    const tail = revision.spec ? tailOf(revision.spec) : null;
    if (!tail) return '—';
    const input = { tail: END_PADDLE, scale, hardness, ...tail, ...constants };
    const found = tried(() =>
      kick({ ...input, plastisolDensityGPerMl: PLASTIC, waterDensityGPerMl: usual('waterGPerMl') }),
    );
    return found.value ? text(found.value.onsetMPerS, 'speed') : '—';
  };
  const figures: [name: string, of: (revision: Revision) => string][] = [
    ['Volume', (row) => (row.volumeMl === null ? '—' : text(row.volumeMl, 'volume'))],
    ...SIZES.map(([key, name]): [string, (row: Revision) => string] => [name, (row) => text(row[key], 'length')]),
    [`Kicks from, Shore ${scale} ${hardness}${own ? '' : ', estimate'}`, onsetOf],
  ];
  return (
    <table className="w-full text-sm">
      <thead>
        <tr className="label-small text-left">
          <th />
          <th className="text-right">v{older.number}</th>
          <th className="text-right">v{newer.number}</th>
        </tr>
      </thead>
      <tbody>
        {figures.map(([name, of]) => (
          <tr key={name} className="border-t border-[var(--rule)]">
            <th className="text-left font-normal py-1">{name}</th>
            <td className="figure text-right">{of(older)}</td>
            <td className={`figure text-right ${of(older) === of(newer) ? '' : 'rest'}`}>{of(newer)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Changed({ older, newer }: Pair) {
  const taste = useTaste();
  const changes = older.spec && newer.spec ? differences(older.spec, newer.spec).map((one) => inWords(one, taste)) : [];
  return (
    <section>
      <h2 className="mb-1">What was changed</h2>
      {changes.length === 0 && <p className="soft">No figure of the sculpting.</p>}
      <ul className="ruled text-sm">
        {changes.slice(0, 14).map((change) => (
          <li key={change.what} className="py-1 flex justify-between gap-3">
            <span>{change.what}</span>
            <span className="figure">
              {change.from} → {change.to}
            </span>
          </li>
        ))}
      </ul>
      {changes.length > 14 && <p className="soft text-sm">and {changes.length - 14} more</p>}
    </section>
  );
}
