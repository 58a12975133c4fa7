import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { MasterRow } from '../../../contract/masters.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Mold } from '../../../contract/molds.ts';
import { tried } from '../../../core/failure.ts';
import { type Choices, type Planned, planBlock, STARTING, type Way } from '../../../core/mold/blockPlan.ts';
import { useWrite } from '../../api/write.ts';
import { useTaste } from '../../parts/taste.tsx';
import { rankRubbers } from './RubberFit.tsx';
import { POURS } from './ways.ts';

type Stepped = 'count' | 'wallMm' | 'gapMm' | 'coverMm' | 'wastePercent';

/** All that the planner knows and does, without its looks. */
export function usePlanning(masters: MasterRow[], rubbers: Material[]) {
  const { workshop } = useTaste();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const [masterId, setMasterId] = useState(
    search.get('master') ?? masters.find((row) => row.latest.volumeMl)?.id ?? masters[0]?.id ?? '',
  );
  const [rubberId, setRubberId] = useState('');
  const [choices, setChoices] = useState<Choices>({
    ...STARTING,
    way: (Object.keys(POURS) as Way[]).find((one) => one === search.get('pour')) ?? 'open-face',
    roomC: workshop.roomC,
  });
  const [named, setName] = useState<string>();
  const master = masters.find((row) => row.id === masterId) ?? (masters[0] as MasterRow);
  const rubber = rubbers.find((row) => row.id === rubberId) ?? rankRubbers(rubbers, choices.way)[0];
  const planned = rubber && tried(() => planBlock(master.latest, rubber, choices));
  const found = planned?.value ?? null;
  const change = (part: Partial<Choices>) => setChoices((now) => ({ ...now, ...part }));
  const title = `${master.name} × ${choices.count}, ${POURS[choices.way].words}`;
  const name = named ?? title;
  const { kind, fill } = POURS[choices.way];
  const make = useWrite<Mold, boolean>(
    (mixed) => ({
      path: '/molds',
      body: {
        name,
        kind,
        fill,
        baitId: master.baitId,
        revisionId: master.latest.id,
        cavities: choices.count,
        cavityMl: found?.master.volumeMl,
        rubberId: rubber?.id,
        planInput: found?.input,
        making: found?.making,
        mixed,
      },
    }),
    (mold) => navigate(`/molds/${mold.id}`),
  );
  return {
    master,
    rubber,
    choices,
    found,
    refused: planned?.refused,
    title,
    name,
    setName,
    make,
    change,
    setRubberId,
    // Another box or another count puts the masters back into their rows.
    step: (key: Stepped, by: number, least: number) =>
      change({ [key]: Math.max(least, choices[key] + by), places: null }),
    setWay: (way: Way) => change({ way, places: null }),
    setMasterId: (id: string) => {
      setMasterId(id);
      change({ places: null, filledMl: null });
    },
  };
}

export type Planning = ReturnType<typeof usePlanning>;

/** A plan of which all is known. */
export type Laid = Planning & { found: Planned; rubber: Material };
export const isLaid = (planning: Planning): planning is Laid =>
  planning.found !== null && planning.found.plan.pours.length > 0 && planning.rubber !== undefined;
