import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Pour } from '../../../contract/pours.ts';
import { cupWindow } from '../../../core/heat/window.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { cupTotals } from '../../../core/plastisol/cup.ts';
import { cupsText } from '../../../core/units/show.ts';
import { countGrades } from '../../../core/yield/grades.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText, dayText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { gradesText, reasonWords } from '../../parts/grades.ts';
import { timeText } from '../../parts/hours.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { ScaledRow } from '../../parts/ScaledRecipe.tsx';
import { Stood } from '../../parts/Stood.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { CloseForm } from './CloseForm.tsx';
import { CupCurve } from './CupCurve.tsx';
import { Hardness } from './Hardness.tsx';
import { HowItLooks } from './HowItLooks.tsx';
import { MassBalance } from './MassBalance.tsx';
import { Parts } from './Parts.tsx';
import { Regrade } from './Regrade.tsx';

/** All of one cup on one page: laid out, poured, weighed, read; it prints as the pour sheet. */
export function PourSheet() {
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const { data: pour, error } = useQuery(queries.pour(id));
  const { text } = useTaste();
  if (isGone(error, pour)) return <Missing error={error} back="All pours" backTo="/pours" />;
  if (!pour) return <Waiting />;
  // Its molds are another cup's: it is weighed with that one.
  const closing = !pour.closedAt && pour.leadId === null && (search.has('close') || pour.shots.length > 0);
  return (
    <Page
      title={
        <span className="flex items-center gap-4">
          <Puck hex={pour.hex} sizePx={64} name={pour.recipeName} />
          <span>
            {pour.recipeName} <span className="figure text-xl soft">{pour.code}</span>
          </span>
        </span>
      }
      tab={`${pour.code} ${pour.recipeName}`}
      under={
        <>
          {dateText(pour.laidOutAt)}, {timeText(pour.laidOutAt)}.{' '}
          {pour.layers.length > 1 && (
            <>
              For{' '}
              <Link to={`/colours/${pour.colourwayId}`} className="link">
                {pour.colourwayName}
              </Link>
              .{' '}
            </>
          )}
          Recipe{' '}
          <Link to={`/colours/${pour.recipeId}`} className="link">
            {pour.recipeName} v{pour.recipeRevision}
          </Link>
          .{' '}
          {pour.discardedAt
            ? 'Put away before anything was drawn.'
            : pour.closedAt
              ? 'Closed; it stands as it was.'
              : pour.startedAt
                ? 'Under way.'
                : 'Laid out.'}
        </>
      }
      actions={
        <>
          <button type="button" className="btn btn-line" onClick={() => window.print()}>
            Print the sheet
          </button>
          {pour.shots.length === 0 && pour.lent.shots === 0 && !pour.balance && <PutAway pour={pour} />}
          {!pour.closedAt && (
            <>
              <Link to={`/pours/${pour.id}/evening`} className="btn btn-line btn-lg">
                The evening
              </Link>
              <Link to={`/pours/${pour.id}/bench`} className="btn btn-accent btn-lg">
                To the bench
              </Link>
            </>
          )}
        </>
      }
    >
      {closing && <CloseForm pour={pour} open={search.has('close')} />}
      {pour.closedAt && <MassBalance pour={pour} />}
      {pour.curedAt && pour.closedAt && <Hardness pour={pour} />}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(320px,420px)] gap-12 print:grid-cols-1">
        <div className="flex flex-col gap-8">
          <CupsOfSet pour={pour} />
          <Parts pour={pour} />
          <section>
            <h2>
              Cook {text(pour.cookMl, 'volume')}, {cupsText(pour.cookMl)}, {text(pour.plan.cookG, 'mass')} of plastisol
              {(pour.plan.glasses ?? 1) > 1 &&
                `, in ${pour.plan.glasses} glasses${pour.plan.perGlass ? '; into each' : ''}`}
            </h2>
            <ul className="ruled border-y border-[var(--rule)] mt-2">
              {pour.plan.items.map((item, index) => {
                const about = pour.recipeItems[index];
                return about ? (
                  <ScaledRow
                    key={item.id}
                    item={{
                      ...about,
                      materialKind: item.lotCode ? `${about.materialKind}, lot ${item.lotCode}` : about.materialKind,
                    }}
                    scale={pour.plan.perGlass?.[index] ?? item}
                  />
                ) : null;
              })}
            </ul>
          </section>
          <ShotsByCup pour={pour} />
          <PouredAgain pour={pour} />
          <HowItLooks pour={pour} />
          {pour.closedAt && pour.shots.length > 0 && <Regrade key={pour.id} pour={pour} />}
          {!pour.closedAt && (
            <div className="max-w-2xl">
              <Caution about={['hot', 'scorch']} />
            </div>
          )}
        </div>
        <Beside pour={pour} />
      </div>
    </Page>
  );
}

/** Beside the sheet: the cup's curve, its molds, whom it was for, what went into it and came of it. */
function Beside({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  // A cup that gives to another’s shots has none of its own.
  const led = useQuery({ ...queries.pour(pour.leadId ?? ''), enabled: pour.leadId !== null });
  const molds = pour.leadId === null ? pour.molds : (led.data?.molds ?? []);
  return (
    <div className="flex flex-col gap-7">
      {pour.heats.length > 0 && molds.length > 0 && (
        <section>
          <h2 className="mb-1">The cup</h2>
          <CupCurve
            heats={pour.heats}
            shots={pour.shots}
            {...cupWindow(molds, pour.limits)}
            limits={pour.limits}
            nowMs={Date.parse(pour.shots.at(-1)?.at ?? pour.heats.at(-1)?.at ?? pour.laidOutAt)}
            widthPx={400}
          />
        </section>
      )}
      <section>
        <h2 className="mb-1">Molds</h2>
        {pour.leadId !== null && molds.length > 0 && <p className="soft">drawn with {led.data?.code}</p>}
        {pour.molds.map((mold) => {
          const shots = pour.shots.filter((shot) => shot.moldId === mold.moldId);
          const marks = shots.flatMap((shot) => shot.marks);
          return (
            <p key={mold.moldId} className="py-0.5">
              <Link to={`/molds/${mold.moldId}`} className="link font-bold">
                {mold.name}
              </Link>
              <span className="figure text-sm">
                {' '}
                {shots.length} of {mold.shots} shots, {countGrades(marks).sell} to sell
              </span>
            </p>
          );
        })}
      </section>
      {pour.orders.length > 0 && (
        <section>
          <h2 className="mb-1">Poured for</h2>
          {pour.orders.map((order) => (
            <p key={`${order.orderId} ${order.baitName}`}>
              <Link to={`/orders/${order.orderId}`} className="link">
                {order.customer} {order.code}
              </Link>
              , {order.baits} {order.baitName}, due {dayText(order.dueOn)}
            </p>
          ))}
        </section>
      )}
      {pour.lots.length > 0 && (
        <section>
          <h2 className="mb-1">Lots used</h2>
          {pour.lots.map((lot) => (
            <p key={`${lot.materialName} ${lot.lotCode}`} className="text-sm">
              {lot.materialName}, lot {lot.lotCode}: <span className="figure">{text(lot.grams, 'mass')}</span>
            </p>
          ))}
        </section>
      )}
      {pour.bags.length > 0 && (
        <section>
          <h2 className="mb-1">Bags from it</h2>
          <p className="flex flex-wrap gap-2">
            {pour.bags.map((bag) => (
              <Link key={bag.code} to={`/bags/${bag.code}`} className="link figure text-sm" title={bag.customer ?? ''}>
                {bag.code}
              </Link>
            ))}
          </p>
        </section>
      )}
      <Photos aboutType="pour" aboutId={pour.id} />
    </div>
  );
}

/** A pour laid out by mistake is put away, and can be taken up again. */
function PutAway({ pour }: { pour: Pour }) {
  const change = useWrite<Pour>(() => ({
    path: `/pours/${pour.id}`,
    method: 'PATCH',
    version: pour.version,
    body: { discarded: !pour.discardedAt },
  }));
  return (
    <>
      <button type="button" className="btn btn-line" disabled={change.isPending} onClick={() => change.mutate()}>
        {pour.discardedAt ? 'Take it up again' : 'Put it away'}
      </button>
      <Refusal error={change.error} />
    </>
  );
}

/** What a shot drew of this cup; one that it only leads drew nothing. */
const partOf = (shot: Pour['shots'][number], pourId: string) =>
  shot.parts.find((part) => part.pourId === pourId) ?? { doseSeq: 0, heatSeq: 0 };

/** The cups of the same baits, and how much of each shot every one gives. */
function CupsOfSet({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  if (pour.cups.length < 2) return null;
  return (
    <section>
      <h2 className="mb-2">{pour.leadId === null ? 'Drawn from' : 'Drawn together, led by the first'}</h2>
      <ul className="ruled border-y border-[var(--rule)]">
        {pour.cups.map((cup) => (
          <li key={cup.id} className="flex flex-wrap gap-x-3 py-2 items-center">
            <span className="w-5 h-5 rounded-full border-2 border-[var(--ink)]" style={{ background: cup.hex }} />
            <Link to={`/pours/${cup.id}`} className="link figure">
              {cup.code}
            </Link>
            <b className="flex-1 min-w-40">
              {cup.recipeName}
              <span className="font-normal soft">
                {' '}
                {pour.layers.length > 1 &&
                  cup.layers
                    .map((layer) => {
                      const mm = pour.molds.length === 1 ? pour.molds[0]?.layersMm[layer] : null;
                      const place = PLACES[pour.layers[layer]?.place ?? 'whole'];
                      return typeof mm === 'number' ? `${place}, up to ${text(mm, 'length')}` : place;
                    })
                    .join(', ')}
              </span>
            </b>
            {pour.molds.map((mold) => (
              <span key={mold.moldId} className="figure text-sm">
                {text(
                  cup.layers.reduce((sum, layer) => sum + (mold.layersMl[layer] ?? 0), 0),
                  'volume',
                )}{' '}
                a shot
              </span>
            ))}
            {cup.id === pour.id && <span className="soft text-sm">this one</span>}
          </li>
        ))}
      </ul>
      {pour.molds.map(
        (mold) =>
          mold.stands && (
            <p key={mold.moldId} className="soft mt-1">
              {mold.name} <Stood of={mold.stands} />
            </p>
          ),
      )}
    </section>
  );
}

/** Layers that were lifted out and poured again: plastic and minutes that made no bait. */
function PouredAgain({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  const redone = pour.shots.flatMap((shot, index) => shot.redone.map((one) => ({ ...one, shot: index + 1 })));
  if (redone.length === 0) return null;
  const ml = redone.reduce((sum, one) => sum + one.ml, 0);
  const minutes = redone.reduce((sum, one) => sum + (one.minutes ?? 0), 0);
  const unknown = redone.filter((one) => one.minutes === null).length;
  return (
    <section>
      <h2 className="mb-1">
        Poured again: <span className="figure">{text(ml, 'volume')}</span>
        {minutes > 0 && <span className="figure">, {minutes} min</span>}
        {unknown > 0 && <span className="soft text-base font-normal">, minutes of {unknown} not known</span>}
      </h2>
      <ul>
        {redone.map((one) => (
          <li key={one.id} className="text-sm">
            shot {one.shot}, cavity {one.cavity}: {PLACES[pour.layers[one.layer]?.place ?? 'whole']}
            {one.reason && `, ${reasonWords(one.reason)}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Shots gathered by the state of the cup they were drawn from: each belongs to the recipe as it was at that moment. */
function ShotsByCup({ pour }: { pour: Pour }) {
  const { text } = useTaste();
  if (pour.shots.length === 0) return null;
  const groups: { key: string; shots: Pour['shots'] }[] = [];
  for (const shot of pour.shots) {
    const of = partOf(shot, pour.id);
    const key = `${of.doseSeq} ${of.heatSeq}`;
    const last = groups.at(-1);
    if (last?.key === key) last.shots.push(shot);
    else groups.push({ key, shots: [shot] });
  }
  const name = (materialId: string) => pour.doses.find((dose) => dose.materialId === materialId)?.materialName ?? '';
  const number = (id: string) => pour.shots.findIndex((shot) => shot.id === id) + 1;
  return (
    <section>
      <h2 className="mb-2">Shots, by what was in the cup</h2>
      <ol className="ruled border-y border-[var(--rule)]">
        {groups.map(({ key, shots }) => {
          const [first, last] = [shots[0], shots.at(-1)];
          if (!first || !last) return null;
          const totals = cupTotals(pour.doses, partOf(first, pour.id).doseSeq);
          const heats = pour.heats.filter((heat) => heat.seq <= partOf(first, pour.id).heatSeq);
          const fired = heats.filter((heat) => heat.kind !== 'reading').length;
          const marks = shots.flatMap((shot) => shot.marks);
          return (
            <li key={key} className="grid grid-cols-[110px_1fr_auto] gap-4 py-2.5">
              <span className="figure">
                {first === last ? `shot ${number(first.id)}` : `${number(first.id)}–${number(last.id)}`}
                <span className="label-small block">{timeText(first.at)}</span>
              </span>
              <span>
                {totals.length === 0 ? (
                  <b>plain</b>
                ) : (
                  totals
                    .map((total) => `${Number(total.amount.toFixed(3))} ${total.unit} ${name(total.materialId)}`)
                    .join(', ')
                )}
                <span className="label-small block">
                  {heats.length === 0
                    ? 'no reading'
                    : `${text(heats.at(-1)?.c ?? 0, 'temperature')}, heat ${Math.max(1, fired)}`}
                </span>
              </span>
              <span className="figure text-right">{gradesText(countGrades(marks))}</span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
