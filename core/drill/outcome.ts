import { usual } from '../defaults.ts';
import type { Said } from '../failure.ts';
import { evenly } from '../instruments/standIn.ts';
import type { Ticked } from '../process/evidence.ts';
import type { Way } from '../process/ways.ts';
import { celsius, say } from '../units/say.ts';
import type { Reason } from '../yield/grades.ts';

/** One shot as it was really drawn, and what was done with it. °C, s. */
export interface DrawnShot {
  /** Its place among all shots of the evening, from 0: the same luck for the same place. */
  index: number;
  cavities: number;
  way: Way;
  roomC: number;
  lowC: number;
  highC: number;
  /** Of the cup in truth when each layer was drawn. */
  drawnC: number[];
  /** The hottest that the cup was while flake was in it, and what that bears; null: none that is tender. */
  flake: { hottestC: number; bearsC: number } | null;
  /** Since the cup was stirred, against how long a stir lasts; null: nothing sinks in it. */
  stir: { sinceS: number; lastsS: number } | null;
  /** The hottest that the plastic ever was. */
  hottestC: number;
  /** Gelled all through once. */
  cooked: boolean;
  /** Before it was opened, and how long it should have waited. */
  waitedS: number;
  waitS: number;
  /** Between two layers. */
  betweenS: number[];
  said: Partial<Record<Ticked['what'], string>>;
}

/** A choice at the bench that can cost baits, in the order in which it is made. */
export interface Choice {
  id: string;
  /** What was done, with its figures. */
  say: Said;
  reason: Reason;
  /** Of the baits that it can spoil, it spoils so many. */
  chance: number;
  /** Baits that it spoils more of the first ones, as a bubble does at the top. */
  seed: number;
}

/** Under this a room chills molds and cups: moving outdoors for the air does it. A guess of the trainer's. */
export const COLD_ROOM_C = 12;

const clamp = (value: number) => Math.min(0.97, Math.max(0, value));

/**
 * What a shot's choices can spoil. Chances are of a fault model made for training: the sizes are guesses, what leads to what is
 * workshop practice.
 */
export function choicesOf(shot: DrawnShot): Choice[] {
  const { said, way, lowC, highC, drawnC, roomC } = shot;
  const found: Omit<Choice, 'seed'>[] = [];
  const add = (id: string, reason: Reason, chance: number, words: Said) => {
    if (chance > 0.001) found.push({ id, say: words, reason, chance: clamp(chance) });
  };
  const coldest = Math.min(...drawnC);
  const hottest = Math.max(...drawnC);
  const closed = way.before.includes('clamps');
  if (!shot.cooked) add('uncooked', 'sticky', 0.95, say`The cup was never cooked through: it stays sticky.`);
  if (shot.hottestC > usual('scorchC'))
    add(
      'scorched',
      'yellow',
      0.97,
      say`The cup reached ${celsius(shot.hottestC)}: above ${celsius(usual('scorchC'))} it scorches.`,
    );
  if (coldest < lowC)
    add(
      'too-cold',
      'short',
      (lowC - coldest) / 14,
      say`Drawn at ${celsius(coldest)}, under ${celsius(lowC)}: it fills short.`,
    );
  if (hottest > highC)
    add(
      'too-hot',
      closed ? 'flash' : 'hollow',
      (hottest - highC) / 20,
      say`Drawn at ${celsius(hottest)}, over ${celsius(highC)}.`,
    );
  if (shot.flake && shot.flake.hottestC > shot.flake.bearsC)
    add(
      'flake-turned',
      'flake-turned',
      (shot.flake.hottestC - shot.flake.bearsC) / 5,
      say`Flake that bears ${celsius(shot.flake.bearsC)} was at ${celsius(shot.flake.hottestC)}: it turned.`,
    );
  if (shot.stir && shot.stir.sinceS > shot.stir.lastsS)
    add(
      'not-stirred',
      'flake-sank',
      (shot.stir.sinceS - shot.stir.lastsS) / shot.stir.lastsS / 2,
      say`Drawn ${Math.round(shot.stir.sinceS)} s after the last stir; it lasts ${Math.round(shot.stir.lastsS)} s.`,
    );
  if (closed && said.clamps !== 'opposite')
    add(
      'clamps',
      'flash',
      said.clamps === 'same-side' ? 0.35 : 0.6,
      say`Not clamped corner to opposite corner: it gapes.`,
    );
  if (way.before.includes('injector') && said.injector !== 'warm')
    add('cold-injector', 'short', 0.25, say`The injector was not warm: it clogs.`);
  if (way.before.includes('mold') && roomC < COLD_ROOM_C && said.mold !== 'preheated')
    add(
      'cold-mold',
      'dent',
      (COLD_ROOM_C - roomC) / 14,
      say`The mold stood at ${celsius(roomC)} and was not preheated: it dents.`,
    );
  if (way.before.includes('level') && said.level !== 'level')
    add('not-level', 'short', 0.3, say`The mold was not seen to stand level: one end stays thin.`);
  if (way.before.includes('rods') && said.rods !== 'oiled')
    add('rods', 'tear', 0.4, say`The rods were not oiled: it tears.`);
  if (way.holdS > 0 && said.held !== 'yes') add('held', 'short', 0.2, say`The pressure was let go before it stopped.`);
  if (way.topUpS > 0 && said.topped !== 'yes') add('topped', 'hollow', 0.45, say`It was not topped up while it sank.`);
  if (shot.waitedS < shot.waitS * 0.9)
    add(
      'too-early',
      'bent',
      (1 - shot.waitedS / shot.waitS) * 1.2,
      say`Opened after ${Math.round(shot.waitedS)} s; it should have waited ${Math.round(shot.waitS)} s.`,
    );
  if (drawnC.length > 1) {
    if (said.surface !== 'melted')
      add('not-melted', 'peel', 0.8, say`The layer before was not melted again at its surface: they peel.`);
    if (shot.betweenS.some((s) => s < shot.waitS * 0.6))
      add('poured-into-hot', 'bleed', 0.7, say`The next layer went onto one that was not firm: they bleed.`);
  }
  if (said.lie !== 'flat' && said.lie !== 'hung')
    add(
      'lie',
      'bent',
      said.lie === 'heaped' ? 0.7 : 0.3,
      say`The baits were not laid flat and straight: they set as they lie.`,
    );
  return found.map((one) => ({ ...one, seed: hash(one.id) }));
}

const hash = (text: string) => [...text].reduce((sum, letter) => (Math.imul(sum, 31) + letter.charCodeAt(0)) | 0, 7);

/** The luck of one bait against one choice, 0 to 1; the same at every repetition. */
const luck = (seed: number, choice: number, shot: number, cavity: number): number =>
  evenly(seed ^ choice, 1000 * (shot * 64 + cavity + 1));

export interface Bait {
  cavity: number;
  /** What is wrong with it; null: nothing. */
  reason: Reason | null;
  /** The choice that spoiled it first. */
  choice: string | null;
}

/** The baits that come out of a shot: each is spoiled by the first of the choices that its luck does not carry it over. */
export function baitsOf(shot: DrawnShot, seed: number, choices = choicesOf(shot)): Bait[] {
  return Array.from({ length: shot.cavities }, (_, i): Bait => {
    const hit = choices.find((one) => luck(seed, one.seed, shot.index, i) < one.chance);
    return { cavity: i + 1, reason: hit?.reason ?? null, choice: hit?.id ?? null };
  });
}

export interface Cost {
  id: string;
  /** As it was done, of the shot where it cost most. */
  say: Said;
  reason: Reason;
  /** Shots in which it was done. */
  shots: number;
  /** Baits that it spoiled first: all of them together are what was lost. */
  spoiled: number;
  /** Baits that would have been good had only this been done right. */
  baits: number;
}

export interface Debrief {
  made: number;
  good: number;
  /** The choices, what cost most first; those that luck forgave last. */
  costs: Cost[];
}

/** What an evening of training came to, and which choice cost what: each is put right alone, with the same luck. */
export function debrief(shots: DrawnShot[], seed: number): Debrief {
  const good = (without?: string) =>
    shots.reduce(
      (sum, shot) =>
        sum +
        baitsOf(
          shot,
          seed,
          choicesOf(shot).filter(({ id }) => id !== without),
        ).filter(({ reason }) => reason === null).length,
      0,
    );
  const now = good();
  const done = new Map<string, { choice: Choice; shots: number }>();
  for (const shot of shots)
    for (const choice of choicesOf(shot)) {
      const known = done.get(choice.id);
      const worst = !known || choice.chance > known.choice.chance ? choice : known.choice;
      done.set(choice.id, { choice: worst, shots: (known?.shots ?? 0) + 1 });
    }
  const costs = [...done.values()].map(({ choice: { id, say, reason }, shots: n }) => ({
    id,
    say,
    reason,
    shots: n,
    spoiled: shots.reduce((sum, shot) => sum + baitsOf(shot, seed).filter(({ choice }) => choice === id).length, 0),
    baits: good(id) - now,
  }));
  return {
    made: shots.reduce((sum, { cavities }) => sum + cavities, 0),
    good: now,
    costs: costs.sort((a, b) => b.spoiled - a.spoiled || b.baits - a.baits || b.shots - a.shots),
  };
}
