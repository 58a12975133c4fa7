import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type Ladder, ladderBody } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { USUAL_SHORE } from '../../../core/plastisol/hardness.ts';
import { tailOf } from '../../../core/shape/spec.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

/** Every tail ladder, what the trials say so far, and a new one. */
export function Ladders() {
  const ladders = useQuery(queries.ladders).data?.items;
  const fit = useQuery(queries.kickFit).data;
  const [making, setMaking] = useState(false);
  if (!ladders || !fit) return <Waiting />;
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
              <Range
                label="Strouhal number"
                value={fit.fit.strouhal}
                range={fit.fit.strouhalRange as [number, number]}
                usual={0.2}
                most={0.5}
              />
              <Range
                label="Moved water, share"
                value={fit.fit.addedMassCoefficient}
                range={fit.fit.addedMassRange as [number, number]}
                usual={0.6}
                most={1.6}
              />
              <p>
                From {fit.fromLadders} trials on ladders and {fit.fromTests} water tests. An onset speed is good to
                about <span className="figure whitespace-nowrap">± {Math.round(fit.fit.onsetUncertainty * 100)} %</span>
                {fit.fit.n < 3
                  ? '; three trials are needed before the shape bench uses it.'
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
            {ladders.map((ladder) => (
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
        </section>
      </div>
    </Page>
  );
}

/** A constant on its scale: the value, the range that holds it four times in five, and where it began. */
export function Range({
  label,
  value,
  range,
  usual,
  most,
}: {
  label: string;
  value: number;
  range: [number, number];
  usual: number;
  most: number;
}) {
  const x = (n: number) => 20 + (Math.min(n, most) / most) * 420;
  const steps = most > 1 ? 4 : 5;
  return (
    <figure aria-label={`${label} ${value.toFixed(2)}, between ${range[0].toFixed(2)} and ${range[1].toFixed(2)}`}>
      <figcaption>
        <span className="label-small block">{label}</span>
        <span className="figure text-xl">{value.toFixed(2)}</span>{' '}
        <span className="soft text-sm">
          {range[0].toFixed(2)} to {range[1].toFixed(2)} four times in five
        </span>
      </figcaption>
      <svg width="100%" viewBox="0 0 460 46" aria-hidden>
        <line x1={20} x2={440} y1={24} y2={24} stroke="var(--ink)" strokeWidth={1.5} />
        {Array.from({ length: steps + 1 }, (_, i) => (i * most) / steps).map((n) => (
          <g key={n}>
            <line x1={x(n)} x2={x(n)} y1={24} y2={31} stroke="var(--ink)" />
            <text x={x(n)} y={44} fontSize={12} textAnchor="middle" fill="var(--ink)">
              {n.toFixed(1)}
            </text>
          </g>
        ))}
        <rect
          x={x(range[0])}
          width={Math.max(3, x(range[1]) - x(range[0]))}
          y={12}
          height={12}
          fill="var(--liquid)"
          stroke="var(--rest)"
        />
        <line x1={x(usual)} x2={x(usual)} y1={4} y2={30} stroke="var(--warn)" strokeWidth={2} strokeDasharray="3 3" />
        <line x1={x(value)} x2={x(value)} y1={3} y2={30} stroke="var(--rest)" strokeWidth={3.5} />
      </svg>
    </figure>
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
