import { useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import type { Maker, OwnMeasure, Workshop } from '../../contract/workshop.ts';
import type { Told } from '../../core/failure.ts';
import type { Measure } from '../../core/units/convert.ts';
import type { Dimension } from '../../core/units/dimension.ts';
import { parseQuantity } from '../../core/units/parse.ts';
import { inUnits } from '../../core/units/say.ts';
import { areaText, fineText, type Shown, show, showText, type UnitTaste, unitFor } from '../../core/units/show.ts';
import { queries } from '../api/queries.ts';

export interface Taste {
  taste: UnitTaste;
  maker: Maker | undefined;
  makers: Maker[];
  choose(id: string): void;
  workshop: Workshop;
  measures: Measure[];
  text(value: number, dimension: Dimension): string;
  parts(value: number, dimension: Dimension): Shown;
  /** Reads what was typed into mm, mL, g or °C; throws a Failure that says what to write. */
  parse(text: string, dimension: Dimension, densityGPerMl?: number): number;
  /** A gap or a clearance, with the places that it needs. */
  fine(mm: number): string;
  area(mm2: number): string;
  unit(dimension: Dimension): string;
  /** A refusal in these units. */
  say(told: Told): string;
  money(minor: number): string;
  /** Minor units to one of the currency: 100 cents, 1 yen. */
  minorPerUnit: number;
}

const Context = createContext<Taste | null>(null);
const HERE = 'blunko.maker';

/** For what may be said before it is known who works here. */
export const useTasteIfKnown = (): Taste | null => useContext(Context);

export function useTaste(): Taste {
  const taste = useContext(Context);
  if (!taste) throw new Error('useTaste outside its provider');
  return taste;
}

function makeTaste(
  workshop: Workshop,
  makers: Maker[],
  measures: OwnMeasure[],
  here: string | null,
  choose: (id: string) => void,
): Taste {
  const maker = makers.find((row) => row.id === here) ?? makers[0];
  const taste: UnitTaste = { system: maker?.system ?? 'metric', temperature: maker?.temperature ?? 'C' };
  const own = measures.map(({ name, ml }) => ({ unit: name, ml }));
  // Made when the first price is shown: it takes longer than all else of a first view that shows none.
  let made: Intl.NumberFormat | undefined;
  const currency = () => {
    made ??= new Intl.NumberFormat('en-IE', { style: 'currency', currency: workshop.currency });
    return made;
  };
  const perUnit = () => 10 ** (currency().resolvedOptions().maximumFractionDigits ?? 2);
  const money = (minor: number) => currency().format(minor / perUnit());
  return {
    taste,
    maker,
    makers,
    choose,
    workshop,
    measures: own,
    text: (value, dimension) => showText(value, dimension, taste),
    parts: (value, dimension) => show(value, dimension, taste),
    parse: (text, dimension, densityGPerMl) =>
      parseQuantity(text, dimension, {
        unit: unitFor(dimension, taste),
        dropsPerMl: workshop.dropsPerMl,
        measures: own,
        densityGPerMl,
      }),
    fine: (mm) => fineText(mm, taste),
    area: (mm2) => areaText(mm2, taste),
    unit: (dimension) => show(1, dimension, taste).unit,
    get minorPerUnit() {
      return perUnit();
    },
    money,
    say: (told) => (typeof told === 'string' ? told : inUnits(told, taste, money)),
  };
}

export function TasteProvider({
  children,
  waiting,
  silent,
}: {
  children: ReactNode;
  waiting: ReactNode;
  /** Instead, when the workshop does not tell who works here and in which units. */
  silent: ReactNode;
}) {
  const workshop = useQuery(queries.workshop);
  const makers = useQuery(queries.makers);
  const measures = useQuery(queries.measures);
  const [here, setHere] = useState(() => localStorage.getItem(HERE));
  const value = useMemo(() => {
    if (!workshop.data || !makers.data || !measures.data) return null;
    const choose = (id: string) => {
      localStorage.setItem(HERE, id);
      setHere(id);
    };
    return makeTaste(workshop.data, makers.data.items, measures.data.items, here, choose);
  }, [workshop.data, makers.data, measures.data, here]);
  if (!value) return [workshop, makers, measures].some((query) => query.isError) ? silent : waiting;
  return <Context value={value}>{children}</Context>;
}

/** How fast a bait sinks or rises, without its sign: a slow one hangs for all anybody could tell. */
export function sinkParts(mmPerS: number, taste: Taste): Shown {
  const fast = Math.abs(mmPerS);
  return taste.parts(fast < 0.5 ? 0 : fast < 100 ? Math.round(fast) : fast, 'length');
}

export const sinkText = (mmPerS: number, taste: Taste): string => {
  const { figure, unit } = sinkParts(mmPerS, taste);
  return `${figure} ${unit}/s`;
};
