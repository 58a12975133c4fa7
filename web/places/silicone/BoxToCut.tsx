import { useState } from 'react';
import { boardParts, type Inside, netSvg } from '../../../core/mold/boxParts.ts';
import type { Paper } from '../../../core/mold/tiles.ts';
import { fileName, handOver } from '../../parts/files.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** What to cut for the box: boards, or a net to fold from card. */
export function BoxToCut({ inside, name }: { inside: Inside; name: string }) {
  const { text, taste } = useTaste();
  const [boardMm, setBoard] = useState(5);
  const paper: Paper = taste.system === 'us' ? 'Letter' : 'A4';
  const [problem, setProblem] = useState<string | null>(null);
  const svg = () => handOver(netSvg(inside), 'image/svg+xml', fileName(name, 'box.svg'));
  const pdf = async () => {
    try {
      setProblem(null);
      // Only who asks for a PDF fetches what writes it.
      const { boxPdf } = await import('./boxPdf.ts');
      handOver(await boxPdf(inside, boardMm, name, paper), 'application/pdf', fileName(name, 'box.pdf'));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <details className="max-w-2xl">
      <summary className="cursor-pointer font-bold">The box to cut</summary>
      <div className="grid grid-cols-1 sm:grid-cols-[minmax(0,1fr)_220px] gap-8 mt-2">
        <table className="text-sm">
          <tbody>
            {boardParts(inside, boardMm).map((part) => (
              <tr key={part.name} className="border-t border-[var(--rule)]">
                <td className="figure py-1 pr-3">{part.count} ×</td>
                <td className="pr-4">{part.name}</td>
                <td className="figure text-right">
                  {text(part.lengthMm, 'length')} × {text(part.widthMm, 'length')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="flex flex-col gap-2">
          <MmField label="Board" value={boardMm} least={0.2} most={30} step={0.5} onChange={setBoard} />
          <button type="button" className="btn btn-sm btn-line" onClick={() => void pdf()}>
            Cut list and net, 1:1 (PDF)
          </button>
          <button type="button" className="btn btn-sm btn-line" onClick={svg}>
            Net for card, 1:1 (SVG)
          </button>
          {problem && <p className="heat text-sm">{problem}</p>}
          <p className="label-small">
            Sides stand {text(5, 'length')} over the line. Seal the seams; it leaks anyway: hot glue ready.
          </p>
        </div>
      </div>
    </details>
  );
}
