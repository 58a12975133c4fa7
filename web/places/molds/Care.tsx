import type { Mold } from '../../../contract/molds.ts';
import { chart } from '../../../core/yield/counts.ts';
import { failing, flashRises } from '../../../core/yield/wear.ts';
import { useWrite } from '../../api/write.ts';
import { LineChart } from '../../parts/Chart.tsx';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { CareMap } from './CareMap.tsx';

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** How worn it is, which cavity keeps failing, whether it gapes, and when its faces were cleaned. */
export function Care({ mold }: { mold: Mold }) {
  // What has no second half has no seam to gape.
  const gapes = mold.kind !== 'silicone-open' && mold.kind !== 'dip-rods';
  return (
    <section className="flex flex-col gap-4">
      <h2>Care</h2>
      <Life mold={mold} />
      {mold.made === 0 ? (
        <p className="soft">
          No shot is counted yet. Rejects start from 1 in 20, a default, until this mold’s own are known.
        </p>
      ) : (
        <>
          <p>
            <b className="figure text-xl">{percent(mold.rejected / mold.made)}</b> rejected, {mold.rejected} of{' '}
            {mold.made} counted. <WorstCavity mold={mold} />
          </p>
          <CareMap mold={mold} />
        </>
      )}
      {gapes && <Flash mold={mold} />}
      {gapes && <Cleaning mold={mold} />}
    </section>
  );
}

function Life({ mold }: { mold: Mold }) {
  const { life } = mold.care;
  return (
    <div>
      <p>
        <b className="figure text-xl">{mold.shots}</b> shots so far.{' '}
        {life.shots === null ? (
          life.from === 0 ? (
            <span className="soft">
              None of this kind was retired here yet, so nothing is known of how long they last.
            </span>
          ) : (
            <span className="soft">
              {life.from} of this kind {life.from === 1 ? 'was' : 'were'} retired: too few to tell how long they last.
            </span>
          )
        ) : (
          <>
            Half of this kind were worn out after <b className="figure">{life.shots}</b>
            <span className="soft"> ({life.from} retired here)</span>
            {mold.shots > life.shots ? ': past that, look at its edges.' : '.'}
          </>
        )}
      </p>
      {life.shots !== null && !mold.retiredAt && <LifeScale shots={mold.shots} half={life.shots} />}
    </div>
  );
}

/** Shots as a marked scale, with where half of its kind had gone. */
function LifeScale({ shots, half }: { shots: number; half: number }) {
  const most = Math.max(shots, half) * 1.15;
  const x = (n: number) => 4 + (n / most) * 412;
  const step = 10 ** Math.floor(Math.log10(most)) / (most / 10 ** Math.floor(Math.log10(most)) < 3 ? 2 : 1);
  const marks = Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step);
  return (
    <svg
      viewBox="0 0 430 46"
      className="mt-2 w-full max-w-[430px] h-auto"
      role="img"
      aria-label={`${shots} shots of ${half}`}
    >
      <rect
        x={4}
        y={6}
        width={Math.max(1, x(shots) - 4)}
        height={12}
        fill={shots > half ? 'var(--heat)' : 'var(--rest)'}
      />
      <line x1={4} x2={416} y1={18} y2={18} stroke="var(--ink)" strokeWidth={2} />
      {marks.map((n) => (
        <g key={n}>
          <line x1={x(n)} x2={x(n)} y1={18} y2={24} stroke="var(--ink)" />
          <text x={x(n)} y={36} fontSize={11} textAnchor="middle" className="figure" fill="var(--soft)">
            {n}
          </text>
        </g>
      ))}
      <path d={`M${x(half)} 2 v16`} stroke="var(--heat)" strokeWidth={3} />
    </svg>
  );
}

function WorstCavity({ mold }: { mold: Mold }) {
  const worst = mold.health.filter((one) => failing(one, mold, mold.cavities));
  if (worst.length === 0) return null;
  return (
    <b className="warn">
      {worst.length === 1
        ? `Cavity ${worst[0]?.cavity} keeps failing.`
        : `Cavities ${worst.map((one) => one.cavity).join(', ')} keep failing.`}
    </b>
  );
}

/** Flash by pour against what chance alone does; it rises where faces are dirty, warped or badly clamped. */
function Flash({ mold }: { mold: Mold }) {
  const { flash } = mold.care;
  const total = flash.reduce((sum, one) => sum + one.flash, 0);
  if (flash.length < 3 || total === 0) return null;
  const limits = chart({ points: flash.map(({ made, flash: n }) => ({ made, rejected: n })) });
  const above = limits.points.filter((point) => point.p > point.ucl).length;
  const { rises, recent, before } = flashRises(flash.map(({ made, flash: n }) => ({ made, rejected: n })));
  return (
    <div>
      <h3 className="mb-1">Flash, pour by pour</h3>
      <LineChart
        labels={flash.map((one) => one.code)}
        series={[
          { label: 'with flash', values: limits.points.map((one) => 100 * one.p), colour: '--heat', points: true },
          {
            label: 'limit of chance',
            values: limits.points.map((one) => 100 * one.ucl),
            colour: '--soft',
            dashed: true,
            stepped: true,
          },
        ]}
        says={`Flash in ${total} baits over ${flash.length} pours`}
        unit=" %"
        heightPx={150}
      />
      <p className={rises || above > 0 ? 'warn font-bold' : 'soft'}>
        {rises
          ? `The last five pours: ${percent(recent)}, before them ${percent(before)}. Clean the parting faces, clamp on opposite corners, look for a warped seam.`
          : above > 0
            ? `${above} ${above === 1 ? 'pour lies' : 'pours lie'} over what chance does: clamps on opposite corners, faces clean, cup not too hot.`
            : `${percent(limits.pBar)} over all: nothing beyond chance.`}
      </p>
    </div>
  );
}

function Cleaning({ mold }: { mold: Mold }) {
  const { cleanedAt, shotsSinceCleaned } = mold.care;
  const clean = useWrite<Mold>(() => ({ path: `/molds/${mold.id}/events`, body: { kind: 'cleaned' } }));
  return (
    <div className="flex items-center gap-4 flex-wrap">
      <p>
        Parting faces{' '}
        {cleanedAt ? (
          <>
            last cleaned {dateText(cleanedAt)}, <b className="figure">{shotsSinceCleaned}</b> shots ago.
          </>
        ) : (
          'never cleaned, as far as is written down.'
        )}
      </p>
      <button type="button" className="btn btn-line" disabled={clean.isPending} onClick={() => clean.mutate()}>
        Cleaned now
      </button>
      <Refusal error={clean.error} />
    </div>
  );
}
