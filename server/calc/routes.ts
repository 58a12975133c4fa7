import { toJsonSchema } from '@valibot/to-json-schema';
import { type RequestHandler, Router } from 'express';
import { calculate, calculators, mustFindCalculator } from '../../core/calculators.ts';
import type { MeshJobs } from '../meshes/jobs.ts';

/** Names, JSON Schemas and an example with its answer for every calculator; made once, since it never changes. */
async function catalogue() {
  const rows = calculators.map(async ({ schema, run: _, example, ...about }) => ({
    ...about,
    schema: toJsonSchema(schema, { errorMode: 'ignore', typeMode: 'input' }),
    example: { input: example, output: await calculate(about.name, example) },
  }));
  return { calculators: await Promise.all(rows) };
}

let made: ReturnType<typeof catalogue> | undefined;

const list: RequestHandler = async (_request, response) => {
  made ??= catalogue();
  response.json(await made);
};

export function calcRouter(jobs: MeshJobs): Router {
  const answer: RequestHandler = async (request, response) => {
    const { name } = request.params as { name: string };
    // Mesh questions take long: they are worked out beside the server, not in it.
    const isLong = mustFindCalculator(name).takesMesh === true || name === 'bait.sculpt';
    const { job } = request.query as { job?: string };
    const output = isLong
      ? await jobs.run({ kind: 'calc', name, input: request.body }, job)
      : await calculate(name, request.body);
    response.json(output);
  };
  return Router().get('/calc', list).post('/calc/:name', answer);
}
