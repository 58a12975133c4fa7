import { queryOptions, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Page, Waiting } from '../../parts/Page.tsx';
import { HEADLINE, Headline } from './Headline.tsx';
import { KeptResults } from './KeptResults.tsx';
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

const GROUPS: [title: string, names: string[]][] = [
  [
    'Mesh',
    [
      'mesh.measure',
      'mesh.level',
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
  ['Hardness', ['hardness.blend', 'hardness.fit', 'hardness.modulus', 'remelt.mix']],
  ['Counting', ['yield.shots', 'yield.balance', 'yield.chart', 'yield.compare', 'yield.survival']],
  ['Measures', ['units.convert']],
];

/** A question each, with the answer to its example; nothing here makes a record unless it is kept. */
export function Tools() {
  const { data } = useQuery(names);
  const examples = useQuery(answered).data?.calculators;
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
                          example: {outputs.has(name) ? <Headline name={name} output={outputs.get(name) ?? {}} /> : '…'}
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
      <KeptResults titleOf={(name) => tools.get(name)?.title ?? ''} />
    </Page>
  );
}
