import { sessionSchema, simulated } from '../plan/session.ts';
import { type Calculator, define } from './define.ts';

const go = (cupId: string) => ({ cupIds: [cupId], fillS: 70, drawS: 15, lowC: 158, highC: 180 });

export const planCalculators: Calculator[] = [
  define(sessionSchema, simulated, {
    name: 'session.simulate',
    title: 'Run an evening',
    asks: 'When does the evening end, where does it wait, and what would shorten it?',
    formula:
      'one pair of hands, one oven, vacuum, injectors and molds; each piece of work as early as its order allows; no draw outside its window; the shortest of the orders that are tried',
    source:
      'Branch and bound over the orders of the hands’ work; waits of the molds as in heat.train; cups cool by Newton',
    limits:
      'One person. Small evenings are solved exactly; of large ones the best of those that were tried, and it says so.',
    example: {
      cups: [
        { id: 'sea pink', bursts: [90, 60, 30], reheatS: 40, lightness: 0.7 },
        { id: 'night ferry', bursts: [90, 60, 30], reheatS: 40, lightness: 0.1 },
      ],
      molds: [
        { id: 'paddle', demoldS: [100, 120, 130] },
        { id: 'worm', demoldS: [300] },
      ],
      shots: [
        { moldId: 'paddle', count: 3, goes: [go('sea pink')] },
        { moldId: 'worm', count: 2, goes: [go('night ferry')] },
      ],
    },
  }),
];
