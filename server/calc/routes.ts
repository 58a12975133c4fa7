import { toJsonSchema } from '@valibot/to-json-schema';
import { type RequestHandler, Router } from 'express';
import { calculate, calculators } from '../../core/calculators.ts';

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

const answer: RequestHandler = async (request, response) => {
  response.json(await calculate(request.params.name as string, request.body));
};

export const calcRouter = Router().get('/calc', list).post('/calc/:name', answer);
