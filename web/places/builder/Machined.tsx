import { useState } from 'react';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { TRIAL_BALL_MM } from '../../../core/shape/toolReach.ts';
import { fileName, handOver } from '../../parts/files.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import type { Built } from './useMolder.ts';

interface Props {
  mold: DrawnMold | null;
  wish: MoldWish;
  cutter: Built['cutter'];
  stale: boolean;
  /** Whose mold it is, as the sheet is headed. */
  of: string;
}

/** Which cutter a machined mold asks for, and its set-up sheet. */
export function Machined({ mold, wish, cutter, stale, of }: Props) {
  const { text, fine, taste } = useTaste();
  const [problem, setProblem] = useState<string | null>(null);
  const sheet = async () => {
    if (!mold) return;
    try {
      setProblem(null);
      const { setUpPdf } = await import('./setUpPdf.ts');
      const bytes = await setUpPdf(mold, wish, of, cutter, taste.system === 'us' ? 'Letter' : 'A4');
      handOver(bytes, 'application/pdf', fileName(of, 'set-up.pdf'));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className="flex flex-col gap-1">
      <p className="text-sm">
        {cutter === null
          ? 'Working out the cutter …'
          : cutter.largestBallMm === null
            ? `No usual ball cutter reaches all: one of ${text(TRIAL_BALL_MM, 'length')} leaves ${fine(cutter.leftoverMm)}. Ease the corners, or spark them.`
            : `A ball of ${text(cutter.largestBallMm, 'length')} reaches all of it: inside corners of ${text(cutter.largestBallMm / 2, 'length')} or more.`}
      </p>
      <button
        type="button"
        className="btn btn-sm btn-line self-start"
        disabled={stale || cutter === null}
        onClick={() => void sheet()}
      >
        Set-up sheet (PDF)
      </button>
      {problem && <p className="heat text-sm">{problem}</p>}
      <button type="button" className="btn btn-sm btn-line self-start" disabled={stale} onClick={() => window.print()}>
        Print the set-up sheet
      </button>
    </div>
  );
}
