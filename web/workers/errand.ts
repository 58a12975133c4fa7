import { Failure, type Told } from '../../core/failure.ts';
import './refusals.ts';
/** A worker as an errand sees it: asked one thing at a time. */
export interface Hand<Wish, Answer, Part> {
  ask(wish: Wish, tell: (part: Part) => void): Promise<Answer>;
  /** Calls back when the worker is gone and will answer nothing more. */
  died(hear: (why: string) => void): void;
  end(): void;
}

export interface Hearing<Wish, Answer, Part> {
  begins?(wish: Wish): void;
  part?(wish: Wish, part: Part): void;
  answer(wish: Wish, answer: Answer): void;
  problem(wish: Wish, why: Told): void;
}

export interface Manner {
  /** What a newer wish does to the one under way: lets it finish and be shown, or ends it at once. */
  newer: 'waits' | 'ends';
  /** A worker that is silent for so long counts as dead, ms. */
  longestMs?: number;
}

const LONGEST_MS = 120_000;
const words = (error: unknown): Told =>
  error instanceof Failure ? error.told : error instanceof Error ? error.message : String(error);

/**
 * Sends a worker for the latest wish. An answer is told as soon as it is there and never after a newer one's; a worker
 * that dies is replaced and asked once more; after `end` nothing is told.
 */
export class Errand<Wish, Answer, Part = never> {
  private hand: Hand<Wish, Answer, Part> | null = null;
  private under: { wish: Wish; deaths: number } | null = null;
  private waiting: { wish: Wish; deaths: number } | null = null;
  private silence: ReturnType<typeof setTimeout> | undefined;
  private ended = false;

  constructor(
    private readonly hire: () => Hand<Wish, Answer, Part>,
    private readonly hear: Hearing<Wish, Answer, Part>,
    private readonly manner: Manner,
  ) {}

  wish(wish: Wish): void {
    if (this.ended) return;
    this.waiting = { wish, deaths: 0 };
    if (this.under && this.manner.newer === 'ends') this.dismiss();
    this.go();
  }

  /** Gives up what is under way and what waits. */
  stop(): void {
    this.waiting = null;
    if (this.under) this.dismiss();
  }

  end(): void {
    this.ended = true;
    this.waiting = null;
    this.dismiss();
  }

  private dismiss(): void {
    clearTimeout(this.silence);
    this.hand?.end();
    this.hand = null;
    this.under = null;
  }

  private go(): void {
    if (this.under || !this.waiting || this.ended) return;
    const errand = this.waiting;
    this.waiting = null;
    this.under = errand;
    const mine = () => this.under === errand;
    if (errand.deaths === 0) this.hear.begins?.(errand.wish);
    try {
      this.hand ??= this.hired();
    } catch (error) {
      this.under = null;
      this.hear.problem(errand.wish, words(error));
      return;
    }
    this.watch();
    this.hand
      .ask(errand.wish, (part) => {
        if (!mine()) return;
        this.watch();
        this.hear.part?.(errand.wish, part);
      })
      .then(
        (answer) => mine() && this.close(() => this.hear.answer(errand.wish, answer)),
        (error: unknown) => mine() && this.close(() => this.hear.problem(errand.wish, words(error))),
      );
  }

  private close(tell: () => void): void {
    clearTimeout(this.silence);
    this.under = null;
    tell();
    this.go();
  }

  private hired(): Hand<Wish, Answer, Part> {
    const hand = this.hire();
    hand.died((why) => {
      if (this.hand === hand) this.replace(why);
    });
    return hand;
  }

  private watch(): void {
    clearTimeout(this.silence);
    this.silence = setTimeout(() => this.replace('it did not answer'), this.manner.longestMs ?? LONGEST_MS);
  }

  /** A dead worker's wish is tried once more unless a newer one waits; what kills two workers is told as a problem. */
  private replace(why: string): void {
    const errand = this.under;
    this.dismiss();
    if (!errand || this.ended) return;
    if (this.waiting) this.go();
    else if (errand.deaths === 0) {
      this.waiting = { wish: errand.wish, deaths: 1 };
      this.go();
    } else
      this.hear.problem(errand.wish, `Its worker stopped twice (${why}). Change a figure, or load the page again.`);
  }
}
