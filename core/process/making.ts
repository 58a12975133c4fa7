import type { MoldKind } from '../heat/window.ts';

export interface Step {
  id: string;
  text: string;
  caution?: ('rubber' | 'vacuum' | 'hot')[];
}

/** The open-face mold, step by step, in the order in which it goes wrong. */
const OPEN_FACE_STEPS: Step[] = [
  {
    id: 'board',
    text: 'Flat backs down on a flat board or tile, each held by a thin film of glue. Nothing may creep under.',
  },
  {
    id: 'spot',
    text: 'Spot of mixed rubber on the master’s material, left to cure: it must not stay tacky.',
    caution: ['rubber'],
  },
  { id: 'box', text: 'Box of board, card or plastic around them, seams sealed. Hot glue ready: it leaks anyway.' },
  { id: 'level', text: 'Box and bench level, both ways.' },
  {
    id: 'weigh',
    text: 'Weigh part A, then part B into the same tared cup. Scrape walls and bottom while mixing; tap "Mixed" when it is one colour.',
    caution: ['rubber'],
  },
  {
    id: 'bubbles',
    text: 'Vacuum until it rises and collapses by itself, 20–30 s more. Without: a thin stream from high, later low and slow, into one corner; draw a wire along ribs and eyes.',
    caution: ['vacuum'],
  },
  { id: 'pour', text: 'Pour into one corner and let it run over the masters to the line.' },
  {
    id: 'demold',
    text: 'Demold when the clock says so, not when it feels firm. Flex it off; keep the tails straight.',
  },
  { id: 'cure', text: 'Full cure: a day on a flat shelf.' },
  {
    id: 'first',
    text: 'First pour is a plain one: it dries and warms the mold and shows where air stays. It does not count as yield.',
    caution: ['hot'],
  },
];

const at = (id: string) => OPEN_FACE_STEPS.find((step) => step.id === id) as Step;

/** The master stands in one block, which is slit open afterwards. */
const WRAP_STEPS: Step[] = [
  {
    id: 'board',
    text: 'Each master stands on its tail or a thin pin, or is set into an epoxy bed: nowhere nearer to a wall than the plan says. Straighten it while the bed firms.',
  },
  at('spot'),
  at('box'),
  at('level'),
  at('weigh'),
  at('bubbles'),
  at('pour'),
  at('demold'),
  {
    id: 'slit',
    text: 'Slit it along belly or back in a wavy line, so that it closes only one way; keep the eyes and the tail out of the cut. Blade away from the hand.',
  },
  {
    id: 'vents',
    text: 'Pour hole at the highest point, a vent at every other high point. The shape bench says where they are, and which tilt leaves least air.',
  },
  at('cure'),
  at('first'),
];

/** Two halves, one after the other; silicone bonds to silicone for good unless something lies between. */
const TWO_PIECE_STEPS: Step[] = [
  { id: 'bed', text: 'Bed the masters in sulphur-free clay up to the parting line; smooth the seam with a wet brush.' },
  { id: 'keys', text: 'Press keys into the bed, off the middle, so that the halves go together only one way.' },
  at('spot'),
  at('box'),
  at('level'),
  at('weigh'),
  at('bubbles'),
  { id: 'pour', text: 'First half: pour into one corner to the line. Let it set until the clock says so.' },
  {
    id: 'flip',
    text: 'Turn it over WITHOUT lifting the masters. Take the clay off, every trace of it out of the seam.',
  },
  {
    id: 'release',
    text: 'Release agent on all of the silicone, keys and seam too. Without it the halves are one for good: the second mix starts only once this is ticked.',
    caution: ['rubber'],
  },
  { id: 'second', text: 'Second half: mix the same again, tap "Mixed", pour to the line.', caution: ['rubber'] },
  at('demold'),
  {
    id: 'vents',
    text: 'Pour hole at the highest point, a vent at every other high point. The shape bench says where they are, and which tilt leaves least air.',
  },
  at('cure'),
  at('first'),
];

/** What a poured mold asks for, step by step; none for one that was made elsewhere. */
export const STEPS: Partial<Record<MoldKind, Step[]>> = {
  'silicone-open': OPEN_FACE_STEPS,
  'silicone-wrap': WRAP_STEPS,
  'silicone-two-piece': TWO_PIECE_STEPS,
};

/** The step at which rubber leaves its master: its clock says when. */
export const DEMOLD = 'demold';
/** The step without which the second half would bond to the first for good: the second mix waits for it. */
export const RELEASE = 'release';
