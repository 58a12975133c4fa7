import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { PACES, type WaterTest } from '../../../contract/water.ts';
import { compare } from '../../../core/yield/counts.ts';
import { survival } from '../../../core/yield/survival.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { dateText, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Missing } from '../../shell/NotFound.tsx';
import { kicksText } from './Swim.tsx';

/** What each revision did in water, and what that proves. */
export function WaterTests() {
  const { id = '' } = useParams();
  const { data: master, error } = useQuery(queries.master(id));
  const tests = useQuery(queries.waterTests(id));
  const [testing, setTesting] = useState(false);
  if (error) return <Missing error={error} back="All masters" backTo="/masters" />;
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
      <div className="grid grid-cols-[minmax(0,1fr)_380px] gap-10">
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
  const { text } = useTaste();
  const [open, setOpen] = useState(false);
  const back = useWrite<object>(() => ({ path: `/water-tests/${test.id}/reverse` }));
  const bits = [
    test.blend || (test.hardness !== null ? `Shore ${test.scale} ${test.hardness}` : ''),
    test.placeName || (test.place === 'tank' ? 'tank' : 'on the water'),
    test.runs && (test.runs === 'true' ? 'runs true' : `pulls ${test.runs}`),
    test.roll && test.roll !== 'none' && `${test.roll} roll`,
    test.sinkS !== null && test.sinkDepthMm !== null && `sinks ${(test.sinkDepthMm / test.sinkS).toFixed(0)} mm/s`,
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
                      {found.mPerS !== null && <span className="figure"> {found.mPerS}</span>}
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
          <button type="button" className="link text-sm self-start" onClick={() => back.mutate()}>
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
      width={360}
      height={140}
      role="img"
      aria-label="Share of baits still whole against fish caught"
      className="max-w-full"
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

type Kicks = '' | 'yes' | 'weak' | 'no';
interface Speed {
  kicks: Kicks;
  mPerS: number | null;
}
const NO_SPEED: Speed = { kicks: '', mPerS: null };

function TestForm({ master, onDone }: { master: Master; onDone(): void }) {
  const { bait } = master;
  const [revisionId, setRevision] = useState(master.latest.id);
  const [place, setPlace] = useState<'tank' | 'lake'>('tank');
  const [placeName, setPlaceName] = useState('');
  const [blend, setBlend] = useState('');
  const [hardness, setHardness] = useState<number | null>(bait.wantedScale === '00' ? bait.wantedHardness : null);
  const [speeds, setSpeeds] = useState<Record<(typeof PACES)[number], Speed>>({
    slow: NO_SPEED,
    medium: NO_SPEED,
    fast: NO_SPEED,
  });
  const [roll, setRoll] = useState<'' | 'none' | 'some' | 'much'>('');
  const [runs, setRuns] = useState<'' | 'true' | 'left' | 'right'>('');
  const [sinkS, setSinkS] = useState<number | null>(null);
  const [sinkDepthMm, setDepth] = useState<number | null>(null);
  const [rig, setRig] = useState('');
  const [weightG, setWeight] = useState<number | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [fish, setFish] = useState<number | null>(null);
  const [ending, setEnding] = useState<'' | 'whole' | 'torn' | 'lost' | 'void'>('');
  const [notes, setNotes] = useState('');
  const save = useWrite<WaterTest>(
    () => ({
      path: `/masters/${master.id}/revisions/${revisionId}/water-tests`,
      body: {
        place,
        placeName,
        blend,
        ...(hardness === null ? {} : { scale: '00', hardness }),
        speeds: PACES.flatMap((pace) =>
          speeds[pace].kicks === '' ? [] : [{ pace, kicks: speeds[pace].kicks, mPerS: speeds[pace].mPerS }],
        ),
        roll: roll || null,
        runs: runs || null,
        sinkS: sinkDepthMm === null ? null : sinkS,
        sinkDepthMm: sinkS === null ? null : sinkDepthMm,
        ...(place === 'lake' ? { rig, weightG, minutes, fish, ending: ending || null } : {}),
        notes,
      },
    }),
    onDone,
  );
  return (
    <form
      className="sheet p-5 grid grid-cols-[1fr_1fr_1fr] gap-x-8 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <div className="flex flex-col gap-2">
        <SelectField
          label="Revision"
          value={revisionId}
          options={master.revisions.map((row) => ({ value: row.id, label: `v${row.number}: ${row.reason}` }))}
          onChange={setRevision}
        />
        <SelectField
          label="Where"
          value={place}
          options={[
            { value: 'tank', label: 'Tank, tub or pool' },
            { value: 'lake', label: 'On the water' },
          ]}
          onChange={setPlace}
        />
        <TextField label="The place, by your own name" value={placeName} onChange={setPlaceName} />
        <div className="grid grid-cols-2 gap-3">
          <TextField label="Blend" value={blend} onChange={setBlend} />
          <NumberField label="Shore 00" value={hardness} onChange={setHardness} min={0} />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        <span className="label-small font-semibold">Does it kick?</span>
        {PACES.map((pace) => (
          <fieldset key={pace} className="flex items-center gap-1.5" aria-label={`Kick, ${pace}`}>
            <span className="w-16 font-semibold capitalize">{pace}</span>
            {(['yes', 'weak', 'no'] as const).map((kicks) => (
              <button
                key={kicks}
                type="button"
                className={`btn btn-sm ${speeds[pace].kicks === kicks ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
                aria-pressed={speeds[pace].kicks === kicks}
                onClick={() =>
                  setSpeeds({
                    ...speeds,
                    [pace]: { ...speeds[pace], kicks: speeds[pace].kicks === kicks ? '' : kicks },
                  })
                }
              >
                {kicks}
              </button>
            ))}
            <input
              className="input input-sm figure-input w-20"
              inputMode="decimal"
              placeholder="m/s"
              aria-label={`Speed, ${pace}, m/s`}
              onChange={(event) => {
                const mPerS = Number(event.target.value.replace(',', '.'));
                setSpeeds({ ...speeds, [pace]: { ...speeds[pace], mPerS: mPerS > 0 ? mPerS : null } });
              }}
            />
          </fieldset>
        ))}
        <div className="grid grid-cols-2 gap-3 mt-2">
          <SelectField
            label="Roll"
            value={roll}
            options={[
              { value: '', label: 'not seen' },
              { value: 'none', label: 'none' },
              { value: 'some', label: 'some' },
              { value: 'much', label: 'much' },
            ]}
            onChange={setRoll}
          />
          <SelectField
            label="Runs"
            value={runs}
            options={[
              { value: '', label: 'not seen' },
              { value: 'true', label: 'true' },
              { value: 'left', label: 'to the left' },
              { value: 'right', label: 'to the right' },
            ]}
            onChange={setRuns}
          />
          <NumberField label="Sinks in, seconds" value={sinkS} onChange={setSinkS} min={0} />
          <QuantityField label="over a depth of" dimension="length" value={sinkDepthMm} onChange={setDepth} />
        </div>
      </div>
      <div className="flex flex-col gap-2">
        {place === 'lake' && (
          <>
            <TextField label="Rig" value={rig} onChange={setRig} />
            <div className="grid grid-cols-3 gap-3">
              <QuantityField label="Weight" dimension="mass" value={weightG} onChange={setWeight} />
              <NumberField label="Minutes" value={minutes} onChange={setMinutes} min={0} />
              <NumberField label="Fish" value={fish} onChange={setFish} min={0} />
            </div>
            <SelectField
              label="And the bait"
              value={ending}
              options={[
                { value: '', label: 'not noted' },
                { value: 'whole', label: 'still whole' },
                { value: 'torn', label: 'torn' },
                { value: 'lost', label: 'lost: cut short, not torn' },
                { value: 'void', label: 'void: weather' },
              ]}
              onChange={setEnding}
            />
          </>
        )}
        <TextField label="Notes" value={notes} onChange={setNotes} />
        <Refusal error={save.error} />
        <button type="submit" className="btn btn-primary self-start" disabled={save.isPending}>
          Keep this test
        </button>
      </div>
    </form>
  );
}
