import { baitCost, baitCostSchema, breakEven, breakEvenSchema } from '../plan/cost.ts';
import { packCount, packCountSchema } from '../plan/packCount.ts';
import { reorder, reorderSchema, season, seasonSchema, share, shareSchema } from '../plan/season.ts';
import { type Calculator, define } from './define.ts';

export const costCalculators: Calculator[] = [
  define(baitCostSchema, baitCost, {
    name: 'cost.bait',
    title: 'Cost of a bait or pack',
    asks: 'What does it cost, and what must it be sold for?',
    formula:
      'plastic at its lots’ prices with waste + pieces + hands ÷ (1 − rejects) × wage + mold ÷ (shots × baits a shot); price = cost ÷ (1 − margin)',
    source: 'Cost of materials, hands and tools a piece; parts by largest remainders, so that they add up',
    limits: 'Power, rent and the way to the post are not in it; put them among the pieces.',
    example: {
      plastic: [{ id: 'Soft 22', grams: 13.362, pricePerKgMinor: 1450 }],
      pieces: [{ id: 'bag', count: 1, priceMinor: 12 }],
      minutes: 1.4,
      baits: 8,
      wagePerHourMinor: 1500,
      moldPriceMinor: 8900,
      moldShots: 2500,
      baitsPerShot: 4,
      rejectFraction: 0.07,
      wasteFraction: 0.04,
    },
  }),
  define(breakEvenSchema, breakEven, {
    name: 'cost.breakEven',
    title: 'When it pays',
    asks: 'After how many baits has the start-up been earned back?',
    formula: 'start-up ÷ (bought pack ÷ usable baits in it − own cost)',
    source: 'Break-even point',
    limits: 'Your hours count only where they are in your own cost.',
    example: { startUpMinor: 24000, boughtPackMinor: 600, packCount: 10, usableCount: 7, ownMinor: 35 },
  }),
  define(reorderSchema, reorder, {
    name: 'stock.reorder',
    title: 'When to order again',
    asks: 'At which level is a material ordered, and how many packs?',
    formula: 'weekly × lead + planned + z × spread × √lead',
    source: 'Reorder point with safety stock, normal demand',
    limits: 'Next weeks are taken to be like the past ones, but for what is planned.',
    example: { weeklyG: 420, weeklySdG: 120, leadWeeks: 3, plannedG: 900, levelG: 1700, packG: 1000 },
  }),
  define(seasonSchema, season, {
    name: 'stock.season',
    title: 'Stock for a season',
    asks: 'How many of a bait and colour are worth having before the season?',
    formula: 'gain ÷ (gain + loss) quantile of what a season like the past ones sells',
    source: 'Newsvendor; Student’s t predictive quantile, of one season a Poisson count’s spread',
    limits: 'Two or three seasons tell little of their spread; it widens the answer and says so.',
    example: { sold: [120, 150, 90], gainMinor: 400, lossMinor: 100 },
  }),
  define(shareSchema, share, {
    name: 'pack.share',
    title: 'Share out what is good',
    asks: 'Too few good baits: less to each bag, or fewer full bags?',
    formula: 'good ÷ bags, or good ÷ to a bag, both down to whole baits',
    source: 'Whole numbers',
    limits: '',
    example: { bags: 9, perBag: 8, good: 63 },
  }),
  define(packCountSchema, packCount, {
    name: 'pack.count',
    title: 'Count by weight',
    asks: 'Are there as many baits in the bag as there should be, and all of them whole?',
    formula: 'grams ÷ what one weighs; off by more than three standard deviations is no chance',
    source: 'Sum of independent masses: √(n·s² + n²·u² + scale²)',
    limits:
      'Baits of one mold and colour. Where half a bait is less than three standard deviations it is said to be unsure.',
    example: { wanted: 8, grams: 107.5, eachG: 13.4, eachSdG: 0.3 },
  }),
];
