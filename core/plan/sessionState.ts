/** One cup as it is cooked and stands; °C, s. */
export interface SessionCup {
  id: string;
  /** What the oven runs between two stirs. */
  bursts: number[];
  /** One burst when it has left its window. */
  reheatS: number;
  cookedC: number;
  /** Under vacuum after cooking; 0: none. */
  degasS: number;
  tauS: number;
  /** 0 black to 1 white: an injector goes from light to dark by a wipe. */
  lightness: number;
}

export interface SessionMold {
  id: string;
  /** To empty it, look and close it. */
  openS: number;
  /** Of each of its shots in turn, whatever cup they come from; later ones wait as long as the last. */
  demoldS: number[];
  /** A shot is in it already and may be opened in so long; left out: it stands empty. */
  fullForS?: number | undefined;
}

/** What goes into a mold at once. */
export interface SessionGo {
  cupIds: string[];
  /** From drawing it to the last top-up. */
  fillS: number;
  /** Of that, it is drawn from its cup, which has to be in the window meanwhile. */
  drawS: number;
  lowC: number;
  highC: number;
  injected: boolean;
  /** Before the next go may follow; the last waits by its mold. */
  waitS: number;
}

export interface SessionShots {
  moldId: string;
  count: number;
  goes: SessionGo[];
}

export interface Session {
  cups: SessionCup[];
  molds: SessionMold[];
  shots: SessionShots[];
  injectors: number;
  /** Cups that a hot plate keeps at their heat beside the oven. */
  plates: number;
  /** A cup that nobody else's cooking drives out stays in the oven at its lowest power. */
  keepWarm: boolean;
  inOrder: boolean;
  roomC: number;
  stirS: number;
  loadS: number;
  wipeS: number;
  cleanS: number;
}

export type Did = 'start' | 'burst' | 'stir' | 'degas' | 'reheat' | 'clean' | 'fill' | 'wait' | 'cool' | 'open';

/** One bar of a lane. */
export interface Bar {
  resource: string;
  from: number;
  to: number;
  did: Did;
  cup?: string;
  mold?: string;
}

type Stage = 'cold' | 'cooking' | 'degas' | 'ready' | 'done';

export interface CupNow {
  stage: Stage;
  /** Bursts that are still to come, that in the oven first. */
  bursts: number;
  reheating: boolean;
  heats: number;
  /** Reheats since it was last drawn from. */
  unused: number;
  /** When its burst or its vacuum is over. */
  until: number;
  /** It was at c0 at t0 and cools from there, not below heldC. */
  t0: number;
  c0: number;
  heldC: number;
}

export interface MoldNow {
  /** Rows of shots: how many of each are in. */
  shots: number;
  /** The row and the go that come next in a mold that is begun. */
  row: number;
  go: number;
  full: boolean;
  from: number;
}

/** The evening after some of the hands' work. */
export interface State {
  now: number;
  ovenFrom: number;
  /** The cup whose cooking holds the oven. */
  ovenCup: number;
  pumpFrom: number;
  /** Cups that are kept at their heat, the newest last; the oven takes the one that no plate has. */
  warm: number[];
  cups: CupNow[];
  molds: MoldNow[];
  left: number[];
  /** Which cup's colour is in each, and whether it was cleaned for it and not used since. */
  injectors: { cup: number; fresh: boolean }[];
  /** Pieces of the hands' work that are still to be done; reheating is none. */
  workLeft: number;
  before: State | null;
  bars: Bar[];
}

export const workOf = ({ shots, cups, molds }: Session): number =>
  molds.filter(({ fullForS }) => fullForS !== undefined).length +
  shots.reduce((sum, { count, goes }) => sum + count * (goes.length + 1), 0) +
  cups.reduce((sum, { bursts, degasS }) => sum + 1 + bursts.length + (degasS > 0 ? 1 : 0), 0);

export const startOf = (session: Session): State => ({
  now: 0,
  ovenFrom: 0,
  ovenCup: -1,
  pumpFrom: 0,
  warm: [],
  cups: session.cups.map(() => ({
    stage: 'cold',
    bursts: 0,
    reheating: false,
    heats: 0,
    unused: 0,
    until: 0,
    t0: 0,
    c0: session.roomC,
    heldC: Number.NEGATIVE_INFINITY,
  })),
  molds: session.molds.map(({ fullForS }) => ({
    shots: 0,
    row: -1,
    go: 0,
    full: fullForS !== undefined,
    from: fullForS ?? 0,
  })),
  left: session.shots.map(({ count }) => count),
  injectors: Array.from({ length: session.injectors }, () => ({ cup: -1, fresh: false })),
  workLeft: workOf(session),
  before: null,
  bars: [],
});

/** What is changed is copied when it is: most of an evening stays as it was. */
export const copy = (state: State): State => ({
  ...state,
  warm: [...state.warm],
  cups: [...state.cups],
  molds: [...state.molds],
  before: state,
  bars: [],
});
export const ownCup = (state: State, index: number): CupNow => {
  const own = { ...(state.cups[index] as CupNow) };
  state.cups[index] = own;
  return own;
};
export const ownMold = (state: State, index: number): MoldNow => {
  const own = { ...(state.molds[index] as MoldNow) };
  state.molds[index] = own;
  return own;
};
