import { usual } from '../defaults.ts';
import { convert, ML_PER_CUP, unitOf } from './convert.ts';
import type { Dimension } from './dimension.ts';
import { BASE } from './parse.ts';

export interface UnitTaste {
  system: 'metric' | 'us';
  temperature: 'C' | 'F';
}

/** The unit in which a bare number is read, and in which a value is shown. */
export function unitFor(dimension: Dimension, taste: UnitTaste): string {
  if (dimension === 'temperature') return taste.temperature;
  const us = taste.system === 'us';
  return {
    length: us ? 'in' : 'mm',
    volume: us ? 'floz' : 'mL',
    mass: us ? 'oz' : 'g',
    speed: us ? 'ft/s' : 'm/s',
  }[dimension];
}

const SIGN: Record<string, string> = { floz: 'fl oz', C: '°C', F: '°F' };

/** Digits that a bench can measure: a ruler reads half a millimetre, a scale a tenth of a gram. */
function digitsFor(unit: string, value: number): number {
  const size = Math.abs(value);
  switch (unit) {
    case 'mm':
      // A flake’s thickness: what a ruler cannot read is told by its bag.
      return size < 0.1 && size >= 0.01 ? 2 : size < 100 ? 1 : 0;
    case 'in':
      return size < 0.01 && size >= 0.001 ? 4 : 2;
    case 'mL':
      return size < 10 ? 2 : size < 100 ? 1 : 0;
    case 'g':
      return size < 10 ? 2 : size < 100 ? 1 : 0;
    case 'floz':
    case 'oz':
      return size < 1 ? 3 : 2;
    default:
      return unit === 'C' || unit === 'F' ? 0 : 2;
  }
}

export interface Shown {
  figure: string;
  unit: string;
}

const trim = (figure: string) => (figure.includes('.') ? figure.replace(/\.?0+$/, '') : figure);

/** A stored value (mm, mL, g, °C, m/s) in the maker's unit, as it is. */
export function inUnit(value: number, dimension: Dimension, taste: UnitTaste): number {
  const to = unitFor(dimension, taste);
  // convert refuses negative amounts; a difference keeps its sign.
  const sign = value < 0 && dimension !== 'temperature' ? -1 : 1;
  const size = { value: sign * value, from: BASE[dimension], to, dropsPerMl: usual('dropsPerMl'), measures: [] };
  return sign * convert(size).value;
}

/** A stored value in the maker's unit, rounded to what can be measured. */
export function show(value: number, dimension: Dimension, taste: UnitTaste): Shown {
  const unit = unitFor(dimension, taste);
  const converted = inUnit(value, dimension, taste);
  if (unit === 'g' && Math.abs(converted) >= 2000) return { figure: trim((converted / 1000).toFixed(2)), unit: 'kg' };
  if (unit === 'mL' && Math.abs(converted) >= 2000) return { figure: trim((converted / 1000).toFixed(2)), unit: 'L' };
  if (unit === 'oz' && Math.abs(converted) >= 32) return { figure: trim((converted / 16).toFixed(2)), unit: 'lb' };
  const figure = converted.toFixed(digitsFor(unit, converted));
  // Speeds stand in columns and are compared: 0.60, not 0.6.
  return { figure: dimension === 'speed' ? figure : trim(figure), unit: SIGN[unit] ?? unit };
}

export const showText = (value: number, dimension: Dimension, taste: UnitTaste) => {
  const { figure, unit } = show(value, dimension, taste);
  return `${figure} ${unit}`;
};

/** US cups of plastisol, as a recipe is written in them. */
export const cupsText = (ml: number) => {
  const cups = ml / ML_PER_CUP;
  // A quarter is a quarter: measuring cups come in eighths.
  const text = trim(cups.toFixed(cups < 1 ? 2 : cups < 10 ? 1 : 0));
  return Number(text) > 1 ? `${text} cups` : `${text} cup`;
};

/** A duration as it is said at the bench: 2:10, 22 min, 3 h 20, 2 days. */
export function durationText(seconds: number): string {
  const s = Math.max(0, Math.round(seconds));
  if (s < 600) return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
  const min = Math.round(s / 60);
  if (min < 60) return `${min} min`;
  const h = Math.floor(min / 60);
  if (h < 24) return min % 60 === 0 ? `${h} h` : `${h} h ${String(min % 60).padStart(2, '0')}`;
  const days = Math.floor(h / 24);
  return h % 24 === 0 ? `${days} d` : `${days} d ${h % 24} h`;
}

/** What one of the shown unit is in the stored one: 25.4 mm to an inch. */
/** Work ahead, as coarse as it can be foreseen: "40 min", "2.5 h". */
export const hoursText = (hours: number): string =>
  hours * 60 < 57.5
    ? `${Math.max(5, Math.round(hours * 12) * 5)} min`
    : `${Number(hours.toFixed(hours < 10 ? 1 : 0))} h`;

export const unitSize = (dimension: Exclude<Dimension, 'temperature'>, taste: UnitTaste): number =>
  unitOf(unitFor(dimension, taste), { dropsPerMl: usual('dropsPerMl'), measures: [] }).size;

/** A gap, a clearance, a wall of a dip: two places more than a ruler reads. */
export const fineText = (mm: number, taste: UnitTaste): string =>
  `${inUnit(mm, 'length', taste).toFixed(taste.system === 'us' ? 4 : 2)} ${unitFor('length', taste)}`;

/** A surface in squares of the shown length; metric ones by the square centimetre from ten of them. */
export function areaText(mm2: number, taste: UnitTaste): string {
  if (taste.system === 'us') return `${(mm2 / unitSize('length', taste) ** 2).toFixed(2)} in²`;
  return mm2 < 1000 ? `${mm2.toFixed(0)} mm²` : `${(mm2 / 100).toFixed(1)} cm²`;
}

/** `40 %`: a fraction to a tenth of a percent, without a trailing nought. */
export const percentText = (fraction: number): string => `${Number((fraction * 100).toFixed(1))} %`;

/** Water over a bait: whole metres or feet are as near as anyone knows. */
export const depthText = (m: number, taste: UnitTaste): string =>
  taste.system === 'us' ? `${Math.round(m / 0.3048)} ft` : `${m} m`;
