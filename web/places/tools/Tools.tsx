import { queryOptions, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { dateText } from '../../parts/dates.ts';
import { Page, Waiting } from '../../parts/Page.tsx';
import { ThrowOut } from '../../parts/PutAway.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { shown } from './Answer.tsx';
import type { AnsweredTool, Tool } from './schema.ts';

const names = queryOptions({
  queryKey: ['calc', 'names'],
  queryFn: () => call<{ calculators: Tool[] }>('/calc?answers=none'),
  staleTime: Number.POSITIVE_INFINITY,
});
/** The same with each example answered: solids among them take seconds. */
const answered = queryOptions({
  queryKey: ['calc', 'answered'],
  queryFn: () => call<{ calculators: AnsweredTool[] }>('/calc'),
  staleTime: Number.POSITIVE_INFINITY,
});

/** The figure of an answer that a maker asks for first. */
const HEADLINE: Record<string, string> = {
  'units.convert': 'value',
  'clay.bake': 'minutes',
  'silicone.plan': 'totalMixMl',
  'silicone.topUp': 'mixMl',
  'batch.size': 'cookMl',
  'batch.fromCup': 'shots',
  'hardness.modulus': 'mpa',
  'hardness.blend': 'hardness',
  'yield.shots': 'shots',
  'yield.balance': 'yieldFraction',
  'yield.chart': 'pBar',
  'yield.compare': 'p',
  'dip.plan': 'dips',
  'mesh.measure': 'volumeMl',
  'mesh.thickness': 'thickestMm',
  'mesh.toolReach': 'greatestMm',
  'bait.kick': 'onsetMPerS',
  'bait.sink': 'mmPerS',
  'bait.salt': 'gramsPerCup',
  'bait.hook': 'pointOverBackMm',
  'mold.cavities': 'enoughCavities',
  'yield.survival': 'p',
  'heat.demold': 'seconds',
  'heat.window': 'highC',
};

/** What a bare number of an answer counts. */
const COUNTED: Record<string, string> = {
  shots: 'shots',
  dips: 'dips',
  mpa: 'MPa',
  hardness: 'Shore',
  p: 'chance of mere luck',
  onsetMPerS: 'm/s',
  mmPerS: 'mm/s',
  gramsPerCup: 'g to a cup',
  enoughCavities: 'cavities',
};

export function Headline({ name, output }: { name: string; output: Record<string, unknown> }) {
  const taste = useTaste();
  const key = HEADLINE[name];
  if (!key || output[key] === undefined) return null;
  return (
    <b className="figure text-[var(--rest)]">
      {shown(key, output[key], taste)} {COUNTED[key] ?? ''}
    </b>
  );
}

const GROUPS: [title: string, names: string[]][] = [
  [
    'Mesh',
    [
      'mesh.measure',
      'mesh.repair',
      'mesh.thickness',
      'mesh.parting',
      'mesh.airTraps',
      'mesh.bestTilt',
      'mesh.toolReach',
    ],
  ],
  ['Water', ['bait.kick', 'bait.sink', 'bait.salt', 'bait.trim', 'bait.hook', 'bait.fitKick']],
  ['Mold', ['clay.bake', 'silicone.plan', 'silicone.topUp', 'mold.build', 'mold.cavities', 'mold.weighed']],
  ['Cup', ['batch.size', 'batch.fromCup', 'recipe.scale', 'dip.plan', 'dip.fit']],
  ['Heat', ['heat.demold', 'heat.train', 'heat.opening', 'heat.window']],
  ['Hardness', ['hardness.blend', 'hardness.modulus']],
  ['Counting', ['yield.shots', 'yield.balance', 'yield.chart', 'yield.compare', 'yield.survival']],
  ['Measures', ['units.convert']],
];

/** A question each, with the answer to its example; nothing here makes a record unless it is kept. */
export function Tools() {
  const { data } = useQuery(names);
  const examples = useQuery(answered).data?.calculators;
  const kept = useQuery(queries.kept);
  if (!data) return <Waiting />;
  const tools = new Map(data.calculators.map((tool) => [tool.name, tool]));
  const outputs = new Map(examples?.map(({ name, example }) => [name, example.output]));
  return (
    <Page
      title="Quick tools"
      tab="Quick tools"
      under="An answer without a record. Each opens with an example; change it to yours, and keep the result if it is worth it."
    >
      <div className="flex flex-col gap-7">
        {GROUPS.map(([title, group]) => (
          <section
            key={title}
            className="grid grid-cols-1 sm:grid-cols-[130px_1fr] gap-6 border-t-[3px] border-[var(--ink)] pt-3"
          >
            <h2 className="text-2xl">{title}</h2>
            <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,300px),1fr))] gap-x-8 gap-y-4">
              {group.map((name) => {
                const tool = tools.get(name);
                if (!tool) return null;
                return (
                  <li key={name}>
                    <Link to={`/tools/${name}`} className="block row-hover rounded -m-1.5 p-1.5">
                      <span className="font-bold text-lg leading-tight block">{tool.title}</span>
                      <span className="soft block leading-snug">{tool.asks}</span>
                      {HEADLINE[name] && (
                        <span className="label-small">
                          example: <Headline name={name} output={outputs.get(name) ?? {}} />
                        </span>
                      )}
                    </Link>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
      </div>
      {(kept.data?.items.length ?? 0) > 0 && (
        <section>
          <h2 className="mb-2">Kept</h2>
          <ul className="ruled">
            {kept.data?.items.map((row) => (
              <li key={row.id} className="flex gap-4 items-baseline flex-wrap">
                <Link to={`/tools/${row.calculator}?kept=${row.id}`} className="flex gap-4 py-2 row-hover flex-1">
                  <span className="font-bold flex-1">{row.title}</span>
                  <span>{tools.get(row.calculator)?.title}</span>
                  <span className="w-52 text-right">
                    <Headline name={row.calculator} output={row.output} />
                  </span>
                  <span className="soft w-28 text-right">{dateText(row.createdAt)}</span>
                </Link>
                <ThrowOut kind="kept" id={row.id} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}
