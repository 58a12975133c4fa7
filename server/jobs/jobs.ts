import type { Response } from 'express';
import { mustFindCalculator } from '../../core/calculators.ts';
import type { ArchiveWork } from './archiveWork.ts';
import type { CalcWork } from './calcWork.ts';
import { type Asking, Lane } from './lane.ts';

const MINUTE_MS = 60_000;

/** Calculators that make or judge solids: minutes are allowed for them, seconds for all others. */
const takesLong = (name: string) =>
  mustFindCalculator(name).takesMesh === true || name === 'bait.sculpt' || name === 'mold.build';

/** Three lanes beside the server's own thread, so that a figure never waits for a solid, nor either for a backup. */
export class Jobs {
  private readonly solids: Lane<CalcWork>;
  private readonly figures: Lane<CalcWork>;
  readonly archive: Lane<ArchiveWork>;

  constructor(tell: (name: string, done: number) => void) {
    this.solids = new Lane({
      work: './calcWork.ts',
      longestMs: 2 * MINUTE_MS,
      tooLong: 'That took longer than two minutes; make the mesh coarser.',
      tell,
    });
    this.figures = new Lane({
      work: './calcWork.ts',
      longestMs: MINUTE_MS / 3,
      tooLong: 'That took longer than twenty seconds; ask for less at once.',
      tell,
    });
    this.archive = new Lane({
      work: './archiveWork.ts',
      longestMs: 120 * MINUTE_MS,
      tooLong: 'That took longer than two hours.',
    });
  }

  solid = <T>(task: CalcWork, asking?: Asking) => this.solids.run<T>(task, asking);

  /** @throws Failure `unknown-calculator`, or what the calculator itself refuses. */
  calculate(name: string, input: unknown, asking?: Asking, bytes?: Uint8Array): Promise<unknown> {
    const lane = takesLong(name) ? this.solids : this.figures;
    return lane.run({ kind: 'calc', name, input, ...(bytes ? { bytes } : {}) }, asking);
  }

  cancel = (name: string) => this.solids.cancel(name) || this.figures.cancel(name);

  close(): void {
    for (const lane of [this.solids, this.figures, this.archive]) lane.close();
  }
}

/** Ends when the client of this request leaves before it was answered. */
export function leaving(response: Response): AbortSignal {
  const left = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) left.abort();
  });
  return left.signal;
}
