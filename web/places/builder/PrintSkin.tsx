import { useState } from 'react';
import { usual } from '../../../core/defaults.ts';
import { methodWindow, pourWindow } from '../../../core/heat/window.ts';
import { LEAST_SKIN_MM, PRINT_BEARS_C, printSkin, USUAL_PRINT } from '../../../core/mold/skin.ts';
import { MmField } from '../../parts/MmField.tsx';
import { useTaste } from '../../parts/taste.tsx';
import type { DrawnMold } from '../../workers/molder.ts';

type Stuff = keyof typeof PRINT_BEARS_C;

/** Whether the print's skin holds, and how hot it may be poured. */
export function PrintSkin({ mold }: { mold: DrawnMold | null }) {
  const { text } = useTaste();
  const [print, setPrint] = useState(USUAL_PRINT);
  const [stuff, setStuff] = useState<Stuff>('PLA');
  const skin = printSkin(print);
  const { lowC, highC, name } = methodWindow({ kind: 'printed', fill: 'injection' });
  const window = pourWindow({
    lowC,
    highC: Math.max(highC, PRINT_BEARS_C[stuff]),
    method: name,
    flakeLimitsC: [],
    moldLimitC: PRINT_BEARS_C[stuff],
    scorchC: usual('scorchC'),
  });
  const set = (part: Partial<typeof print>) => setPrint({ ...print, ...part });
  return (
    <section className="flex flex-col gap-1.5" aria-label="Print">
      <MmField
        label="Perimeters"
        value={print.perimeters}
        least={1}
        most={30}
        step={1}
        plain
        onChange={(perimeters) => set({ perimeters })}
      />
      <MmField
        label="Line, mm"
        value={print.lineMm}
        least={0.1}
        most={2}
        step={0.02}
        plain
        onChange={(lineMm) => set({ lineMm })}
      />
      <MmField
        label="Solid layers"
        value={print.layers}
        least={1}
        most={100}
        step={1}
        plain
        onChange={(layers) => set({ layers })}
      />
      <MmField
        label="Layer, mm"
        value={print.layerMm}
        least={0.03}
        most={1}
        step={0.05}
        plain
        onChange={(layerMm) => set({ layerMm })}
      />
      <p className={`text-sm ${skin.holds ? '' : 'heat font-bold'}`}>
        Skin {text(skin.sideMm, 'length')} at the sides, {text(skin.flatMm, 'length')} over and under
        {skin.holds
          ? ': it holds.'
          : `: plastic blows through under ${text(LEAST_SKIN_MM, 'length')}. ${skin.perimetersNeeded} perimeters and ${skin.layersNeeded} layers hold.`}
      </p>
      <select
        className="select select-sm"
        aria-label="Printed in"
        value={stuff}
        onChange={(event) => setStuff(event.target.value as Stuff)}
      >
        {(Object.keys(PRINT_BEARS_C) as Stuff[]).map((one) => (
          <option key={one} value={one}>
            {one}, bears {text(PRINT_BEARS_C[one], 'temperature')}
          </option>
        ))}
      </select>
      <p className="text-sm">
        Cook it hot, pour it from {text(window.lowC, 'temperature')} to {text(window.highC, 'temperature')}.{' '}
        {window.advice} <span className="default-mark">defaults: its own sheet wins</span>
      </p>
      {mold && (
        <p className="text-sm">
          Two backing plates of plywood, {text(mold.blockMm[0], 'length')} × {text(mold.blockMm[1], 'length')},{' '}
          {text(12, 'length')} or more (a default); {mold.layout.clamps.length} clamps along the seam, first on opposite
          corners:{' '}
          {mold.layout.clamps
            .slice(0, 2)
            .map(({ x, y }) => `${text(x, 'length')} along on the ${y > 0 ? 'far' : 'near'} edge`)
            .join(', ')}
          .
        </p>
      )}
    </section>
  );
}
