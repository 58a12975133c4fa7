import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Pour } from '../../../contract/pours.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { colourOf, gramColour } from '../../../core/plastisol/bin.ts';
import { queries } from '../../api/queries.ts';
import { Looks } from '../../parts/plastic/Looks.tsx';
import { meltOfDoses } from '../../parts/plastic/melts.ts';
import { useTaste } from '../../parts/taste.tsx';

/** The puck of this pour beside what was foreseen of it, remelt and all. */
export function HowItLooks({ pour }: { pour: Pour }) {
  const { measures, workshop } = useTaste();
  const materials = useQuery(queries.materials).data?.items;
  const bins = useQuery(queries.bins).data?.items;
  const { dropsPerMl } = workshop;
  const melt = useMemo(() => {
    if (!materials || !bins) return null;
    const plastic = colourOf(
      pour.parts.map(({ binId, share }) => ({
        grams: share,
        colour: gramColour(share, bins.find((bin) => bin.id === binId)?.colour?.optics ?? PLAIN_PLASTIC),
      })),
    );
    const plain = plastic?.optics ?? PLAIN_PLASTIC;
    return meltOfDoses(pour.doses, materials, pour.cookMl, { measures, dropsPerMl, plain });
  }, [pour, materials, bins, measures, dropsPerMl]);
  if (!melt || pour.doses.length === 0) return null;
  return (
    <div className="no-print">
      <Looks ledgerId={pour.ledgerId} melt={melt} />
    </div>
  );
}
