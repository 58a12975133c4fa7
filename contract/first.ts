/** What the first view of every page asks for. */
const EVERYWHERE = ['/session', '/workshop', '/makers', '/measures', '/line', '/clocks'];

export const BENCH_PAGE = /^\/pours\/([0-9a-f-]{36})\/bench$/;
export const SHAPE_PAGE = /^\/masters\/([0-9a-f-]{36})\/shape$/;

interface FirstView {
  page: RegExp;
  /** What it asks for besides. */
  asked(id: string): string[];
  /** The part of the program that draws it, where that is not in the first script. */
  part?: string;
  /** Fonts that its first sight is written in, besides those of every page. */
  fonts?: string[];
}

/** Pages that somebody opens with wet gloves, or on slow Wi-Fi: all that their first view needs comes with them. */
const VIEWS: FirstView[] = [
  { page: /^\/$/, asked: () => ['/today'], part: 'places/today/Today.tsx' },
  {
    page: BENCH_PAGE,
    asked: (id) => [`/pours/${id}`, '/materials?limit=200', '/oven', '/instruments', '/hands'],
    part: 'places/pours/Bench.tsx',
    fonts: ['atkinson-hyperlegible-next-latin-700-normal'],
  },
  {
    page: SHAPE_PAGE,
    // Water tests are judged beside the server: no page waits for them.
    asked: (id) => [`/masters/${id}`, '/materials?limit=200', '/masters?limit=200'],
    part: 'places/shape/ShapeBench.tsx',
  },
];

/** Addresses under /api whose answers the server puts into a page, and the part that draws it. */
export function firstView(page: string): { asked: string[]; part?: string; fonts?: string[] } {
  for (const view of VIEWS) {
    const found = view.page.exec(page);
    if (found) return { ...view, asked: [...EVERYWHERE, ...view.asked(found[1] as string)] };
  }
  return { asked: EVERYWHERE };
}

/** Where the answers stand in a page. */
export const FIRST_ANSWERS = 'first-answers';

export interface FirstAnswers {
  /** When they were given, by the server's clock. */
  now: string;
  /** The last write that they know of. */
  write: string;
  /** By the address under /api. */
  answers: Record<string, unknown>;
}
