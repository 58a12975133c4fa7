import type { Figure, Said } from '../failure.ts';
import { inUnit, show, type UnitTaste, unitFor } from './show.ts';

const METRIC: UnitTaste = { system: 'metric', temperature: 'C' };

const figure = (as: Figure['as']) => (value: number) => ({ value, as });
export const mm = figure('length');
export const ml = figure('volume');
export const g = figure('mass');
export const celsius = figure('temperature');

/** Digits enough to tell a bound from what broke it, and no more than can be read at a glance. */
const plain = (value: number) => String(Math.abs(value) >= 1000 ? Math.round(value) : Number(value.toPrecision(4)));

export function figureText({ value, as }: Figure, taste: UnitTaste, money?: (minor: number) => string): string {
  if (as === 'percent') return Number.isFinite(value * 100) ? `${plain(value * 100)} %` : plain(value);
  if (as === 'money') return money ? money(value) : plain(value / 100);
  // As a bench could measure it; a bound so small that nothing would be left of it stands as it is.
  const { figure, unit } = show(value, as, taste);
  return value !== 0 && Number(figure) === 0 && as !== 'temperature'
    ? `${plain(inUnit(value, as, taste))} ${unitFor(as, taste)}`
    : `${figure} ${unit}`;
}

/** A said sentence in the units of whoever reads it. */
export const inUnits = ({ words, figures }: Said, taste: UnitTaste, money?: (minor: number) => string): string =>
  words.replace(/\{(\d+)\}/g, (hole, i) => {
    const found = figures[Number(i)];
    return found ? figureText(found, taste, money) : hole;
  });

/** A sentence with figures that know what they measure: say`A wall of ${mm(3)} is too thin.` */
export function say(strings: TemplateStringsArray, ...parts: (string | number | Figure | Said)[]): Said {
  const figures: Figure[] = [];
  let words = strings[0] as string;
  for (const [i, part] of parts.entries()) {
    if (typeof part !== 'object') words += part;
    else if ('words' in part)
      words += part.words.replace(/\{(\d+)\}/g, (_, n) => {
        figures.push(part.figures[Number(n)] as Figure);
        return `{${figures.length - 1}}`;
      });
    else {
      figures.push(part);
      words += `{${figures.length - 1}}`;
    }
    words += strings[i + 1];
  }
  return { words, figures, text: inUnits({ words, figures, text: '' }, METRIC) };
}
