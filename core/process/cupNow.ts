import type { CupWindow, Fill, HeatLimit, MoldKind } from '../heat/window.ts';
import { goes, type Join, PLACES, type Place } from '../plan/layers.ts';
import type { Grade } from '../yield/grades.ts';
import type { Ticked } from './evidence.ts';
import type { Degassing } from './ways.ts';

/** How bubbles are got out, where they are. */
export type Foaming = Exclude<Degassing, 'none'>;

export interface NextMold {
  moldId: string;
  name: string;
  kind: MoldKind;
  fill: Fill;
  cavities: number;
  /** How many are to be drawn into it. */
  shots: number;
  /** When what is in it may be looked at, UTC ISO text; null: now. */
  opensAt: string | null;
  rods?: boolean;
}

export interface NextShot {
  id: string;
  moldId: string;
  marks: { grade: Grade | 'unmarked' }[];
  /** How many of the goes are in it; not said: all of it. */
  gone?: number;
  /** When the last of it went in. */
  at?: string;
}

/** What sinks first in a cup, and when it is to be stirred again. */
export interface Sinking {
  name: string;
  dueAt: string | null;
}

/** One of several cups that the same shots are drawn from. */
export interface SetCup {
  id: string;
  /** As it is called at the bench: its melt. */
  name: string;
  heats: { c: number; at: string; kind?: string }[];
  doses: unknown[];
  recipeItems: unknown[];
  limits: HeatLimit[];
  stir?: Sinking | null;
  foams?: Foaming | undefined;
  /** A shot was drawn from it already; not said: any shot there is. */
  drawnOf?: boolean;
}

/** What goes into a mold at once: a layer, or those that are injected together. */
export interface Go {
  /** "belly", "belly and back". */
  what: string;
  joins: Join | null;
  /** Cups that it is drawn from. */
  cups: string[];
}

/** A cup as it stands this moment. */
export interface CupNow<M extends NextMold = NextMold, S extends NextShot = NextShot> {
  molds: M[];
  shots: S[];
  heats: { c: number; at: string; kind?: string }[];
  /** How many doses are in it, and how many its recipe asks for. */
  doses: unknown[];
  recipeItems: unknown[];
  /** What flake and powder in it bear. */
  limits: HeatLimit[];
  stir?: Sinking | null;
  /** Bubbles are to be got out of it, in this way; they came with what was stirred in. */
  foams?: Foaming | undefined;
  drawnOf?: boolean;
  /** What was said by taps. */
  ticks?: Ticked[];
  nowMs: number;
  /** Where its baits are of several melts: all cups, this one among them, and what goes in after what. */
  set?: { cups: SetCup[]; goes: Go[] } | undefined;
}

export type Next<M extends NextMold = NextMold, S extends NextShot = NextShot> =
  | { do: 'heat'; say: string; why: string; kind: 'cook' | 'reheat' | 'reading'; window: CupWindow; cup?: string }
  | { do: 'dose'; say: string; why: string; cup?: string }
  | { do: 'degas'; say: string; why: string; how: Foaming; cup?: string }
  | { do: 'hold' | 'top'; say: string; why: string; shot: S; mold: M; nth: number; leftS: number }
  | { do: 'look'; say: string; why: string; shot: S; mold: M }
  | { do: 'shot'; say: string; why: string; mold: M; window: CupWindow; go: number; into?: S; layered: boolean }
  | { do: 'wait'; say: string; why: string }
  | { do: 'close'; say: string; why: string };

export const shotsOf = <S extends NextShot>({ shots }: { shots: S[] }, moldId: string) =>
  shots.filter((shot) => shot.moldId === moldId);

/** Baits of a shot that nobody has looked at yet. */
export const unmarkedIn = (shot: NextShot, mold: Pick<NextMold, 'cavities'>) =>
  mold.cavities - shot.marks.filter((mark) => mark.grade !== 'unmarked').length;

/** Layers by how they go in, each with the cups that it is drawn from; nothing where one cup and one go are all of it. */
export function setOfCups<C extends SetCup>(
  layers: { place: Place; joins: Join | null }[],
  cups: (C & { layers: number[] })[],
): { cups: C[]; goes: Go[] } | undefined {
  if (layers.length < 2 && cups.length < 2) return undefined;
  return {
    cups,
    goes: goes(layers).map((together) => ({
      what: together.map((layer) => PLACES[layers[layer]?.place ?? 'whole']).join(' and '),
      joins: layers[together[0] as number]?.joins ?? null,
      cups: cups.filter((cup) => cup.layers.some((layer) => together.includes(layer))).map((cup) => cup.id),
    })),
  };
}

/** How many of the goes of a bait are in a shot, by the layers that are. */
export function goneIn(layers: { joins: Join | null }[], parts: { layer: number }[]): number {
  const there = new Set(parts.map((part) => part.layer));
  const missing = goes(layers).findIndex((together) => !together.every((layer) => there.has(layer)));
  return missing < 0 ? goes(layers).length : missing;
}
