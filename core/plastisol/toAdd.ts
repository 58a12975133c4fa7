import * as v from 'valibot';
import { positive, whole } from '../bounds.ts';
import { hexText, reflected } from '../colour/fields.ts';
import { deltaE, labOf } from '../colour/lab.ts';
import { layerOver, linearOf, meltOf, mixedOptics, type Optics, type Rgb } from '../colour/light.ts';
import { colourantsHere, match } from '../colour/match.ts';
import { PLAIN_PLASTIC } from '../colour/nominal.ts';
import { usual } from '../defaults.ts';
import { type Between, spread } from './between.ts';

/** Nobody wishes for more salt than this, of the cup's mass. */
export const MOST_SALT_WISHED = 0.4;

export const addWishSchema = v.strictObject({
  target: v.union([v.strictObject({ hex: hexText }), v.strictObject({ linear: reflected })]),
  thicknessMm: v.optional(positive(1e3), usual('matchedAtMm')),
  /** Of the cup’s plastic, how much is this scrap; the rest is fresh. */
  scrapShare: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(1)), 1),
  saltFraction: v.optional(v.pipe(v.number(), v.minValue(0), v.maxValue(MOST_SALT_WISHED))),
  colourants: colourantsHere,
  batchMl: positive(1e6),
  seed: v.optional(whole(0, 4294967295), 1),
});
export type AddWish = v.InferOutput<typeof addWishSchema>;

export interface Added {
  /** mL of each in a litre, and whole drops for the batch; between which the mL lie as far as the scrap’s colour is sure. */
  items: { id: string; mlPerL: Between; drops: number }[];
  /** How far off it comes then, and how far that may be off itself. */
  deltaE00: Between;
  /** Of salt, grams into 100 g of the cup before it, where some was wished for. */
  saltGPer100G?: Between;
}

const WHITE: Rgb = [1, 1, 1];

/**
 * What turns a scrap into a wished-for colour: drops of what is in store, each between how little and how much it may need, since
 * the scrap’s own colour is only so sure.
 * @param seen the scrap, and as it would be with each of its readings a little off.
 * Source: `colour.match` with the scrap as its base; each error carried on through it.
 */
export function whatToAdd(wish: AddWish, seen: { optics: Optics; off: Optics[] }, salt: Between): Added {
  const ask = (scrap: Optics, colourants: AddWish['colourants'], wholeDrops: boolean) =>
    match({
      target: wish.target,
      thicknessMm: wish.thicknessMm,
      background: WHITE,
      base: mixedOptics(scrap, PLAIN_PLASTIC, wish.scrapShare),
      fixed: [],
      colourants,
      batchMl: wish.batchMl,
      wholeDrops,
      maxColourants: Math.min(4, colourants.length),
      timeLimitMs: 1000,
      seed: wish.seed,
    });
  const inDrops = ask(seen.optics, wish.colourants, true);
  const found = new Map(inDrops.items.map((item) => [item.id, item]));
  const used = wish.colourants.filter(({ id }) => found.has(id));
  const dosesOf = (scrap: Optics) => new Map(ask(scrap, used, false).items.map(({ id, mlPerL }) => [id, mlPerL]));
  const exact = used.length > 0 ? dosesOf(seen.optics) : new Map<string, number>();
  const moved = used.length > 0 ? seen.off.map(dosesOf) : [];
  const items = used.map(({ id }) => ({
    id,
    mlPerL: spread(
      exact.get(id) ?? 0,
      moved.map((doses) => doses.get(id) ?? 0),
    ),
    drops: found.get(id)?.drops as number,
  }));
  const wanted = labOf('hex' in wish.target ? linearOf(wish.target.hex) : wish.target.linear);
  const dosed = used.map(({ id, k, s }) => ({ k, s, mlPerL: found.get(id)?.mlPerL as number }));
  /** The same drops, if the scrap is not quite what it was read as. */
  const offOf = (scrap: Optics) =>
    deltaE(
      labOf(layerOver(meltOf(mixedOptics(scrap, PLAIN_PLASTIC, wish.scrapShare), dosed), wish.thicknessMm, WHITE)),
      wanted,
    );
  const { saltFraction, scrapShare } = wish;
  const toSalt = (there: number) =>
    Math.max(0, (100 * (saltFraction as number) - 100 * there * scrapShare) / (1 - (saltFraction as number)));
  return {
    items,
    deltaE00: spread(inDrops.deltaE00, seen.off.map(offOf)),
    ...(saltFraction === undefined
      ? {}
      : { saltGPer100G: { value: toSalt(salt.value), low: toSalt(salt.high), high: toSalt(salt.low) } }),
  };
}
