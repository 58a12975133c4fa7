import * as v from 'valibot';
import { CUTS } from '../core/colour/flakes.ts';
import { above0, cupC, density, hex, name, note, volumeMl } from './fields.ts';
import { DOSED } from './recipes.ts';

// Recipes as they travel from one workshop to another: an open format, told of in docs/recipes-file.md.

const band = v.pipe(v.number(), v.minValue(0), v.maxValue(1e4));
const three = v.strictTuple([band, band, band]);

const travellingItem = v.pipe(
  v.strictObject({
    material: name,
    kind: v.picklist(DOSED),
    /** Of a liquid: of the house strength, so that any bottle gives the same. */
    ml: v.optional(above0(100000)),
    /** Of what is weighed. */
    g: v.optional(above0(100000)),
    /** Of what is levelled in spoons. */
    tsp: v.optional(above0(100000)),
    hex: v.optional(hex),
    bulkGPerMl: v.optional(density),
    densityGPerMl: v.optional(density),
    sizeMm: v.optional(above0(20)),
    cut: v.optional(v.picklist(CUTS)),
    limitC: v.optional(cupC),
    turnsHex: v.optional(hex),
    /** Flake that is wanted as the heat turns it. */
    turned: v.optional(v.boolean()),
    /** As it was measured where the recipe comes from: K and S a mm at 1 mL/L. */
    optics: v.optional(v.strictObject({ k: three, s: three })),
  }),
  v.check(({ ml, g, tsp }) => [ml, g, tsp].filter((one) => one !== undefined).length === 1, 'one amount: ml, g or tsp'),
);

export const RECIPES_FILE = { format: 'blunko.recipes', version: 1 } as const;

export const recipesFile = v.strictObject({
  format: v.literal(RECIPES_FILE.format),
  version: v.literal(RECIPES_FILE.version),
  recipes: v.pipe(
    v.array(
      v.strictObject({
        name,
        hex,
        notes: note,
        basisMl: volumeMl,
        reason: v.optional(name),
        items: v.pipe(v.array(travellingItem), v.minLength(1), v.maxLength(40)),
      }),
    ),
    v.minLength(1),
    v.maxLength(2000),
  ),
});
export type RecipesFile = v.InferOutput<typeof recipesFile>;
export type Travelling = RecipesFile['recipes'][number];
