import { cooledC, coolsToS } from '../heat/newton.ts';
import {
  type Bar,
  type CupNow,
  copy,
  type MoldNow,
  ownCup,
  ownMold,
  type Session,
  type SessionCup,
  type SessionGo,
  type SessionMold,
  type State,
} from './sessionState.ts';

/** Heated again so often without being drawn from, a cup is heated for nothing; those that are drawn together wait for each other. */
const [UNUSED_ALONE, UNUSED_TOGETHER] = [1, 2];

/** A go with its cups by number. */
interface Gone {
  cups: number[];
  go: SessionGo;
}

/** Every order of the hands' work of one evening, each piece of it begun as early as it can be. */
export class Evening {
  private readonly cupAt: Map<string, number>;
  private readonly moldAt: Map<string, number>;
  /** Each row's goes with their cups by number. */
  private readonly goes: Gone[][];
  /** The same by cup. */
  private readonly goesOf: { row: number; at: number; go: SessionGo }[][];
  readonly molds: number[];

  constructor(readonly session: Session) {
    this.cupAt = new Map(session.cups.map(({ id }, index) => [id, index]));
    this.moldAt = new Map(session.molds.map(({ id }, index) => [id, index]));
    this.goes = session.shots.map(({ goes }) =>
      goes.map((go) => ({ go, cups: go.cupIds.map((id) => this.cupAt.get(id) as number) })),
    );
    this.goesOf = session.cups.map((_, index) =>
      this.goes.flatMap((goes, row) =>
        goes.flatMap(({ cups, go }, at) => (cups.includes(index) ? [{ row, at, go }] : [])),
      ),
    );
    this.molds = session.shots.map(({ moldId }) => this.moldAt.get(moldId) as number);
  }

  /** All that the hands may do next. */
  moves(state: State): State[] {
    const found: State[] = [];
    const add = (next: State | null) => {
      if (next) found.push(next);
    };
    state.molds.forEach((mold, index) => {
      if (mold.full) add(this.open(state, index));
      else if (mold.row >= 0) add(this.fill(state, mold.row, mold.go));
    });
    state.left.forEach((left, row) => {
      const mold = state.molds[this.molds[row] as number] as MoldNow;
      if (left > 0 && mold.row < 0 && !mold.full) add(this.fill(state, row, 0));
    });
    state.cups.forEach((cup, index) => {
      if (cup.stage === 'cooking' || cup.stage === 'ready') add(this.clean(state, index));
      if (cup.stage === 'cold') {
        const waits = this.session.inOrder && state.cups.some(({ stage }, other) => other < index && stage === 'cold');
        if (!waits) for (const at of this.startsAt(state, index)) add(this.start(state, index, at));
      }
      if (cup.stage === 'cooking') add(this.stir(state, index));
      else if (cup.stage === 'degas') add(this.degas(state, index));
      else if (cup.stage === 'ready' && this.cold(state, index)?.mayHeat)
        for (const at of this.startsAt(state, index)) add(this.start(state, index, at));
    });
    return found;
  }

  private cup(index: number): SessionCup {
    return this.session.cups[index] as SessionCup;
  }

  /**
   * Visits each go that a cup still gives to, with the moment its mold opens and the one from which it could be filled;
   * until one says false. Asked for every beginning that is tried, so nothing is gathered.
   */
  private everyWanted(
    state: State,
    index: number,
    visit: (go: SessionGo, opensAt: number, from: number) => boolean,
  ): boolean {
    const rows = this.goesOf[index] as { row: number; at: number; go: SessionGo }[];
    for (const { row, at, go } of rows) {
      const which = this.molds[row] as number;
      const mold = state.molds[which] as MoldNow;
      if (state.left[row] === 0 && (mold.row !== row || mold.full || at < mold.go)) continue;
      const from = mold.full
        ? Math.max(state.now, mold.from) + (this.session.molds[which] as SessionMold).openS
        : mold.from;
      if (!visit(go, mold.from, from)) return false;
    }
    return true;
  }

  private heat(index: number, now: CupNow, at: number): number {
    return Math.max(now.heldC, cooledC(now.c0, this.session.roomC, this.cup(index).tauS, at - now.t0));
  }

  /** When it has fallen to so much; never where it is held above it. */
  private fallsTo(index: number, now: CupNow, c: number): number {
    if (now.c0 <= c) return now.t0;
    if (now.heldC > c) return Number.POSITIVE_INFINITY;
    return now.t0 + coolsToS(now.c0, c, this.session.roomC, this.cup(index).tauS);
  }

  /** Until when it is still at least so hot. */
  private lasts(index: number, now: CupNow, c: number): number {
    if (now.c0 < c - 1e-9) return Number.NEGATIVE_INFINITY;
    if (now.heldC >= c) return Number.POSITIVE_INFINITY;
    return now.t0 + coolsToS(now.c0, c, this.session.roomC, this.cup(index).tauS);
  }

  /** Nothing that it is still wanted for could be filled from it before it is too cold; whether it may be heated again. */
  cold(state: State, index: number): { mayHeat: boolean } | null {
    const cup = state.cups[index] as CupNow;
    const cold = this.everyWanted(state, index, ({ lowC, drawS, highC }, _, from) => {
      const begins = Math.max(state.now, from, this.fallsTo(index, cup, highC));
      // Held above one window and too cold for the other, it is good for neither.
      return !(Number.isFinite(begins) && begins + drawS <= this.lasts(index, cup, lowC) + 1e-9);
    });
    if (!cold) return null;
    const together = !this.everyWanted(state, index, ({ cupIds }) => cupIds.length === 1);
    return { mayHeat: cup.unused < (together ? UNUSED_TOGETHER : UNUSED_ALONE) };
  }

  /** Its heat from now on: held at the hottest that anybody still wants of it, or let go. */
  private anchor(state: State, index: number, at: number): void {
    const cup = ownCup(state, index);
    const c = this.heat(index, cup, Math.max(at, cup.t0));
    let hottest = Number.NEGATIVE_INFINITY;
    this.everyWanted(state, index, ({ highC }) => {
      hottest = Math.max(hottest, highC);
      return true;
    });
    if (hottest === Number.NEGATIVE_INFINITY) {
      cup.stage = 'done';
      state.warm = state.warm.filter((one) => one !== index);
      return;
    }
    cup.t0 = Math.max(at, cup.t0);
    cup.c0 = c;
    cup.heldC = state.warm.includes(index) ? Math.min(c, hottest) : Number.NEGATIVE_INFINITY;
  }

  private settle(state: State, index: number, at: number): void {
    const { plates, keepWarm } = this.session;
    const places = plates + (keepWarm && state.ovenCup < 0 ? 1 : 0);
    if (state.warm.length < places) state.warm.push(index);
    this.anchor(state, index, at);
  }

  /** When a cup may go into the oven: at once, or so that it is hot when the mold that waits for it opens. */
  private startsAt(state: State, index: number): number[] {
    if (state.ovenCup >= 0) return [];
    const again = state.cups[index]?.stage === 'ready';
    const atOnce = Math.max(state.now, state.ovenFrom, again ? (state.cups[index] as CupNow).until : 0);
    if (this.session.keepWarm) return [atOnce];
    let opens = Number.POSITIVE_INFINITY;
    this.everyWanted(state, index, (_, opensAt) => {
      if (opensAt > state.now) opens = Math.min(opens, opensAt);
      return true;
    });
    const { loadS, stirS } = this.session;
    const { bursts, reheatS } = this.cup(index);
    const cookS = again ? reheatS + stirS : bursts.reduce((sum, s) => sum + s + stirS, 0);
    const later = [opens - loadS, opens - loadS - cookS].filter((at) => Number.isFinite(at) && at > atOnce);
    return [atOnce, ...later];
  }

  /** Into the oven, cold or again. */
  private start(state: State, index: number, from: number): State {
    const next = copy(state);
    const { loadS, plates } = this.session;
    const again = state.cups[index]?.stage === 'ready';
    const begins = from + loadS;
    next.warm = next.warm.filter((one) => one !== index);
    // It drives out the cup that was kept warm there.
    if (next.warm.length > plates) {
      const out = next.warm.pop() as number;
      this.anchor(next, out, from);
    }
    const { bursts, reheatS, id } = this.cup(index);
    const burstS = again ? reheatS : (bursts[0] as number);
    const cup = ownCup(next, index);
    Object.assign(cup, {
      stage: 'cooking',
      bursts: again ? 1 : bursts.length,
      reheating: again,
      heats: cup.heats + 1,
      unused: again ? cup.unused + 1 : 0,
      until: begins + burstS,
    });
    next.now = begins;
    if (!again) next.workLeft -= 1;
    next.ovenCup = index;
    const did = again ? 'reheat' : 'burst';
    next.bars.push(
      { resource: 'person', from, to: begins, did: 'start', cup: id },
      { resource: 'oven', from: begins, to: cup.until, did, cup: id },
      { resource: `cup ${id}`, from: begins, to: cup.until, did, cup: id },
    );
    return next;
  }

  private stir(state: State, index: number): State {
    const next = copy(state);
    const { bursts, cookedC, degasS, id } = this.cup(index);
    const cup = ownCup(next, index);
    const from = Math.max(state.now, cup.until);
    const to = from + this.session.stirS;
    next.now = to;
    if (!cup.reheating) next.workLeft -= 1;
    next.bars.push(
      { resource: 'person', from, to, did: 'stir', cup: id },
      { resource: `cup ${id}`, from, to, did: 'stir', cup: id },
    );
    cup.bursts -= 1;
    if (cup.bursts > 0) {
      const burstS = bursts[bursts.length - cup.bursts] as number;
      cup.until = to + burstS;
      next.bars.push(
        { resource: 'oven', from: to, to: cup.until, did: 'burst', cup: id },
        { resource: `cup ${id}`, from: to, to: cup.until, did: 'burst', cup: id },
      );
      return next;
    }
    Object.assign(cup, {
      stage: degasS > 0 && !cup.reheating ? 'degas' : 'ready',
      // Left in the oven it cools as anywhere, unless the oven keeps it warm.
      t0: this.session.keepWarm ? to : cup.until,
      c0: cookedC,
      until: to,
      heldC: Number.NEGATIVE_INFINITY,
    });
    next.ovenCup = -1;
    next.ovenFrom = to;
    if (cup.stage === 'ready') this.settle(next, index, to);
    return next;
  }

  private degas(state: State, index: number): State {
    const next = copy(state);
    const { degasS, id } = this.cup(index);
    const cup = ownCup(next, index);
    const from = Math.max(state.now, state.pumpFrom);
    next.now = from + this.session.loadS;
    next.workLeft -= 1;
    cup.until = next.now + degasS;
    cup.stage = 'ready';
    next.pumpFrom = cup.until;
    next.bars.push(
      { resource: 'person', from, to: next.now, did: 'degas', cup: id },
      { resource: 'vacuum', from: next.now, to: cup.until, did: 'degas', cup: id },
      { resource: `cup ${id}`, from: next.now, to: cup.until, did: 'degas', cup: id },
    );
    this.settle(next, index, cup.until);
    return next;
  }

  /** An injector that holds this cup's colour, or none yet; less than nothing: each has to be cleaned first. */
  private injectorFor(state: State, index: number, taken: number[]): number {
    const free = (cup: number) => state.injectors.findIndex((one, at) => one.cup === cup && !taken.includes(at));
    const same = free(index);
    return same >= 0 ? same : free(-1);
  }

  /** An injector wiped or taken apart for a cup that has none. */
  private clean(state: State, index: number): State | null {
    if (this.injectorFor(state, index, []) >= 0) return null;
    if (this.everyWanted(state, index, ({ injected }) => !injected)) return null;
    const dirty = state.injectors.map((one, which) => ({ ...one, which })).filter(({ fresh }) => !fresh);
    const old = dirty.find(({ cup }) => state.cups[cup]?.stage === 'done') ?? dirty[0];
    if (!old) return null;
    const next = copy(state);
    const { wipeS, cleanS } = this.session;
    const { id, lightness } = this.cup(index);
    next.now += lightness <= this.cup(old.cup).lightness ? wipeS : cleanS;
    next.injectors = next.injectors.map((one, at) => (at === old.which ? { cup: index, fresh: true } : one));
    next.bars.push(
      { resource: 'person', from: state.now, to: next.now, did: 'clean', cup: id },
      { resource: `injector ${old.which + 1}`, from: state.now, to: next.now, did: 'clean', cup: id },
    );
    return next;
  }

  private fill(state: State, row: number, go: number): State | null {
    const { cups, go: one } = (this.goes[row] as Gone[])[go] as Gone;
    if (cups.some((index) => state.cups[index]?.stage !== 'ready')) return null;
    const mold = state.molds[this.molds[row] as number] as MoldNow;
    const injectors: number[] = [];
    if (one.injected) for (const cup of cups) injectors.push(this.injectorFor(state, cup, injectors));
    if (injectors.some((which) => which < 0)) return null;
    const from = Math.max(
      state.now,
      mold.from,
      ...cups.map((index) => {
        const cup = state.cups[index] as CupNow;
        return Math.max(cup.until, this.fallsTo(index, cup, one.highC));
      }),
    );
    const lasts = (index: number) => this.lasts(index, state.cups[index] as CupNow, one.lowC);
    if (!Number.isFinite(from) || cups.some((index) => from + one.drawS > lasts(index) + 1e-9)) return null;
    const next = copy(state);
    this.filled(next, { row, go, from, injectors });
    return next;
  }

  private filled(
    next: State,
    { row, go, from, injectors }: { row: number; go: number; from: number; injectors: number[] },
  ): void {
    const all = this.goes[row] as Gone[];
    const { cups, go: one } = all[go] as Gone;
    const to = from + one.fillS;
    const moldIndex = this.molds[row] as number;
    const mold = ownMold(next, moldIndex);
    const { id: moldId, demoldS } = this.session.molds[moldIndex] as SessionMold;
    const about = { cup: one.cupIds.join(' + '), mold: moldId };
    next.bars.push(
      { resource: 'person', from, to, did: 'fill', ...about },
      { resource: `mold ${moldId}`, from, to, did: 'fill', ...about },
      ...cups.map(
        (index): Bar => ({ resource: `cup ${this.cup(index).id}`, from, to: from + one.drawS, did: 'fill', ...about }),
      ),
      ...injectors.map((which): Bar => ({ resource: `injector ${which + 1}`, from, to, did: 'fill', ...about })),
    );
    if (injectors.length > 0)
      next.injectors = next.injectors.map((held, which) => {
        const at = injectors.indexOf(which);
        return at < 0 ? held : { cup: cups[at] as number, fresh: false };
      });
    if (go === 0) next.left = next.left.map((left, at) => (at === row ? left - 1 : left));
    const last = go === all.length - 1;
    const waits = last ? (demoldS[Math.min(mold.shots, demoldS.length - 1)] as number) : one.waitS;
    Object.assign(mold, { row, go: go + 1, full: last, from: to + waits, shots: mold.shots + (last ? 1 : 0) });
    if (waits > 0)
      next.bars.push({ resource: `mold ${moldId}`, from: to, to: to + waits, did: last ? 'cool' : 'wait', ...about });
    next.now = to;
    next.workLeft -= 1;
    for (const index of cups) {
      ownCup(next, index).unused = 0;
      this.anchor(next, index, from + one.drawS);
    }
  }

  private open(state: State, index: number): State {
    const next = copy(state);
    const mold = ownMold(next, index);
    const { id, openS } = this.session.molds[index] as SessionMold;
    const from = Math.max(state.now, mold.from);
    const to = from + openS;
    Object.assign(mold, { full: false, row: -1, go: 0, from: to });
    next.now = to;
    next.workLeft -= 1;
    next.bars.push(
      { resource: 'person', from, to, did: 'open', mold: id },
      { resource: `mold ${id}`, from, to, did: 'open', mold: id },
    );
    return next;
  }
}
