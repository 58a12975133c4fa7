import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Ladder } from '../../../contract/water.ts';
import { tailOf } from '../../../core/shape/spec.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';

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

function NewLadder({ count }: { count: number }) {
  const navigate = useNavigate();
  const masters = useQuery(queries.masters).data?.items ?? [];
  const withTail = masters.flatMap((row) => {
    const tail = row.latest.spec ? tailOf(row.latest.spec) : null;
    return tail ? [{ row, tail }] : [];
  });
  const [name, setName] = useState(`Ladder ${count + 1}`);
  const [like, setLike] = useState('');
  const [hardness, setHardness] = useState<number | null>(34);
  const [wristHeightMm, setHigh] = useState<number | null>(6);
  const [wristLengthMm, setLong] = useState<number | null>(12);
  const [paddleDiameterMm, setAcross] = useState<number | null>(14);
  const [paddleThicknessMm, setThick] = useState<number | null>(4);
  const [walkingMPerS, setWalking] = useState<number | null>(0.6);
  const follow = (id: string) => {
    setLike(id);
    const tail = withTail.find(({ row }) => row.id === id)?.tail;
    if (!tail) return;
    setHigh(tail.wristHeightMm);
    setLong(tail.wristLengthMm);
    setAcross(tail.paddleDiameterMm);
    setThick(tail.paddleThicknessMm);
  };
  const body = {
    name,
    scale: '00',
    hardness,
    wristHeightMm,
    wristLengthMm,
    paddleDiameterMm,
    paddleThicknessMm,
    walkingMPerS,
  };
  const whole = Object.values(body).every((value) => value !== null && value !== '');
  const save = useWrite<Ladder>(
    () => ({ path: '/ladders', body }),
    (ladder) => navigate(`/ladders/${ladder.id}`),
  );
  return (
    <form
      className="sheet p-5 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (whole) save.mutate();
      }}
    >
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-5">
        <TextField label="Name" value={name} onChange={setName} />
        <SelectField
          label="Tails like those of"
          value={like}
          options={[
            { value: '', label: 'none: as typed' },
            ...withTail.map(({ row }) => ({ value: row.id, label: row.name })),
          ]}
          onChange={follow}
        />
        <NumberField label="Hardness you will pour, Shore 00" value={hardness} onChange={setHardness} min={5} />
        <NumberField
          label="Speed you draw at, m/s"
          value={walkingMPerS}
          onChange={setWalking}
          min={0.05}
          isDefault={walkingMPerS === 0.6}
          hint="a slow walk; time it over a metre"
        />
        <QuantityField label="Wrist high" dimension="length" value={wristHeightMm} onChange={setHigh} />
        <QuantityField label="Wrist long" dimension="length" value={wristLengthMm} onChange={setLong} />
        <QuantityField label="Paddle across" dimension="length" value={paddleDiameterMm} onChange={setAcross} />
        <QuantityField label="Paddle thick" dimension="length" value={paddleThicknessMm} onChange={setThick} />
      </div>
      <Refusal error={save.error} />
      <button type="submit" className="btn btn-primary self-start" disabled={!whole || save.isPending}>
        Make the five steps
      </button>
    </form>
  );
}
