import { toJsonSchema } from '@valibot/to-json-schema';
import { type RequestHandler, Router } from 'express';
import { calculators, mustFindCalculator } from '../../core/calculators.ts';
import { withTitles } from '../../core/fields.ts';
import type { Calculator } from '../../core/registry/define.ts';
import { type Jobs, leaving } from '../jobs/jobs.ts';

/** What a calculator takes, as JSON Schema, and an example of it. */
const described = ({ schema, run: _, example, ...about }: Calculator) => ({
  ...about,
  schema: withTitles(toJsonSchema(schema, { errorMode: 'ignore', typeMode: 'input' })),
  example: { input: example },
});

/** Every calculator, its example answered; made once, since it never changes. */
async function catalogue(jobs: Jobs) {
  const rows = calculators.map(async (calculator) => {
    const { name, example } = calculator;
    return { ...described(calculator), example: { input: example, output: await jobs.calculate(name, example) } };
  });
  return { calculators: await Promise.all(rows) };
}

export function calcRouter(jobs: Jobs): Router {
  let made: ReturnType<typeof catalogue> | undefined;
  const list: RequestHandler = async (request, response) => {
    // Without their answers the examples are there at once: solids among them take seconds.
    if (request.query.answers === 'none') {
      response.json({ calculators: calculators.map(described) });
      return;
    }
    made ??= catalogue(jobs);
    // One that failed is not kept: the next who asks gets another.
    made.catch(() => {
      made = undefined;
    });
    response.json(await made);
  };
  const one: RequestHandler = (request, response) => {
    response.json(described(mustFindCalculator(String(request.params.name))));
  };
  const answer: RequestHandler = async (request, response) => {
    const { name } = request.params as { name: string };
    // Beside the server, not in it: what a request asks for may take any time.
    const { job } = request.query as { job?: string };
    const output = await jobs.calculate(name, request.body, { name: job, signal: leaving(response) });
    response.json(output);
  };
  return Router().get('/calc', list).get('/calc/:name', one).post('/calc/:name', answer);
}
