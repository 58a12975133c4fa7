import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Pour, Shot } from '../../../contract/pours.ts';
import type { Grade } from '../../../core/yield/grades.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { CavityMap } from '../../parts/CavityMap.tsx';
import { ComplaintList } from '../../parts/Complaints.tsx';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { timeText } from '../../parts/hours.ts';
import { GradeDialog } from './GradeDialog.tsx';

interface Again {
  shotId: string;
  cavity: number;
  grade: Grade;
  reason: string | null;
  cameBack: boolean;
}

/** What was noted at the bags of this cup already: a bait that came back counts once, wherever it is said. */
function AtItsBag({ pour, moldId }: { pour: Pour; moldId: string }) {
  const all = useQuery(queries.complaints('moldId', moldId)).data?.items ?? [];
  const mine = all.filter(({ pourId }) => pourId === pour.id);
  if (mine.length === 0)
    return <p className="soft">Where its bag’s code is known, note it at the bag instead: it counts just so.</p>;
  return (
    <div className="warn">
      <p className="font-bold">Of these it is counted already:</p>
      <ComplaintList items={mine} />
      <p>Tap a cavity only for a bait that is none of them.</p>
    </div>
  );
}

/** A bait of a closed cup, looked at again: on the rack, or come back from a customer. */
export function Regrade({ pour }: { pour: Pour }) {
  const [shotId, setShot] = useState(pour.shots[0]?.id ?? '');
  const [cameBack, setCameBack] = useState(false);
  const [cavity, setCavity] = useState<number | null>(null);
  const again = useWrite<Pour, Again>((body) => ({ path: `/pours/${pour.id}/regraded`, body }));
  const shot = pour.shots.find((row) => row.id === shotId);
  const mold = pour.molds.find((row) => row.moldId === shot?.moldId);
  if (!shot || !mold) return null;
  return (
    <details className="no-print">
      <summary className="text-lg font-bold cursor-pointer">Looked at again</summary>
      <div className="sheet p-4 mt-2 flex flex-col gap-3">
        <div className="flex gap-4 items-end flex-wrap">
          <SelectField
            label="Shot"
            value={shotId}
            options={pour.shots.map((row: Shot, index) => ({
              value: row.id,
              label: `${index + 1}, ${timeText(row.at)}`,
            }))}
            onChange={setShot}
            className="w-40"
          />
          <label className="flex gap-2 items-center pb-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={cameBack}
              onChange={(event) => setCameBack(event.target.checked)}
            />
            it came back from a customer
          </label>
        </div>
        {cameBack && <AtItsBag pour={pour} moldId={mold.moldId} />}
        <CavityMap
          cavities={mold.cavities}
          columns={mold.columns}
          shape={mold.shape}
          bait={mold.baitId}
          marks={shot.marks}
          hex={pour.hex}
          onTap={setCavity}
          cellPx={84}
        />
        <p className="soft text-sm">
          Tap a cavity for another grade: the mold’s figures change with it, and on the{' '}
          <Link to="/rack" className="link">
            rack
          </Link>{' '}
          the bait moves, unless it came back.
        </p>
        <Refusal error={again.error} />
      </div>
      <GradeDialog
        at={cavity === null ? null : { cavity, mold, shot }}
        layers={[]}
        onClose={() => setCavity(null)}
        onRedo={() => undefined}
        onMark={(grade, reason) => {
          if (cavity !== null && grade !== 'unmarked')
            again.mutate({ shotId, cavity, grade, reason: reason ?? null, cameBack });
          setCavity(null);
        }}
      />
    </details>
  );
}
