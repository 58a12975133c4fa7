import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { PACES, type WaterTest } from '../../../contract/water.ts';
import { compare } from '../../../core/yield/counts.ts';
import { survival } from '../../../core/yield/survival.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { dateText } from '../../parts/dates.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { kicksText } from '../../parts/kicksText.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { sinkText, useTaste } from '../../parts/taste.tsx';

import { TestForm } from './TestForm.tsx';

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
        <Proof master={master} tests={items} />
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

function TestRow({ test }: { test: WaterTest }) {
  const taste = useTaste();
  const { text } = taste;
  const [open, setOpen] = useState(false);
  const back = useUndo();
  const bits = [
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

/** Two revisions against each other: what so few trials can prove, and what to pour next. */
function Proof({ master, tests }: { master: Master; tests: WaterTest[] }) {
  const fished = tests.filter((test) => test.fish !== null && test.ending !== null && test.ending !== 'void');
  const withFish = master.revisions.filter((row) => fished.some((test) => test.revisionId === row.id));
  const [aId, setA] = useState<string>();
  const [bId, setB] = useState<string>();
  const a = withFish.find((row) => row.id === aId) ?? withFish[1];
  const b = withFish.find((row) => row.id === bId) ?? withFish[0];
  const of = (row: Revision | undefined) => fished.filter((test) => test.revisionId === row?.id);
  const lasting = (row: Revision | undefined) =>
    of(row)
      .filter((test) => test.ending === 'torn' || test.ending === 'lost' || test.ending === 'whole')
      .map((test) => ({ fish: test.fish ?? 0, torn: test.ending === 'torn', lost: test.ending !== 'torn' }));
  const [lastA, lastB] = [lasting(a), lasting(b)];
  const held = lastA.length > 0 && lastB.length > 0 ? survival({ a: lastA, b: lastB }) : null;
  const caught = (row: Revision | undefined) => ({
    made: of(row).length,
    rejected: of(row).filter((test) => (test.fish ?? 0) === 0).length,
  });
  const [cA, cB] = [caught(a), caught(b)];
  const blank = cA.made > 0 && cB.made > 0 ? compare({ a: cA, b: cB }) : null;
  const options = withFish.map((row) => ({ value: row.id, label: `v${row.number}: ${row.reason}` }));
  return (
    <aside className="flex flex-col gap-5">
      <section className="flex flex-col gap-3">
        <h2>What it proves</h2>
        {!a || !b || a === b ? (
          <p className="soft">
            Two revisions with fish on them are needed. Lost baits count as cut short, not torn; void days not at all.
          </p>
        ) : (
          <>
            <SelectField label="One" value={a.id} options={options} onChange={setA} />
            <SelectField label="Against" value={b.id} options={options} onChange={setB} />
            {held && (
              <div>
                <p className="font-bold">Lasting: {held.sentence}</p>
                <p className="label-small">
                  half are torn after {held.a.halfAtFish ?? 'more than the'} fish against{' '}
                  {held.b.halfAtFish ?? 'more than were caught'}; {lastA.length} and {lastB.length} baits
                </p>
                <Curves a={held.a.curve} b={held.b.curve} names={[`v${a.number}`, `v${b.number}`]} />
              </div>
            )}
            {blank && (
              <p>
                <span className="font-bold">Blank outings:</span> {blank.sentence}
              </p>
            )}
          </>
        )}
      </section>
      <Next master={master} tests={tests} />
    </aside>
  );
}

interface Step {
  fish: number;
  hold: number;
}

/** Share that still holds, fish by fish. */
function Curves({ a, b, names }: { a: Step[]; b: Step[]; names: [string, string] }) {
  const most = Math.max(2, ...a.map((one) => one.fish), ...b.map((one) => one.fish)) + 1;
  const x = (fish: number) => 30 + (fish / most) * 320;
  const y = (hold: number) => 12 + (1 - hold) * 96;
  const path = (steps: Step[]) => {
    let d = `M${x(0)} ${y(1)}`;
    let hold = 1;
    for (const step of steps) {
      d += ` L${x(step.fish)} ${y(hold)} L${x(step.fish)} ${y(step.hold)}`;
      hold = step.hold;
    }
    return `${d} L${x(most)} ${y(hold)}`;
  };
  return (
    <svg
      viewBox="0 0 360 140"
      role="img"
      aria-label="Share of baits still whole against fish caught"
      className="w-full max-w-[360px] h-auto"
    >
      <line x1={30} x2={350} y1={108} y2={108} stroke="var(--ink)" strokeWidth={1.5} />
      {Array.from({ length: Math.min(12, most) + 1 }, (_, i) => Math.round((i * most) / Math.min(12, most))).map(
        (fish) => (
          <g key={fish}>
            <line x1={x(fish)} x2={x(fish)} y1={108} y2={113} stroke="var(--ink)" />
            <text x={x(fish)} y={126} fontSize={10.5} textAnchor="middle" fill="var(--ink)">
              {fish}
            </text>
          </g>
        ),
      )}
      {[0.5, 1].map((hold) => (
        <text key={hold} x={24} y={y(hold) + 4} fontSize={10.5} textAnchor="end" fill="var(--soft)">
          {hold === 1 ? 'all' : '½'}
        </text>
      ))}
      <line x1={30} x2={350} y1={y(0.5)} y2={y(0.5)} stroke="var(--rule)" strokeDasharray="4 4" />
      <path d={path(a)} fill="none" stroke="var(--heat)" strokeWidth={2.5} strokeDasharray="7 4" />
      <path d={path(b)} fill="none" stroke="var(--rest)" strokeWidth={2.5} />
      <text x={340} y={24} fontSize={12} textAnchor="end" fontWeight={700}>
        <tspan fill="var(--heat)">- - {names[0]}</tspan>
        <tspan fill="var(--rest)"> — {names[1]}</tspan>
      </text>
    </svg>
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
