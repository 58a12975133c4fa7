import { calculators } from '../core/calculators.ts';
import { endpoints } from '../server/endpoints.ts';
import { type Part, rounds } from './counts.ts';
import { dice, withShop } from './shop.ts';

const VALUES: unknown[] = [
  null,
  [],
  {},
  '',
  'x',
  '<script>alert(1)</script>',
  "'; DROP TABLE pour; --",
  '🐟'.repeat(50),
  'x'.repeat(3000),
  0,
  -1,
  0.5,
  1e308,
  5e-324,
  true,
  [[[[]]]],
  '\u0000',
  '2026-13-45',
];
const KEYS = [
  'id',
  'name',
  'kind',
  'molds',
  'lines',
  'amount',
  'c',
  'input',
  'calculator',
  'spec',
  'marks',
  '__proto__',
  'tappedAt',
  'planInput',
];
const IDS = ['01a2104b-d28c-7190-9cb6-63408534159c', 'x', '..%2f..%2fetc', '%00', 'constructor'];

/** Requests of every address with bodies of any kind: none may break the server, and what is refused may write nothing. */
export const fuzz: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const { below, pick } = dice(20260417);
    const value = (depth: number): unknown =>
      depth > 0 && below(3) === 0
        ? below(2) === 0
          ? Array.from({ length: below(4) }, () => value(depth - 1))
          : Object.fromEntries(Array.from({ length: below(6) }, () => [pick(KEYS), value(depth - 1)]))
        : pick(VALUES);
    const counts = { requests: 0, refused: 0, broken: 0, rows: 0 };
    counts.requests = await rounds(most, until, async () => {
      const calc = below(4) === 0;
      const one = pick(endpoints);
      const path = calc ? `/calc/${pick(calculators).name}` : one.path.replace(/:\w+/g, () => pick(IDS));
      const method = calc ? 'POST' : one.method;
      const before = shop.rows();
      const body = method === 'GET' ? undefined : JSON.stringify(value(3));
      const answer = await fetch(`${shop.url}/api${path}${method === 'GET' && below(2) ? '?limit=-1&q=%25' : ''}`, {
        method,
        headers: { 'content-type': 'application/json', 'if-match': '1' },
        body: body ?? null,
        signal: AbortSignal.timeout(60_000),
      });
      await answer.arrayBuffer();
      if (answer.status >= 500 && answer.status !== 503) counts.broken += 1;
      if (answer.status < 400) return;
      counts.refused += 1;
      if (shop.rows() !== before) counts.rows += 1;
    });
    return counts;
  });
