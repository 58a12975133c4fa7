import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { type Kept, keptSheet } from '../../../contract/workshop.ts';
import { call, type ErrorBody, post, refusalOf } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { Refusal } from '../../parts/Fields.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { Answer } from './Answer.tsx';
import { Form } from './Form.tsx';
import { type Tool, withDefaults } from './schema.ts';

type Values = Record<string, unknown>;

const CAUTIONS: Record<string, Parameters<typeof Caution>[0]['about']> = {
  'clay.bake': ['clay'],
  'silicone.plan': ['rubber', 'vacuum'],
  'silicone.topUp': ['rubber'],
  'batch.size': ['hot'],
  'batch.fromCup': ['hot'],
  'recipe.scale': ['powder'],
  'dip.plan': ['dip', 'hot'],
};

export function ToolPage() {
  const { name = '' } = useParams();
  const [search] = useSearchParams();
  const { data: tool, error } = useQuery({
    queryKey: ['calc', name],
    queryFn: () => call<Tool>(`/calc/${encodeURIComponent(name)}`),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const kept = useQuery({ ...queries.kept, enabled: search.has('kept') });
  if (isGone(error, tool)) return <Missing error={error} back="All quick tools" backTo="/tools" />;
  if (!tool || (search.has('kept') && !kept.data)) return <Waiting />;
  const row = kept.data?.items.find((one) => one.id === search.get('kept'));
  return (
    <Trial
      key={`${name} ${row?.id}`}
      tool={tool}
      start={row?.input ?? (withDefaults(tool.schema, tool.example.input) as Values)}
      title={row?.title}
    />
  );
}

/** The mesh comes as a file, and a map of triangles is for programs: neither is a field here. */
function withoutMesh(schema: Tool['schema']): Tool['schema'] {
  const { mesh: _, map: __, ...properties } = schema.properties ?? {};
  return { ...schema, properties };
}

async function askWithFile(name: string, input: Values, file: File): Promise<Values> {
  const { mesh: _, ...rest } = input;
  const query = new URLSearchParams({ input: JSON.stringify(rest) });
  const answer = await fetch(`/api/calc/${name}?${query}`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  });
  const body = (await answer.json()) as Values & ErrorBody;
  if (!answer.ok) throw refusalOf(answer.status, body);
  return body;
}

function Trial({ tool, start, title }: { tool: Tool; start: Values; title: string | undefined }) {
  const [input, setInput] = useState(start);
  const asked = useDeferredValue(input);
  const [file, setFile] = useState<File | null>(null);
  const answer = useQuery({
    queryKey: ['calc', tool.name, asked, file?.name, file?.lastModified],
    queryFn: () => (file ? askWithFile(tool.name, asked, file) : post<Values>(`/calc/${tool.name}`, asked)),
    retry: false,
    placeholderData: keepPreviousData,
  });
  return (
    <Page title={tool.title} tab={tool.title} under={title ? `Kept as “${title}”.` : tool.asks}>
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] gap-12">
        <div className="flex flex-col gap-5">
          {tool.takesMesh && (
            <label className="flex flex-col gap-1">
              <span className="label-small font-bold">STL or OBJ</span>
              <input
                type="file"
                accept=".stl,.obj"
                className="file-input w-full"
                onChange={(event) => setFile(event.target.files?.[0] ?? null)}
              />
              <span className="label-small">
                {file ? file.name : 'until you choose one: a small wedge as the example'}
              </span>
            </label>
          )}
          <Form schema={withoutMesh(tool.schema)} value={input} onChange={setInput} />
          {CAUTIONS[tool.name] && <Caution about={CAUTIONS[tool.name] ?? []} />}
        </div>
        <div className="flex flex-col gap-6" aria-live="polite">
          {answer.error ? (
            <Refusal error={answer.error} />
          ) : (
            answer.data && <Answer name={tool.name} input={asked} output={answer.data} />
          )}
          <KeepResult tool={tool} input={input} refused={Boolean(answer.error)} />
          <dl className="text-sm grid grid-cols-[80px_1fr] gap-x-4 gap-y-1">
            <dt className="soft">How</dt>
            <dd>{tool.formula}.</dd>
            <dt className="soft">From</dt>
            <dd>{tool.source}.</dd>
            <dt className="soft">Limits</dt>
            <dd>{tool.limits}</dd>
          </dl>
        </div>
      </div>
    </Page>
  );
}

function KeepResult({ tool, input, refused }: { tool: Tool; input: Values; refused: boolean }) {
  const navigate = useNavigate();
  const [begun] = useState({ calculator: tool.name, title: '' });
  const sheet = useSheet({ schema: keptSheet, keep: `tool/${tool.name}`, seen: begun });
  const keep = useWrite<Kept>(
    () => ({ path: '/kept', body: { ...sheet.values, input } }),
    () => {
      sheet.done();
      navigate('/tools');
    },
  );
  return (
    <Sheet
      of={sheet}
      by={{ error: keep.error, isPending: keep.isPending || refused }}
      onSend={() => keep.mutate()}
      className="flex gap-3 items-start border-t border-[var(--rule)] pt-4"
    >
      <TextIn at="title" className="w-64" />
      <div className="mt-5">
        <Send className="">Keep</Send>
      </div>
    </Sheet>
  );
}
