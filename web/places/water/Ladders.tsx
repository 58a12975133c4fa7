import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import { type Ladder, ladderBody } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { USUAL_SHORE } from '../../../core/plastisol/hardness.ts';
import { tailOf } from '../../../core/shape/spec.ts';
import { TRIALS_NEEDED } from '../../../core/water/fitKick.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { FitRanges } from './FitRanges.tsx';

/** Every tail ladder, what the trials say so far, and a new one. */
export function Ladders() {
  const ladders = useQuery(queries.ladders).data?.items;
  const fit = useQuery(queries.kickFit).data;
  const [making, setMaking] = useState(false);
  if (!ladders || !fit) return <Waiting />;
  const [away, here] = [ladders.filter((ladder) => ladder.awayAt), inUse(ladders)];
  const open = making || ladders.length === 0;
  return (
    <Page
      title="Tail ladder"
      tab="Tail ladder"
      under="Five stubs with stepped wrists and paddles, poured together and drawn through a tub: one evening instead of weeks."
      actions={
        ladders.length > 0 && (
          <button type="button" className="btn btn-primary" onClick={() => setMaking(!making)}>
            New ladder
          </button>
        )
      }
    >
      {open && <NewLadder count={ladders.length} />}
      <div className="grid grid-cols-1 md:grid-cols-2 gap-12">
        <section className="max-w-md">
          <h2 className="mb-2">Your plastic, so far</h2>
          {fit.fit ? (
            <div className="flex flex-col gap-4">
              <FitRanges fit={fit.fit} />
              <p>
                From {fit.fromLadders} trials on ladders and {fit.fromTests} water tests. An onset speed is good to
                about <span className="figure whitespace-nowrap">± {Math.round(fit.fit.onsetUncertainty * 100)} %</span>
                {fit.fit.n < TRIALS_NEEDED
                  ? `; ${TRIALS_NEEDED} trials are needed before the shape bench uses it.`
                  : '; the shape bench uses it.'}
              </p>
              <p className="label-small">The dashed mark is the default that it began from.</p>
            </div>
          ) : (
            <p className="soft">No trial yet: the shape bench estimates from default constants.</p>
          )}
        </section>
        <section>
          <h2 className="mb-2">Ladders</h2>
          {ladders.length === 0 && <p className="soft">None yet. The first is made above.</p>}
          <ul className="ruled">
            {here.map((ladder) => (
              <li key={ladder.id} className="py-2 flex flex-wrap gap-x-4 items-baseline">
                <Link to={`/ladders/${ladder.id}`} className="link font-bold flex-1">
                  {ladder.name}
                </Link>
                <span className="figure text-sm">
                  Shore {ladder.scale} {ladder.hardness}
                </span>
                <span className="text-sm">{ladder.trials} trials</span>
                <span className="soft text-sm">{dateText(ladder.createdAt)}</span>
              </li>
            ))}
          </ul>
          <Away count={away.length}>
            {away.map((ladder) => (
              <li key={ladder.id}>
                <Link to={`/ladders/${ladder.id}`} className="link">
                  {ladder.name}
                </Link>
              </li>
            ))}
          </Away>
        </section>
      </div>
    </Page>
  );
}

interface Typed {
  name: string;
  scale: '00';
  hardness: number | null;
  wristHeightMm: number | null;
  wristLengthMm: number | null;
  paddleDiameterMm: number | null;
  paddleThicknessMm: number | null;
  walkingMPerS: number | null;
}

function NewLadder({ count }: { count: number }) {
  const navigate = useNavigate();
  const masters = useQuery(queries.masters).data?.items ?? [];
  const withTail = masters.flatMap((row) => {
    const tail = row.latest.spec ? tailOf(row.latest.spec) : null;
    return tail ? [{ row, tail }] : [];
  });
  const [begun] = useState<Typed>({
    name: `Ladder ${count + 1}`,
    scale: '00',
    hardness: USUAL_SHORE['00'],
    wristHeightMm: 6,
    wristLengthMm: 12,
    paddleDiameterMm: 14,
    paddleThicknessMm: 4,
    walkingMPerS: usual('walkingMPerS'),
  });
  const [like, setLike] = useState('');
  const sheet = useSheet<Typed>({ schema: ladderBody, keep: 'ladder', seen: begun });
  const follow = (id: string) => {
    setLike(id);
    const tail = withTail.find(({ row }) => row.id === id)?.tail;
    if (!tail) return;
    for (const key of ['wristHeightMm', 'wristLengthMm', 'paddleDiameterMm', 'paddleThicknessMm'] as const)
      sheet.set(key, tail[key]);
  };
  const save = useWrite<Ladder>(
    () => ({ path: '/ladders', body: sheet.values }),
    (ladder) => {
      sheet.done();
      navigate(`/ladders/${ladder.id}`);
    },
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="sheet p-5 flex flex-col gap-3">
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-5">
        <TextIn at="name" />
        <SelectField
          label="Tails like those of"
          value={like}
          options={[
            { value: '', label: 'none: as typed' },
            ...withTail.map(({ row }) => ({ value: row.id, label: row.name })),
          ]}
          onChange={follow}
        />
        <FigureIn at="hardness" starts />
        <FigureIn at="walkingMPerS" hint="a slow walk; time it over a metre" />
        <FigureIn at="wristHeightMm" starts />
        <FigureIn at="wristLengthMm" starts />
        <FigureIn at="paddleDiameterMm" starts />
        <FigureIn at="paddleThicknessMm" starts />
      </div>
      <Send className="">Make the five steps</Send>
    </Sheet>
  );
}
