import { toJsonSchema } from '@valibot/to-json-schema';
import { type RequestHandler, Router } from 'express';
import { calculators } from '../../core/calculators.ts';
import { withTitles } from '../../core/fields.ts';
import { type Jobs, leaving } from '../jobs/jobs.ts';

/** Names, JSON Schemas and an example with its answer for every calculator; made once, since it never changes. */
async function catalogue(jobs: Jobs) {
  const rows = calculators.map(async ({ schema, run: _, example, ...about }) => ({
    ...about,
    schema: withTitles(toJsonSchema(schema, { errorMode: 'ignore', typeMode: 'input' })),
    example: { input: example, output: await jobs.calculate(about.name, example) },
  }));
  return { calculators: await Promise.all(rows) };
}

export function calcRouter(jobs: Jobs): Router {
  let made: ReturnType<typeof catalogue> | undefined;
  const list: RequestHandler = async (_request, response) => {
    made ??= catalogue(jobs);
    // One that failed is not kept: the next who asks gets another.
    made.catch(() => {
      made = undefined;
    });
    response.json(await made);
  };
  const answer: RequestHandler = async (request, response) => {
    const { name } = request.params as { name: string };
    // Beside the server, not in it: what a request asks for may take any time.
    const { job } = request.query as { job?: string };
    const output = await jobs.calculate(name, request.body, { name: job, signal: leaving(response) });
    response.json(output);
  };
  return Router().get('/calc', list).post('/calc/:name', answer);
}
