import type { Instrument, InstrumentNow, ScaleStep } from '../../contract/instruments.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { type Fault, figureOf, type Line } from '../../core/instruments/lines.ts';
import { cupTrueC, shown } from '../../core/instruments/standIn.ts';
import { type Sample, trustOf } from '../../core/instruments/trust.ts';
import { Witness } from '../../core/instruments/witness.ts';
import { cupHeat } from '../../core/process/cupHeat.ts';
import type { Db } from '../db/open.ts';
import { first } from '../db/rows.ts';
import { newId } from '../ids.ts';
import type { Live } from '../live/live.ts';
import { cupMassG, heatEventsOf } from '../pours/heatEvents.ts';
import { heatsOf } from '../pours/read.ts';
import { workshop } from '../workshop/store.ts';
import { instruments } from './store.ts';

/** Stand-ins speak so often, ms of this machine's own time. */
const SPEAKS_MS = 1000;
const [MOST_SAMPLES, MOST_STEPS] = [60, 20];
/** What a cooking glass weighs, g: for a stand-in's scale. */
const GLASS_G = 310;
/** How a stand-in's world differs from what is guessed: so that something is there to be learnt. */
const [TRUE_TAU_S, TRUE_EFFICIENCY] = [720, 0.56];

/** A cup that was read by hand cools as it was read to; another as a stand-in's cups do. */
function coolsHereS(db: Db, pourId: string, roomC: number): number {
  const typed = heatsOf(db, pourId).filter(({ instrumentId }) => !instrumentId);
  const heat = typed.length > 1 ? cupHeat(typed, { lowC: roomC + 1, highC: roomC + 2 }, roomC, Date.now()) : null;
  return heat?.tauS ?? TRUE_TAU_S;
}

const aimOf = ({ pourId, shotId, orderId }: Instrument) => `${pourId} ${shotId} ${orderId}`;

interface Heard {
  samples: Sample[];
  witness: Witness;
  steps: ScaleStep[];
  fault: Fault;
  /** What lies on a stand-in's scale, g; null: nobody put anything there yet. */
  massG: number | null;
  /** What that was put there for. */
  aim: string;
}

interface Around {
  db(): Db;
  clock(): Date;
  live: Live;
}

/** Everything that instruments say, and the stand-ins that speak for those that are not there. Kept in memory: taps are the record. */
export class InstrumentDesk {
  private readonly heard = new Map<string, Heard>();
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly around: Around) {
    // Whom nobody listens to says nothing.
    this.timer = setInterval(() => around.live.watched && this.speak(), SPEAKS_MS);
    this.timer.unref();
  }

  close(): void {
    clearInterval(this.timer);
  }

  private of(id: string): Heard {
    const known = this.heard.get(id);
    if (known) return known;
    const made: Heard = { samples: [], witness: new Witness(), steps: [], fault: 'none', massG: null, aim: '' };
    this.heard.set(id, made);
    return made;
  }

  private find(id: string): Instrument {
    const found = instruments(this.around.db()).find((one) => one.id === id);
    if (!found) throw new Failure('not-found', 'There is no such instrument, or it was put away.');
    return found;
  }

  /** A line of an instrument, whoever sent it: the one way in for a real one and a stand-in. */
  hear(id: string, line: Line): InstrumentNow {
    const one = this.find(id);
    if (line.kind !== one.kind)
      throw new Failure('invalid-input', `${one.name} is a ${one.kind}; that line is of a ${line.kind}.`, 'kind');
    return this.take(one, figureOf(line), line.kind !== 'scale' || line.stable !== false);
  }

  private take(one: Instrument, value: number, settled: boolean): InstrumentNow {
    const heard = this.of(one.id);
    const now = this.around.clock();
    const sample = { ms: now.getTime(), value };
    heard.samples = [...heard.samples.slice(1 - MOST_SAMPLES), sample];
    const aim = aimOf(one);
    if (one.kind === 'scale' && aim !== heard.aim) {
      // Another thing stands on it now: what lay between is no step.
      heard.witness = new Witness();
      heard.aim = aim;
    }
    const believed = trustOf(one.kind, heard.samples, sample.ms) === 'fine';
    const step = one.kind === 'scale' && settled && believed ? heard.witness.take(sample) : null;
    if (step)
      heard.steps = [
        ...heard.steps.slice(1 - MOST_STEPS),
        {
          id: newId(),
          at: new Date(step.ms).toISOString(),
          pourId: one.pourId,
          shotId: one.shotId,
          deltaG: step.deltaG,
          toG: step.toG,
        },
      ];
    const said = this.now(one);
    this.around.live.instrument(said);
    return said;
  }

  /** What it says now, and whether that can be believed. */
  now(one: Instrument): InstrumentNow {
    const { samples, steps, fault } = this.of(one.id);
    const last = samples.at(-1);
    return {
      id: one.id,
      value: last?.value ?? null,
      at: last ? new Date(last.ms).toISOString() : null,
      trust: trustOf(one.kind, samples, this.around.clock().getTime()),
      fault: one.how === 'stand-in' ? fault : null,
      steps,
    };
  }

  all(): InstrumentNow[] {
    if (!this.around.live.watched) this.speak();
    return instruments(this.around.db()).map((one) => this.now(one));
  }

  /** A step was none: a hand on the cup, a spoon laid down. */
  notAStep(id: string, stepId: string): InstrumentNow {
    const one = this.find(id);
    const heard = this.of(id);
    heard.steps = heard.steps.filter((step) => step.id !== stepId);
    const said = this.now(one);
    this.around.live.instrument(said);
    return said;
  }

  /** Hands for a stand-in. */
  standIn(
    id: string,
    { fault, addG, tare }: { fault?: Fault | undefined; addG?: number | undefined; tare?: true | undefined },
  ): InstrumentNow {
    const one = this.find(id);
    if (one.how !== 'stand-in')
      throw new Failure('not-applicable', `${one.name} is a real one: what it says comes from itself.`);
    const heard = this.of(id);
    if (fault) heard.fault = fault;
    if (addG !== undefined) heard.massG = this.massOn(one) + addG;
    if (tare) heard.massG = 0;
    return this.now(one);
  }

  private massOn(one: Instrument): number {
    const heard = this.of(one.id);
    const aim = aimOf(one);
    if (heard.massG === null || (heard.aim !== '' && heard.aim !== aim))
      heard.massG = one.pourId && !one.shotId ? GLASS_G + cupMassG(this.around.db(), one.pourId) : 0;
    return heard.massG;
  }

  private truth(one: Instrument, ms: number): { value: number; sd: number; digits: number } {
    const db = this.around.db();
    if (one.kind === 'scale') return { value: this.massOn(one), sd: usual('scaleSdG'), digits: 1 };
    const events = one.pourId ? heatEventsOf(db, one.pourId) : [];
    const { roomC } = workshop(db);
    if (one.kind === 'thermometer') {
      const world = {
        roomC,
        tauS: one.pourId ? coolsHereS(db, one.pourId, roomC) : TRUE_TAU_S,
        efficiency: TRUE_EFFICIENCY,
      };
      return { value: cupTrueC(events, world, ms).surfaceC, sd: usual('thermometerSdC') / 3, digits: 1 };
    }
    const on = events.findLast((event) => event.what === 'burst');
    const level = on?.what === 'burst' && ms < on.ms + 1000 * on.seconds ? on.level : 0;
    return { value: level, sd: 0, digits: 2 };
  }

  /** Each stand-in that is at something says what it would read. */
  private speak(): void {
    const db = this.around.db();
    if (
      !db.open ||
      !first(
        db,
        `SELECT 1 FROM instrument WHERE away_at IS NULL AND how = 'stand-in' AND coalesce(pour_id, order_id) IS NOT NULL`,
      )
    )
      return;
    const ms = this.around.clock().getTime();
    for (const one of instruments(db)) {
      if (one.how !== 'stand-in' || (one.pourId ?? one.orderId) === null) continue;
      const heard = this.of(one.id);
      const { value, sd, digits } = this.truth(one, ms);
      const seed = Number.parseInt(one.id.slice(-8), 16);
      const says = shown(value, { fault: heard.fault, last: heard.samples.at(-1)?.value, seed, ms, sd, digits });
      if (says !== undefined) this.take(one, says, true);
      else this.around.live.instrument(this.now(one));
    }
  }
}
