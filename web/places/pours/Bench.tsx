import { useQueries, useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import type { Material } from '../../../contract/materials.ts';
import type { Pour } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import { usual } from '../../../core/defaults.ts';
import { cupTotals } from '../../../core/plastisol/cup.ts';
import { meaning } from '../../../core/process/next.ts';
import { durationText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { isGone, Missing, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { applyTheme } from '../../parts/theme.ts';
import { AskedAtTheCup } from './AskedAtTheCup.tsx';
import { AtHandPanel, ScaleSaw } from './AtHand.tsx';
import { BaitScale } from './BaitScale.tsx';
import { BeforeTheHeat } from './BeforeTheHeat.tsx';
import { useBenchRoom } from './benchRoom.ts';
import { Cooking } from './Cooking.tsx';
import { CupCurve } from './CupCurve.tsx';
import { CupSide } from './CupSide.tsx';
import { CupsHere } from './CupsHere.tsx';
import { CupTicks } from './CupTicks.tsx';
import { KeptWarm } from './KeptWarm.tsx';
import { Lane } from './Lane.tsx';
import { NextCard } from './NextCard.tsx';
import { partText } from './partText.ts';
import { Rescue } from './Rescue.tsx';
import { useAtHand } from './useAtHand.ts';
import { type AtTheCup, useAtTheCup } from './useAtTheCup.ts';

const [CURVE_PX, LEAST_CURVE_PX] = [262, 124];
/** What stands above the curve beside the name: other cups, how the cup cools, what sinks in it. */
const [CUPS_PX, COOLS_PX, SINKS_PX] = [86, 88, 36];

export function Bench() {
  const { id = '' } = useParams();
  const asked = useQuery(queries.pour(id));
  // A cup that gives to shots that another leads stands at that one's bench.
  const leadId = asked.data?.leadId ?? null;
  const led = useQuery({ ...queries.pour(leadId ?? id), enabled: leadId !== null });
  const lead = leadId === null ? asked : led;
  const others = useQueries({
    queries: (lead.data?.cups ?? []).slice(1).map((cup) => queries.pour(cup.id)),
  });
  const materials = useQuery(queries.materials);
  useStandingHere();
  if (isGone(asked.error, asked.data)) return <Missing error={asked.error} back="All pours" backTo="/pours" />;
  const pours = [lead.data, ...others.map((one) => one.data)];
  if (!materials.data || pours.some((pour) => pour === undefined)) return <Waiting />;
  return <Standing key={id} pours={pours as [Pour, ...Pour[]]} inHand={id} materials={materials.data.items} />;
}

/** Night colours and a screen that stays awake for as long as somebody stands here. */
export function useStandingHere() {
  useEffect(() => {
    applyTheme('night');
    let here = true;
    let lock: WakeLockSentinel | undefined;
    // A browser takes the lock away when the page is hidden: it is asked for again when somebody looks.
    const wake = async () => {
      if (document.visibilityState !== 'visible') return;
      // Refused on a low battery; the bench works without it.
      const held = await navigator.wakeLock?.request('screen').catch(() => undefined);
      if (here) lock = held;
      else void held?.release();
    };
    void wake();
    document.addEventListener('visibilitychange', wake);
    return () => {
      here = false;
      document.removeEventListener('visibilitychange', wake);
      applyTheme();
      void lock?.release();
    };
  }, []);
}

export function Standing({
  pours,
  inHand,
  materials,
}: {
  pours: [Pour, ...Pour[]];
  inHand: string;
  materials: Material[];
}) {
  const at = useAtTheCup(pours, materials, inHand);
  const { lead, pour, folded, cup, next, nowMs } = at;
  const room = useBenchRoom();
  const taste = useTaste();
  const clocks = room.useClocks();
  const hand = useAtHand(at, clocks.find(({ kind, aboutId }) => kind === 'burst' && aboutId === pour.id)?.startedAt);
  // What a thermometer says of the cup in hand is taken by the big target itself.
  const reading = next.do === 'heat' && (next.cup ?? pour.id) === pour.id ? hand.reading : null;
  if (lead.closedAt) {
    return (
      <div className="p-10 flex flex-col gap-4 items-start">
        <h1>{pour.recipeName} is closed.</h1>
        <Link to={`/pours/${pour.id}`} className="btn btn-primary bench-target">
          Its sheet
        </Link>
        <CupsHere at={at} />
      </div>
    );
  }
  // The curve makes room for what stands above it.
  const above =
    (lead.evening.cups.filter((one) => one.closedAt === null).length > 1 ? CUPS_PX : 0) +
    (folded.heats.length > 0 ? COOLS_PX : 0) +
    (folded.stir ? SINKS_PX : 0);
  const heightPx = Math.max(LEAST_CURVE_PX, CURVE_PX - above);
  const curveOf = (fills: boolean) => (
    <CupCurve
      heats={folded.heats}
      shots={cup.shots}
      {...at.window}
      limits={pour.limits}
      nowMs={nowMs}
      foreseen={at.heat?.at}
      fills={fills}
      heightPx={heightPx}
    />
  );
  return (
    <div className="h-full flex flex-col">
      <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible flex flex-col lg:grid lg:grid-cols-[minmax(380px,460px)_minmax(0,1fr)] gap-4 lg:gap-6 px-3 sm:px-6 pt-3 sm:pt-4">
        <CupSide at={at} curve={curveOf(true)} />
        <section className="flex flex-col gap-3 lg:min-h-0 lg:overflow-auto pb-3" aria-label="Molds">
          <BeforeTheHeat at={at} />
          {hand.steps.length > 0 && <ScaleSaw hand={hand} />}
          {cup.molds.map((mold) => (
            <Lane
              key={mold.moldId}
              mold={mold}
              cup={cup}
              layers={lead.layers}
              active={(next.do === 'shot' || next.do === 'look') && next.mold.moldId === mold.moldId}
              hex={lead.layers.length > 1 ? lead.hex : pour.hex}
              onSay={at.write.ofShot}
              scale={(shot) => <BaitScale shot={shot} mold={mold} hand={hand} pourId={pour.id} />}
              onDraw={() => at.drawInto(mold)}
              onTap={(shot, cavity) => at.setPointed({ shot, mold, cavity })}
              onRest={(shot) => at.write.restGood(shot, mold)}
            />
          ))}
          <Cooking at={at} />
          <KeptWarm at={at} />
          <AtHandPanel at={at} hand={hand} />
          <CupTicks at={at} />
          <InTheCup doses={folded.doses} pour={pour} />
          {!room.dry && <Rescue at={at} />}
          {/* In the hand the molds come first. */}
          <div className="lg:hidden">{curveOf(false)}</div>
        </section>
      </div>
      <NextCard
        next={next}
        means={`${meaning(next, cup)}${reading ? ' by the thermometer' : ''}`}
        takes={reading?.value ?? null}
        more={degasCost(at, (c) => taste.text(c, 'temperature'))}
        onAct={reading ? hand.read : at.act}
      />
      <AskedAtTheCup at={at} />
    </div>
  );
}

/** What degassing costs of its heat, as this cup cools. */
function degasCost({ next, heat, nowMs }: AtTheCup, show: (c: number) => string): string | null {
  if (next.do !== 'degas' || !heat) return null;
  const seconds = usual(next.how === 'vacuum' ? 'degasS' : 'restS');
  return `In ${durationText(seconds)} it falls to about ${show(heat.at(nowMs + 1000 * seconds))}.`;
}

/** What the next shot is drawn from: the doses as they add up now. */
function InTheCup({ doses, pour }: { doses: Dose[]; pour: Pour }) {
  const taste = useTaste();
  const totals = cupTotals(doses);
  const name = (materialId: string) => doses.find((dose) => dose.materialId === materialId)?.materialName ?? '';
  return (
    <p className="bench-text px-3.5">
      {pour.parts.length > 0 && `${pour.parts.map((part) => partText(part, taste)).join(' + ')}. `}
      <b>In the cup: </b>
      {totals.length === 0
        ? 'plain, nothing dosed yet'
        : totals.map((total, index) => (
            <span key={`${total.materialId} ${total.unit}`}>
              {index > 0 && ', '}
              <b className="figure">{Number(total.amount.toFixed(2))}</b>{' '}
              {total.unit === 'drop' && total.amount !== 1 ? 'drops' : total.unit} {name(total.materialId)}
            </span>
          ))}
    </p>
  );
}
