import { useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import type { Pour } from '../../../contract/pours.ts';
import { UNDO } from '../../../contract/undo.ts';
import { usual } from '../../../core/defaults.ts';
import type { Lesson } from '../../../core/drill/lessons.ts';
import { baitsOf, choicesOf, type DrawnShot, debrief } from '../../../core/drill/outcome.ts';
import { DRILL_WATTS, type DrillEvent, drawnShots, drillHeat } from '../../../core/drill/world.ts';
import { shown } from '../../../core/instruments/standIn.ts';
import type { Ticked, TickId } from '../../../core/process/evidence.ts';
import type { Speaking } from '../../api/instruments.ts';
import type { Tap } from '../../api/outbox.ts';
import type { BenchRoom } from './benchRoom.ts';
import { cupId, itemId, lessonPours, moldId } from './dryRunPour.ts';

export const SPEEDS = [1, 10, 60] as const;
export type Speed = (typeof SPEEDS)[number];
/** While it is a hand's turn, time runs no faster than this. */
const [HANDS, TOPPING] = [1, 10];
export const WAITS_S = 30;
const FRAME_MS = 200;

/** One evening of training: its own clock, its own taps, a world behind them. Nothing of it leaves this page. */
export class DryRunRoom {
  readonly pours: [Pour, ...Pour[]];
  private readonly startedMs: number;
  private simMs: number;
  private seenMs = performance.now();
  private taps: Tap[] = [];
  private readonly listeners = new Set<() => void>();
  private readonly timer: ReturnType<typeof setInterval>;
  speed: Speed = 1;
  closed = false;
  readonly room: BenchRoom;

  constructor(
    readonly lesson: Lesson,
    readonly seed: number,
  ) {
    this.startedMs = Date.UTC(2026, 0, 1, 19, 0, 0);
    this.simMs = this.startedMs;
    this.pours = lessonPours(lesson, new Date(this.startedMs).toISOString());
    this.timer = setInterval(() => this.turn(), FRAME_MS);
    const subscribe = (changed: () => void) => {
      this.listeners.add(changed);
      return () => this.listeners.delete(changed);
    };
    const second = () => Math.floor(this.simMs / 1000) * 1000;
    let [spokenAt, spoken] = [Number.NaN, [] as Speaking[]];
    const speaking = () => {
      if (second() !== spokenAt) [spokenAt, spoken] = [second(), this.speaking()];
      return spoken;
    };
    this.room = {
      dry: true,
      useTaps: () => useSyncExternalStore(subscribe, () => this.taps),
      tap: (path, body, said, about) => this.tap(path, body, said, about),
      useNow: () => useSyncExternalStore(subscribe, second),
      useInstruments: () => useSyncExternalStore(subscribe, speaking),
      useOven: () => OVEN,
      useClocks: () => [],
      useHands: () => [],
      close: () => {
        this.closed = true;
        this.changed();
      },
    };
  }

  end(): void {
    clearInterval(this.timer);
  }

  private changed(): void {
    for (const listener of this.listeners) listener();
  }

  onChange(changed: () => void): () => void {
    this.listeners.add(changed);
    return () => this.listeners.delete(changed);
  }

  setSpeed(speed: Speed): void {
    this.turn();
    this.speed = speed;
    this.changed();
  }

  private turn(): void {
    const now = performance.now();
    // A page that slept does not wake into a ruined evening.
    const realMs = Math.min(5 * FRAME_MS, now - this.seenMs);
    this.seenMs = now;
    if (this.closed) return;
    this.simMs += realMs * Math.min(this.speed, this.slowed());
    this.changed();
  }

  /** The clock runs fast while the oven or a mold is what is waited for; at a hand's pace while it is the learner's turn. */
  private slowed(): number {
    const events = this.events();
    const running = events.some((event) => event.what === 'burst' && this.simMs < event.ms + 1000 * event.seconds);
    if (running) return Number.POSITIVE_INFINITY;
    const last = events.findLast((event) => event.what === 'draw');
    const shots = this.shots();
    const [shot, ticks] = [shots.at(-1), this.ticks().filter(({ at }) => last && Date.parse(at) >= last.ms)];
    if (last && shot && !ticks.some(({ what }) => what === 'topped')) {
      const sinceS = (this.simMs - last.ms) / 1000;
      if (sinceS < shot.way.holdS && !ticks.some(({ what }) => what === 'held')) return HANDS;
      if (sinceS < shot.way.holdS + shot.way.topUpS) return TOPPING;
    }
    const opened = new Set(events.flatMap((event) => (event.what === 'open' ? [event.shotId] : [])));
    const molds = this.lesson.molds.map(({ id, shots: wanted, waitS }) => {
      const drawn = events.filter((event) => event.what === 'draw' && event.moldId === id && event.layers.includes(0));
      const newest = drawn.at(-1);
      const layers = events.flatMap((event) =>
        event.what === 'draw' && newest?.what === 'draw' && event.shotId === newest.shotId ? event.layers : [],
      );
      // A layer is still to come: hands are at the next cup, and the mold is waited for by whoever says so.
      const begun = newest !== undefined && new Set(layers).size < this.lesson.layers.length;
      const full = newest?.what === 'draw' && !opened.has(newest.shotId);
      const waits = full && this.simMs < newest.ms + 1000 * (waitS[Math.min(drawn.length, waitS.length) - 1] as number);
      return { full, waits, free: begun || (!full && drawn.length < wanted) };
    });
    if (molds.some(({ full, waits, free }) => free || (full && !waits))) return HANDS;
    return molds.some(({ waits }) => waits) ? Number.POSITIVE_INFINITY : HANDS;
  }

  /** Nothing is done for so long. */
  wait(seconds: number): void {
    this.turn();
    this.simMs += 1000 * seconds;
    this.changed();
  }

  private tap(path: string, body: Record<string, unknown>, said: string, about: string): void {
    const opened = /\/shots\/([^/]+)\/marks$/.exec(path)?.[1];
    const first = opened && !this.taps.some((tap) => tap.path === path);
    const at = new Date(this.simMs).toISOString();
    const own = { key: v7(), n: this.taps.length + 1, path, said, about };
    this.taps = [...this.taps, { ...own, body: { ...body, tappedAt: at } }];
    // What comes out of the mold is what the evening made of it, whatever was hoped.
    if (first) this.taps = [...this.taps.slice(0, -1), { ...own, body: { marks: this.marksOf(opened), tappedAt: at } }];
    this.changed();
  }

  private marksOf(shotId: string) {
    const shot = this.shots()[this.shotIds().indexOf(shotId)];
    if (!shot) return [];
    // How they lie is seen a day later.
    const seen = choicesOf(shot).filter(({ id }) => id !== 'lie');
    return baitsOf(shot, this.seed, seen).map(({ cavity, reason }) =>
      reason === null ? { cavity, grade: 'sell' } : { cavity, grade: 'remelt', reason },
    );
  }

  private standing(): Tap[] {
    const back = new Set(this.taps.filter(({ path }) => path === UNDO).map(({ body }) => String(body.rowId)));
    return this.taps.filter(({ path, body }) => path !== UNDO && !back.has(String(body.id)));
  }

  private shotIds(): string[] {
    return [...new Set(this.events().flatMap((event) => (event.what === 'draw' ? [event.shotId] : [])))];
  }

  /** What was tapped, as it works on cups and molds. A reading and a dose are stirred in, as at any bench. */
  events(): DrillEvent[] {
    const { lesson } = this;
    return this.standing().flatMap(({ path, body }): DrillEvent[] => {
      const ms = Date.parse(String(body.tappedAt));
      const cup = lesson.layers.findIndex((_, at) => path.includes(cupId(at)));
      const ledger = this.pours.findIndex(({ ledgerId }) => path.includes(ledgerId));
      const layers = () => ((body.parts as { layer?: number }[] | undefined) ?? [{}]).map(({ layer = 0 }) => layer);
      const shotId = /\/shots\/([^/]+)/.exec(path)?.[1];
      if (path.endsWith('/bursts'))
        return [{ what: 'burst', ms, cup, seconds: Number(body.seconds), level: Number(body.level) }];
      if (path.endsWith('/stirs') || path.endsWith('/heats')) return [{ what: 'stir', ms, cup }];
      if (path.endsWith('/doses')) {
        const item = lesson.layers[ledger]?.items.find(({ id }) => itemId(lesson, id) === body.materialId);
        const dose = { what: 'dose' as const, ms, cup: ledger, itemId: item?.id ?? '', amount: Number(body.amount) };
        return [dose, { what: 'stir', ms, cup: ledger }];
      }
      const mold = lesson.molds[lesson.molds.findIndex((_, at) => moldId(lesson, at) === body.moldId)];
      if (path.endsWith('/shots'))
        return [{ what: 'draw', ms, shotId: String(body.id), moldId: mold?.id ?? '', layers: layers() }];
      if (path.endsWith('/parts') && shotId)
        return [{ what: 'draw', ms, shotId, moldId: this.moldOf(shotId), layers: layers() }];
      return path.endsWith('/marks') && shotId ? [{ what: 'open', ms, shotId }] : [];
    });
  }

  private moldOf(shotId: string): string {
    const body = this.taps.find((tap) => tap.body.id === shotId)?.body;
    return (
      this.lesson.molds[this.lesson.molds.findIndex((_, at) => moldId(this.lesson, at) === body?.moldId)]?.id ?? ''
    );
  }

  private ticks(): Ticked[] {
    return this.standing()
      .filter(({ path }) => path.endsWith('/ticks'))
      .map(({ body }) => ({
        id: String(body.id),
        what: body.what as TickId,
        said: String(body.said),
        moldId:
          this.lesson.molds[this.lesson.molds.findIndex((_, at) => moldId(this.lesson, at) === body.moldId)]?.id ??
          null,
        nth: body.nth === undefined ? null : Number(body.nth),
        layer: body.layer === undefined ? null : Number(body.layer),
        at: String(body.tappedAt),
      }));
  }

  shots(): DrawnShot[] {
    return drawnShots(this.lesson, this.events(), this.ticks(), this.simMs);
  }

  debrief() {
    return { ...debrief(this.shots(), this.seed), seconds: (this.simMs - this.startedMs) / 1000 };
  }

  /** A thermometer at each cup: it reads the surface, and is off by a little. */
  private speaking(): Speaking[] {
    return this.pours.map(({ id }, cup): Speaking => {
      const ms = Math.floor(this.simMs / 1000) * 1000;
      const { surfaceC } = drillHeat(this.lesson, this.events(), cup, ms);
      const about = { fault: 'none' as const, last: undefined, seed: this.seed + cup, ms, digits: 1 };
      const value = shown(surfaceC, { ...about, sd: usual('thermometerSdC') / 3 }) ?? null;
      const at = new Date(ms).toISOString();
      return {
        id: `thermometer ${cup}`,
        version: 1,
        kind: 'thermometer',
        name: 'Thermometer, simulated',
        how: 'stand-in',
        pourId: id,
        shotId: null,
        orderId: null,
        awayAt: null,
        now: { id: `thermometer ${cup}`, value, at, trust: 'fine', fault: 'none', steps: [] },
      };
    });
  }
}

const OVEN = {
  watts: DRILL_WATTS,
  school: 'full-power' as const,
  efficiency: usual('ovenEfficiency'),
  bursts: 0,
};
