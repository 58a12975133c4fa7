import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { CONE_DEG, WAYS_UP } from '../../../core/water/assumed.ts';
import { queries } from '../../api/queries.ts';
import { type Layer, Solid } from '../../parts/solid/Solid.tsx';
import { readMeshFile, useJudged } from '../../parts/solid/useSolid.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { Drawn } from '../../workers/solid.ts';
import { Judge } from '../judge/Judge.tsx';
import { type Shown, sharesOf } from '../judge/show.ts';
import { useAssumed } from '../judge/useAssumed.ts';
import { FigureTable, Legend } from './Figures.tsx';

/** A mesh that was brought: judged like any shape, but not sculpted. */
export function Brought({ master, revision }: { master: Master; revision: Revision }) {
  const { text } = useTaste();
  const [solid, setSolid] = useState<Drawn | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [assumed, assume] = useAssumed(master);
  const [shown, setShown] = useState<Shown>('plain');
  useEffect(() => {
    let live = true;
    readMeshFile(revision.meshId ?? '').then(
      (found) => live && setSolid(found),
      (error: unknown) => live && setProblem(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      live = false;
    };
  }, [revision.meshId]);
  const {
    judged,
    done,
    problem: judgeProblem,
  } = useJudged(solid?.positions ?? null, {
    ballMm: assumed.ballMm,
    coneDeg: CONE_DEG,
    up: WAYS_UP[assumed.wayUp],
    bored: false,
  });
  const tests = useQuery(queries.waterTests(master.id)).data?.items ?? [];
  const materials = useQuery(queries.materials).data?.items ?? [];
  const layers = useMemo<Layer[]>(
    () => (solid ? [{ ...solid, colour: '--bait', shares: sharesOf(shown, judged, solid.positions.length / 9) }] : []),
    [solid, shown, judged],
  );
  const marks = useMemo(
    () =>
      shown === 'air'
        ? (judged.traps ?? []).map((trap) => ({ at: trap.pointMm, colour: trap.pour ? '--rest' : '--heat' }))
        : [],
    [shown, judged.traps],
  );
  return (
    <div className="h-full flex flex-col" data-judged={done === 1}>
      <header className="flex items-center gap-3 px-6 py-2.5 border-b border-[var(--rule)]">
        <h1 className="text-[1.6rem]">
          <Link to={`/masters/${master.id}`} className="hover:underline">
            {master.name}
          </Link>{' '}
          <span className="figure text-base soft">v{revision.number}, a mesh</span>
        </h1>
        <p className="soft text-sm flex-1">
          {problem ?? 'Brought from outside: judged here, changed where it was made.'}
        </p>
      </header>
      <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_330px]">
        <section className="overflow-auto px-6 py-3 flex flex-col gap-2" aria-label="The shape">
          {shown !== 'plain' && <Legend shown={shown} />}
          <Solid
            layers={layers}
            marks={marks}
            heightPx={480}
            says={`The mesh, ${revision.mesh?.sizeMm.map((mm) => text(mm, 'length')).join(' by ') ?? ''}.`}
          />
          <FigureTable judged={judged} changes={[]} />
        </section>
        <aside className="overflow-auto px-5 py-2 border-l border-[var(--rule)]">
          <Judge
            spec={null}
            judged={judged}
            done={done}
            problem={judgeProblem}
            assumed={assumed}
            onAssume={assume}
            shown={shown}
            onShow={setShown}
            tests={tests.filter((test) => test.revisionId === revision.id)}
            materials={materials}
          />
        </aside>
      </div>
    </div>
  );
}
