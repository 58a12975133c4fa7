import { useState } from 'react';
import { boardParts, type Inside, netSvg } from '../../../core/mold/boxParts.ts';
import { useTaste } from '../../parts/taste.tsx';
import { MmField } from '../shape/MmField.tsx';

/** What to cut for the box: boards, or a net to fold from card. */
export function BoxToCut({ inside, name }: { inside: Inside; name: string }) {
  const { text } = useTaste();
  const [boardMm, setBoard] = useState(5);
  const download = () => {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([netSvg(inside)], { type: 'image/svg+xml' }));
    link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, '-')}-box.svg`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <details className="max-w-2xl">
      <summary className="cursor-pointer font-bold">The box to cut</summary>
      <div className="grid grid-cols-[1fr_220px] gap-8 mt-2">
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
          <button type="button" className="btn btn-sm btn-line" onClick={download}>
            Net for card, 1:1 (SVG)
          </button>
          <p className="label-small">
            Sides stand 5 mm over the line. Seal the seams; it leaks anyway: hot glue ready.
          </p>
        </div>
      </div>
    </details>
  );
}
