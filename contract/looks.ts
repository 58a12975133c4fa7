import * as v from 'valibot';
import type { Rgb } from '../core/colour/light.ts';
import { above0, called, name, ownId, pickedHex, tappedAt } from './fields.ts';

const reflected = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
/** A cup’s colour as it was seen over white paper, as reflectance in linear light. */
export const lookBody = v.strictObject({
  id: ownId,
  how: v.picklist(['typed', 'photo']),
  thicknessMm: called(above0(100), 'What was looked at is thick'),
  seen: called(v.strictTuple([reflected, reflected, reflected]), 'Over white'),
  note: v.optional(name),
  tappedAt,
});

/** A look as a maker writes it down. */
export const lookSheet = v.strictObject({
  thicknessMm: called(above0(100), 'The drop or puck is thick'),
  seen: called(pickedHex, 'Over white paper'),
});

/** A look at a cup, beside what was foreseen of it then. */
export interface ColourLook {
  id: string;
  /** The newest dose that was in it; 0: none. */
  doseSeq: number;
  how: 'typed' | 'photo';
  thicknessMm: number;
  seen: Rgb;
  /** As it was foreseen over white, as thick. */
  foreseen: Rgb;
  deltaE00: number;
  note: string;
  at: string;
}

/** One of the newest looks of all cups, by the name of its ledger or the code of its pour. */
export interface ColourLookOf extends ColourLook {
  of: string;
}
