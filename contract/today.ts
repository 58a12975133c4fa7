import type { Told } from '../core/failure.ts';
import type { Tonight } from '../core/plan/need.ts';
export interface TodayCup {
  colourwayId: string;
  colourwayName: string;
  hex: string;
  cookMl: number;
  cookG: number;
  cups: number;
  minutes: number;
  /** Evenings of the plan on which it is poured. */
  evenings: number;
  /** What of it the plan pours on the first of them. */
  tonight: Tonight;
  molds: {
    moldId: string;
    moldName: string;
    baitName: string;
    shape: string;
    cavities: number;
    shots: number;
    goodNeeded: number;
    expectedGood: number;
    made: number;
    rejected: number;
  }[];
  orderLines: { orderLineId: string; baits: number }[];
  orderIds: string[];
}

export interface TodayOrder {
  id: string;
  code: string;
  customer: string;
  dueOn: string;
  state: string;
  shortBaits: number;
  packsLeft: number;
  lines: {
    baitName: string;
    colourwayId: string;
    colourwayName: string;
    hex: string;
    packsReady: number;
    packsLeft: number;
  }[];
}

export interface TodayNeed {
  kind: 'hardness' | 'store' | 'mold' | 'late' | 'volume';
  when: Told;
  title: string;
  detail: Told;
  to: string;
}

export interface Today {
  /** What to do now, decided from orders, stock, cure and what the molds yield. */
  lead: string;
  /** The time it hangs on, or the next step; said in the colour of heat. */
  act: string;
  step: 'master' | 'mold' | 'colour' | 'order' | 'pour' | 'resume' | 'pack' | 'rest' | 'store' | 'hours' | 'settings';
  to: string;
  /** The plan's first evening on which anything is poured, yyyy-MM-dd, and its cups in the order of pouring. */
  eveningOn: string | null;
  cups: TodayCup[];
  laterCups: number;
  /** What the store holds too little of for all that is wanted, g. */
  toOrder: { name: string; g: number }[];
  openPours: {
    id: string;
    code: string;
    colourwayName: string;
    hex: string;
    cookMl: number;
    shotsDone: number;
    shotsPlanned: number;
    started: boolean;
  }[];
  rack: {
    colourwayId: string;
    colourwayName: string;
    hex: string;
    baitName: string;
    baits: number;
    cured: boolean;
    curedAt: string;
  }[];
  orders: TodayOrder[];
  needs: TodayNeed[];
  /** Where there is a mold: why it does not make it in this colour. */
  withoutMold: { baitName: string; colourwayName: string; baits: number; why: Told | null }[];
}

/** How much of everything hangs on the line, for the strip that all pages share. */
export interface LineCounts {
  masters: { count: number; unmeasured: number };
  molds: { count: number; setting: number };
  colours: { count: number };
  pours: { open: number; total: number };
  rack: { baits: number; curing: number };
  orders: { open: number; short: number };
}

export interface SearchHit {
  kind: 'master' | 'mold' | 'colour' | 'pour' | 'order' | 'customer' | 'material' | 'bag';
  id: string;
  title: string;
  /** What it is, in a word or two. */
  about: string;
}
