import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { PACES, type WaterTest } from '../../../contract/water.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { dateText } from '../../parts/dates.ts';
import { kicksText } from '../../parts/kicksText.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { sinkText, useTaste } from '../../parts/taste.tsx';
import { Proof } from './Proof.tsx';
import { TestForm } from './TestForm.tsx';
import { Tomorrow } from './Tomorrow.tsx';

/** What each revision did in water, and what that proves. */
export function WaterTests() {
  const { id = '' } = useParams();
  const { data: master, error } = useQuery(queries.master(id));
  const tests = useQuery(queries.waterTests(id));
  const [testing, setTesting] = useState(false);
  if (isGone(error, master)) return <Missing error={error} back="All masters" backTo="/masters" />;
  if (!master || !tests.data) return <Waiting />;
  const items = [...tests.data.items].sort((a, b) => b.at.localeCompare(a.at));
  return (
    <Page
      title={`${master.name} in water`}
      tab={`${master.name} in water`}
      under="Slow, medium, fast; then fish. What was changed, and what it did."
      actions={
        <>
          <Link to={`/masters/${master.id}`} className="btn btn-line">
            The master
          </Link>
          <button type="button" className="btn btn-primary" onClick={() => setTesting(!testing)}>
            Note a test
          </button>
        </>
      }
    >
      {testing && <TestForm master={master} onDone={() => setTesting(false)} />}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_380px] gap-10">
        <section>
          <h2 className="mb-2">Revisions and what they did</h2>
          <Tree master={master} tests={items} />
        </section>
        <aside className="flex flex-col gap-5">
          <Tomorrow master={master} tests={items} />
          <Proof master={master} tests={items} />
          <Next master={master} tests={items} />
        </aside>
      </div>
    </Page>
  );
}

/** Each revision under the one it grew from. */
function Tree({ master, tests }: { master: Master; tests: WaterTest[] }) {
  const known = new Set(master.revisions.map((row) => row.id));
  const childrenOf = (parent: string | null) =>
    master.revisions
      .filter((row) => (parent === null ? row.parentId === null || !known.has(row.parentId) : row.parentId === parent))
      .sort((a, b) => a.number - b.number);
  const branch = (revision: Revision, depth: number): React.ReactNode => (
    <li key={revision.id}>
      <div className="flex gap-4 py-2.5 border-t border-[var(--rule)]" style={{ paddingLeft: depth * 28 }}>
        <span className="figure text-lg w-14 shrink-0 whitespace-nowrap">
          {depth > 0 && <span className="soft">└ </span>}v{revision.number}
        </span>
        <div className="flex-1">
          <p className="font-bold">
            {revision.reason}
            {revision.secondParentId && <span className="soft font-normal"> with a part of another</span>}
          </p>
          {tests.filter((test) => test.revisionId === revision.id).length === 0 && (
            <p className="soft text-sm">Not in water yet.</p>
          )}
          {tests
            .filter((test) => test.revisionId === revision.id)
            .map((test) => (
              <TestRow key={test.id} test={test} />
            ))}
        </div>
      </div>
      <ol>{childrenOf(revision.id).map((child) => branch(child, depth + 1))}</ol>
    </li>
  );
  return <ol>{childrenOf(null).map((revision) => branch(revision, 0))}</ol>;
}

const KICK_SIGN = { yes: '●', weak: '◐', no: '○' } as const;
const END_WORDS = { whole: 'still whole', torn: 'torn', lost: 'lost, not torn', void: 'void day' } as const;

const ageText = (hours: number) =>
  hours < 48 ? `${Math.max(0, Math.round(hours))} h` : `${Math.round(hours / 24)} days`;

function TestRow({ test }: { test: WaterTest }) {
  const taste = useTaste();
  const { text } = taste;
  const [open, setOpen] = useState(false);
  const back = useUndo();
  const bits = [
    test.pourCode && `out of ${test.pourCode}`,
    test.ageH !== null && `${ageText(test.ageH)} old`,
    test.waterC !== null && `water ${text(test.waterC, 'temperature')}`,
    test.finish,
    test.blend || (test.hardness !== null ? `Shore ${test.scale} ${test.hardness}` : ''),
    test.placeName || (test.place === 'tank' ? 'tank' : 'on the water'),
    test.runs && (test.runs === 'true' ? 'runs true' : `pulls ${test.runs}`),
    test.roll && test.roll !== 'none' && `${test.roll} roll`,
    test.sinkS !== null && test.sinkDepthMm !== null && `sinks ${sinkText(test.sinkDepthMm / test.sinkS, taste)}`,
    test.rig,
    test.fish !== null && `${test.fish} fish${test.minutes ? ` in ${test.minutes} min` : ''}`,
    test.ending && END_WORDS[test.ending],
  ].filter(Boolean);
  return (
    <div className="mt-1.5">
      <div className="flex items-baseline gap-3 flex-wrap">
        {test.speeds.length > 0 && (
          <span className="flex gap-2.5" title={kicksText(test)}>
            {PACES.map((pace) => {
              const found = test.speeds.find((one) => one.pace === pace);
              return (
                found && (
                  <span key={pace} className={found.kicks === 'no' ? 'soft' : 'rest'}>
                    <span aria-hidden>{KICK_SIGN[found.kicks]}</span>{' '}
                    <span className="text-sm">
                      {pace}
                      {found.mPerS !== null && <span className="figure"> {text(found.mPerS, 'speed')}</span>}
                      <span className="sr-only">
                        {' '}
                        {{ yes: 'kicks', weak: 'kicks weakly', no: 'does not kick' }[found.kicks]}
                      </span>
                    </span>
                  </span>
                )
              );
            })}
          </span>
        )}
        <span className="text-sm">{bits.join(' · ')}</span>
        <span className="soft text-sm">{dateText(test.at)}</span>
        <button type="button" className="link text-sm soft" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'less' : 'more'}
        </button>
      </div>
      {test.notes && <p className="text-sm italic">{test.notes}</p>}
      {open && (
        <div className="sheet p-3 mt-1 flex flex-col gap-2">
          {test.weightG !== null && <p className="text-sm">with {text(test.weightG, 'mass')} of weight</p>}
          <Photos aboutType="water_test" aboutId={test.id} />
          <button type="button" className="link text-sm self-start" onClick={() => back.mutate(test.id)}>
            Take this test back
          </button>
        </div>
      )}
    </div>
  );
}

/** What the tests so far say of the next pour. */
function Next({ master, tests }: { master: Master; tests: WaterTest[] }) {
  const kicksSlow = (row: Revision) =>
    tests.some(
      (test) => test.revisionId === row.id && test.speeds.some((one) => one.pace === 'slow' && one.kicks === 'yes'),
    );
  const runsOff = tests.find(
    (test) => test.revisionId === master.latest.id && test.runs !== null && test.runs !== 'true',
  );
  const good = master.revisions.find(kicksSlow);
  const untested = master.revisions.filter((row) => !tests.some((test) => test.revisionId === row.id));
  const sayings = [
    runsOff &&
      `v${master.latest.number} pulls ${runsOff.runs}: look whether the master is bent before anything else is changed; a bait copies every bend.`,
    good
      ? `v${good.number} kicks slow: pour that one, and change one thing at a time from it.`
      : tests.some((test) => test.speeds.length > 0) &&
        'None kicks slow yet: thinner or longer wrist first, then softer plastic.',
    untested.length > 0 &&
      tests.length > 0 &&
      `${untested.map((row) => `v${row.number}`).join(', ')} not in water yet: one pour of the plainest colour is enough.`,
    tests.length === 0 && 'Draw the newest through a tub at three speeds before the mold is multiplied.',
  ].filter(Boolean);
  return (
    <section>
      <h2 className="mb-1">What to pour next</h2>
      <ul className="flex flex-col gap-1.5">
        {sayings.map((saying) => (
          <li key={String(saying)}>{saying}</li>
        ))}
      </ul>
    </section>
  );
}
