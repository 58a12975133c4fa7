import { type Production, productionSchema } from '../plan/production.ts';
import { produced } from '../plan/productionPlan.ts';
import { promised, promiseSchema } from '../plan/promise.ts';
import { sessionSchema, simulated } from '../plan/session.ts';
import { type Calculator, define } from './define.ts';

/** Without a clock nobody can search for a while: the plan by due dates is told. */
const planned = (asked: Production, nowMs?: () => number) =>
  nowMs ? produced(asked, { nowMs }) : produced({ ...asked, timeLimitMs: 0 }, { nowMs: () => 0 });

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
  define(productionSchema, (asked, beside) => planned(asked, beside?.nowMs), {
    name: 'plan.production',
    title: 'Plan the evenings',
    asks: 'Which cups on which evening, and when is each order packed?',
    formula:
      'shots as yield.shots asks for; each day keeps its hands, molds and glasses; nothing is packed before it is cured and dry; least baits late × days, then fewest colours begun, evenings and glasses',
    source:
      'Mixed-integer lot sizing with set-ups; branch and cut by HiGHS, simulated annealing; the bound and the gap are told',
    limits:
      'Hands are one sum a day; who does what is theirs. A bait is poured in its molds with most cavities. What is due after the last day is wanted on it.',
    example: {
      days: ['2026-03-02', '2026-03-03', '2026-03-04', '2026-03-05'].map((day) => ({ day, handsMin: 180 })),
      lines: [
        { id: 'club', baitId: 'sandlance', colourId: 'sea pink', baits: 80, due: '2026-03-05' },
        { id: 'school', baitId: 'sandlance', colourId: 'night ferry', baits: 40, due: '2026-03-04' },
      ],
      baits: [{ id: 'sandlance', packS: 6 }],
      molds: [{ id: 'paddle', baitId: 'sandlance', cavities: 4, handsS: 130, waitS: 120, shotMl: 60 }],
      colours: [
        { id: 'sea pink', lightness: 0.7 },
        { id: 'night ferry', lightness: 0.1 },
      ],
      glassMl: 400,
      residueMl: 15,
      timeLimitMs: 200,
    },
  }),
  define(promiseSchema, promised, {
    name: 'plan.promise',
    title: 'Promise a date',
    asks: 'Which date is kept nine times in ten, and what would bring it forward?',
    formula:
      'the days ahead run many times: evenings are lost, molds break, rejects fall as the record leaves them likely; the day by which so many runs have packed it',
    source:
      'Monte Carlo over Bernoulli evenings, beta–binomial rejects and geometric breakage; earliest due date first',
    limits: 'What was promised before is kept first. How often evenings are lost and molds break are starting guesses.',
    example: {
      plan: {
        days: ['2026-03-02', '2026-03-03', '2026-03-04', '2026-03-05', '2026-03-06'].map((day) => ({
          day,
          handsMin: 180,
        })),
        lines: [{ id: 'new', baitId: 'sandlance', colourId: 'sea pink', baits: 160, perPack: 8, due: '2026-03-06' }],
        baits: [{ id: 'sandlance', packS: 6 }],
        molds: [{ id: 'paddle', baitId: 'sandlance', cavities: 4, handsS: 130, waitS: 120, shotMl: 60 }],
        colours: [{ id: 'sea pink', lightness: 0.7 }],
        glassMl: 400,
        residueMl: 15,
      },
      lineIds: ['new'],
      runs: 60,
    },
  }),
];
