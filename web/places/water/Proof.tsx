import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Master } from '../../../contract/masters.ts';
import type { WaterTest } from '../../../contract/water.ts';
import { alsoDiffers, compareRates, sideOf } from '../../../core/water/compared.ts';
import { compare } from '../../../core/yield/counts.ts';
import { survival } from '../../../core/yield/survival.ts';
import { queries } from '../../api/queries.ts';
import { SelectField } from '../../parts/Fields.tsx';

const BY = ['revision', 'blend', 'finish', 'master'] as const;
type By = (typeof BY)[number];
const BY_WORDS: Record<By, string> = {
  revision: 'revisions of this bait',
  blend: 'blends',
  finish: 'finishes',
  master: 'baits',
};

/** What a test is counted under; null where that was not noted. */
const keyOf: Record<By, (test: WaterTest) => string | null> = {
  revision: (test) => test.revisionId,
  blend: (test) => test.blend || (test.hardness === null ? null : `Shore ${test.scale} ${test.hardness}`),
  finish: (test) => test.finish || null,
  master: (test) => test.masterId,
};

interface Variant {
  key: string;
  name: string;
  tests: WaterTest[];
}

function variantsOf(by: By, tests: WaterTest[], master: Master): Variant[] {
  const variants = new Map<string, WaterTest[]>();
  for (const test of tests) {
    const key = keyOf[by](test);
    if (key !== null) variants.set(key, [...(variants.get(key) ?? []), test]);
  }
  const reasonOf = (id: string) => master.revisions.find((row) => row.id === id)?.reason ?? '';
  return [...variants]
    .filter(([, mine]) => mine.some((test) => test.fish !== null))
    .map(([key, mine]) => {
      const [first] = mine as [WaterTest];
      const name =
        by === 'revision' ? `v${first.revisionNumber}: ${reasonOf(key)}` : by === 'master' ? first.masterName : key;
      return { key, name, tests: mine };
    });
}

/** Two variants against each other: what so few trials can prove, and what else may be the cause. */
export function Proof({ master, tests }: { master: Master; tests: WaterTest[] }) {
  const [by, setBy] = useState<By>('revision');
  const all = useQuery({ ...queries.allTests, enabled: by !== 'revision' }).data?.items;
  const variants = variantsOf(by, by === 'revision' ? tests : (all ?? []), master);
  const [aKey, setA] = useState<string>();
  const [bKey, setB] = useState<string>();
  const a = variants.find((one) => one.key === aKey) ?? variants[1];
  const b = variants.find((one) => one.key === bKey) ?? variants[0];
  const options = variants.map((one) => ({ value: one.key, label: one.name }));
  return (
    <section className="flex flex-col gap-3">
      <h2>What it proves</h2>
      <SelectField
        label="Between"
        value={by}
        options={BY.map((one) => ({ value: one, label: BY_WORDS[one] }))}
        onChange={setBy}
      />
      {!a || !b || a === b ? (
        <p className="soft">
          Two {BY_WORDS[by]} with fish on them are needed. Lost baits count as cut short, not torn; void days not at
          all.
        </p>
      ) : (
        <>
          <SelectField label="One" value={a.key} options={options} onChange={setA} />
          <SelectField label="Against" value={b.key} options={options} onChange={setB} />
          <Sides a={a} b={b} />
        </>
      )}
    </section>
  );
}

const lasting = ({ tests }: Variant) =>
  tests
    .filter(
      (test) => test.fish !== null && (test.ending === 'torn' || test.ending === 'lost' || test.ending === 'whole'),
    )
    .map((test) => ({ fish: test.fish ?? 0, torn: test.ending === 'torn', lost: test.ending !== 'torn' }));

const blanks = ({ tests }: Variant) => {
  const outings = tests.filter((test) => test.fish !== null && test.ending !== 'void');
  return { made: outings.length, rejected: outings.filter((test) => test.fish === 0).length };
};

function Sides({ a, b }: { a: Variant; b: Variant }) {
  const [one, two] = [sideOf(a.tests), sideOf(b.tests)];
  const [lastA, lastB] = [lasting(a), lasting(b)];
  const held = lastA.length > 0 && lastB.length > 0 ? survival({ a: lastA, b: lastB }) : null;
  const [blankA, blankB] = [blanks(a), blanks(b)];
  const blank = blankA.made > 0 && blankB.made > 0 ? compare({ a: blankA, b: blankB }) : null;
  const p = compareRates({ fish: one.timedFish, minutes: one.minutes }, { fish: two.timedFish, minutes: two.minutes });
  const differs = alsoDiffers(a.tests, b.tests);
  return (
    <>
      <p>
        <b className="figure">{one.outings}</b> against <b className="figure">{two.outings}</b> outings,{' '}
        <b className="figure">{one.minutes}</b> against <b className="figure">{two.minutes}</b> min on the water
        {one.voidDays + two.voidDays > 0 &&
          `, ${one.voidDays + two.voidDays} void ${one.voidDays + two.voidDays === 1 ? 'day' : 'days'} left out`}
        .
      </p>
      {differs.length > 0 && (
        <div className="border-l-4 border-[var(--warn)] pl-3" role="note">
          <b>The sides differ in more than that:</b>
          <ul>
            {differs.map((what) => (
              <li key={what}>{what}</li>
            ))}
          </ul>
          <p className="soft text-sm">Whatever comes out may be due to these.</p>
        </div>
      )}
      {held && (
        <div>
          <p className="font-bold">Lasting: {held.sentence}</p>
          <p className="label-small">
            half are torn after {held.a.halfAtFish ?? 'more than the'} fish against{' '}
            {held.b.halfAtFish ?? 'more than were caught'}; {lastA.length} and {lastB.length} baits
          </p>
          <Curves a={held.a.curve} b={held.b.curve} names={[a.name.slice(0, 14), b.name.slice(0, 14)]} />
        </div>
      )}
      {p !== null && (
        <p>
          <span className="font-bold">Fish an hour:</span> {((60 * one.timedFish) / one.minutes).toFixed(1)} against{' '}
          {((60 * two.timedFish) / two.minutes).toFixed(1)};{' '}
          {p < 0.05
            ? `luck alone would do this about ${Math.max(1, Math.round(p * 100))} times in 100.`
            : `no difference is shown: luck alone would do as much about ${Math.round(p * 100)} times in 100.`}
        </p>
      )}
      {blank && (
        <p>
          <span className="font-bold">Blank outings:</span> {blank.sentence}
        </p>
      )}
    </>
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
